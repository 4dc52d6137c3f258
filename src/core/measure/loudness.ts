import { standardDeviation } from '../stats/moments';
import { amplitudeToDb, dbtp, type Dbtp, type Lufs } from '../units';
import { gatedLoudness } from './integrated-loudness';
import { measured, notMeasured, type Measurement, type Spread } from './measurement';

/** Blocks at 75 % overlap share three quarters with their neighbours: four of them count as one. */
const BLOCKS_PER_INDEPENDENT = 4;

/** Loudness of a clip. */
export interface LoudnessFigures {
  /** −∞ where nothing passes the gates. */
  readonly integratedLufs: Lufs;
  /** Loudness over the gated blocks; null where fewer than two passed. */
  readonly spread: Spread | null;
  /** Standard uncertainty of the mean over independent blocks, in LU; null with the spread. */
  readonly uncertaintyLu: number | null;
  /** −∞ for digital silence. */
  readonly truePeakDbtp: Dbtp;
}

/**
 * @param stepPowers - K-weighted, channel-weighted power in steps of 100 ms
 * @param truePeak - linear, highest channel
 */
export function loudnessFigures(stepPowers: Float64Array, truePeak: number): LoudnessFigures {
  const gated = gatedLoudness(stepPowers);
  return {
    integratedLufs: gated.loudness,
    ...blockSpread(gated.blocks),
    truePeakDbtp: dbtp(amplitudeToDb(truePeak)),
  };
}

/**
 * Spread of gated blocks and the standard uncertainty of their mean, counting overlapping blocks once.
 *
 * @param blocks - loudness of each block, in LUFS
 */
export function blockSpread(blocks: readonly number[]): { spread: Spread | null; uncertaintyLu: number | null } {
  if (blocks.length < 2) return { spread: null, uncertaintyLu: null };
  const sd = standardDeviation(blocks);
  const independent = Math.max(1, blocks.length / BLOCKS_PER_INDEPENDENT);
  return {
    spread: { sd, count: blocks.length, of: 'gating blocks of 400 ms at 75 % overlap' },
    uncertaintyLu: sd / Math.sqrt(independent),
  };
}

/** The figures as measurements with their conditions. */
export function loudnessMeasurements(loudness: LoudnessFigures): Measurement[] {
  const condition = 'K-weighted, gated at −70 LUFS and −10 LU, whole clip';
  return [
    Number.isFinite(loudness.integratedLufs)
      ? measured('integratedLoudness', loudness.integratedLufs, condition, {
          spread: loudness.spread,
          uncertainty: loudness.uncertaintyLu,
        })
      : notMeasured('integratedLoudness', condition, 'Nothing in the clip is louder than −70 LUFS for 0.4 s.'),
    Number.isFinite(loudness.truePeakDbtp)
      ? measured('truePeak', loudness.truePeakDbtp, '4 × oversampled, highest channel')
      : notMeasured('truePeak', '4 × oversampled, highest channel', 'The clip is digital silence.'),
  ];
}
