import { FRAMES_PER_SECOND } from '../dsp/frame-power';
import { correlationLength } from '../stats/correlation-length';
import { standardDeviation } from '../stats/moments';
import { amplitudeToDb, dbtp, type Db, type Dbtp, type Lufs } from '../units';
import {
  gatedLoudness,
  maximumLoudness,
  MOMENTARY_FRAMES,
  SHORT_TERM_FRAMES,
  stepsFromFrames,
} from './integrated-loudness';
import { loudnessRange } from './loudness-range';
import { measured, notMeasured, type Measurement, type Spread } from './measurement';
import type { QuantityId } from './registry';

/** Blocks at 75 % overlap share three quarters with their neighbours: at least four of them count as one. */
const BLOCKS_PER_INDEPENDENT = 4;

/** Loudness of a clip. */
export interface LoudnessFigures {
  /** −∞ where nothing passes the gates. */
  readonly integratedLufs: Lufs;
  /** Loudness over the gated blocks; null where fewer than two passed. */
  readonly spread: Spread | null;
  /** Standard uncertainty of the mean over independent blocks, in LU; null with the spread. */
  readonly uncertaintyLu: number | null;
  /** Largest loudness of 0.4 s; −∞ for a shorter or silent clip. */
  readonly maxMomentaryLufs: Lufs;
  /** Largest loudness of 3 s; −∞ for a shorter or silent clip. */
  readonly maxShortTermLufs: Lufs;
  /** Null for a clip shorter than 3 s, or one without anything above −70 LUFS. */
  readonly loudnessRangeLu: Db | null;
  /** −∞ for digital silence. */
  readonly truePeakDbtp: Dbtp;
}

/**
 * @param framePowers - K-weighted, channel-weighted mean squares of successive 20 ms frames; a part of a clip gives
 *   the loudness of that part
 * @param truePeak - linear, highest channel
 */
export function loudnessFigures(framePowers: Float64Array, truePeak: number): LoudnessFigures {
  const steps = stepsFromFrames(framePowers);
  const gated = gatedLoudness(steps);
  return {
    integratedLufs: gated.loudness,
    ...blockSpread(gated.blocks),
    maxMomentaryLufs: maximumLoudness(framePowers, MOMENTARY_FRAMES),
    maxShortTermLufs: maximumLoudness(framePowers, SHORT_TERM_FRAMES),
    loudnessRangeLu: loudnessRange(steps),
    truePeakDbtp: dbtp(amplitudeToDb(truePeak)),
  };
}

/**
 * Spread of gated blocks and the standard uncertainty of their mean, counting as one what hangs together: blocks that
 * overlap, and beyond them the phrases of speech, whose blocks are alike for seconds.
 *
 * @param blocks - loudness of each block, in LUFS
 */
export function blockSpread(blocks: readonly number[]): { spread: Spread | null; uncertaintyLu: number | null } {
  if (blocks.length < 2) return { spread: null, uncertaintyLu: null };
  const sd = standardDeviation(blocks);
  const together = Math.max(BLOCKS_PER_INDEPENDENT, correlationLength(blocks));
  const independent = Math.max(1, blocks.length / together);
  return {
    spread: { sd, count: blocks.length, of: 'gating blocks of 400 ms at 75 % overlap' },
    uncertaintyLu: sd / Math.sqrt(independent),
  };
}

const RANGE_CONDITION = 'blocks of 3 s every 100 ms, gated at −70 LUFS and −20 LU, 10th to 95th percentile';

function maximum(id: QuantityId, value: Lufs, window: string): Measurement {
  const condition = `K-weighted, sliding window of ${window}, not gated`;
  return Number.isFinite(value)
    ? measured(id, value, condition)
    : notMeasured(id, condition, `The clip is shorter than ${window}, or digital silence.`);
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
    maximum('maxMomentaryLoudness', loudness.maxMomentaryLufs, '0.4 s'),
    maximum('maxShortTermLoudness', loudness.maxShortTermLufs, '3 s'),
    loudness.loudnessRangeLu === null
      ? notMeasured('loudnessRange', RANGE_CONDITION, 'The clip is shorter than 3 s, or never louder than −70 LUFS.')
      : measured('loudnessRange', loudness.loudnessRangeLu, RANGE_CONDITION),
    Number.isFinite(loudness.truePeakDbtp)
      ? measured('truePeak', loudness.truePeakDbtp, '4 × oversampled, highest channel')
      : notMeasured('truePeak', '4 × oversampled, highest channel', 'The clip is digital silence.'),
  ];
}

/** Loudness of a part of a clip, with the part as it was measured: whole frames of 20 ms. */
export type PartLoudness = Omit<LoudnessFigures, 'truePeakDbtp'> & { readonly startS: number; readonly endS: number };

/**
 * Loudness of a chosen part, with the gates applied to that part alone.
 *
 * @param framePowers - of the whole clip, as for {@link loudnessFigures}
 * @param part - seconds from the start of the clip
 * @param part.startS - where it begins
 * @param part.endS - where it ends; beyond the clip means to its end
 */
export function partLoudness(
  framePowers: Float64Array,
  part: { readonly startS: number; readonly endS: number },
): PartLoudness {
  const from = Math.round(part.startS * FRAMES_PER_SECOND);
  const to = Math.min(framePowers.length, Math.round(part.endS * FRAMES_PER_SECOND));
  const { integratedLufs, spread, uncertaintyLu, maxMomentaryLufs, maxShortTermLufs, loudnessRangeLu } =
    loudnessFigures(framePowers.slice(from, Math.max(from, to)), 0);
  return {
    integratedLufs,
    spread,
    uncertaintyLu,
    maxMomentaryLufs,
    maxShortTermLufs,
    loudnessRangeLu,
    startS: from / FRAMES_PER_SECOND,
    endS: Math.max(from, to) / FRAMES_PER_SECOND,
  };
}
