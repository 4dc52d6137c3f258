import { FRAMES_PER_SECOND } from '../dsp/frame-power';
import type { LevelMeter } from '../dsp/level-meter';
import { standardDeviation } from '../stats/moments';
import { amplitudeToDb, db, dbfs, meanSquareToDbfs, powerToDb, type Db, type Dbfs } from '../units';
import { measured, type Measurement, type Spread } from './measurement';

/** A flat top this far below full scale is a coarse sine, not clipping. */
const LOWEST_CLIP_PEAK = 0.1;

/** Level of a clip, all channels together. */
export interface LevelFigures {
  /** −∞ for digital silence. */
  readonly peakDbfs: Dbfs;
  readonly rmsDbfs: Dbfs;
  /** NaN for digital silence. */
  readonly crestDb: Db;
  /** Mean of the samples, part of full scale; of the channel where it is largest. */
  readonly dcOffset: number;
  readonly clippedRuns: number;
  /** RMS level over blocks of one second; null where fewer than two are there. */
  readonly rmsSpread: Spread | null;
}

/**
 * Level by AES17: a full-scale sine reads 0 dBFS RMS. The RMS of several channels is that of all their samples
 * taken together; the peak is the highest of any channel.
 *
 * @param meters - one per channel, the whole clip through each
 * @param framePowers - mean squares of 20 ms frames, one array per channel
 */
export function levelFigures(meters: readonly LevelMeter[], framePowers: readonly Float64Array[]): LevelFigures {
  const count = meters.reduce((s, m) => s + m.count, 0);
  const meanSquare = meters.reduce((s, m) => s + m.sumOfSquares, 0) / count;
  const peak = Math.max(...meters.map((m) => m.peak));
  const offsets = meters.map((m) => m.sum / m.count);
  return {
    peakDbfs: dbfs(amplitudeToDb(peak)),
    rmsDbfs: meanSquareToDbfs(meanSquare),
    crestDb: db(amplitudeToDb(peak) - powerToDb(meanSquare)),
    dcOffset: offsets.reduce((a, b) => (Math.abs(b) > Math.abs(a) ? b : a)),
    clippedRuns: meters.reduce((s, m) => s + (m.peak >= LOWEST_CLIP_PEAK ? m.clippedRuns : 0), 0),
    rmsSpread: secondsSpread(framePowers),
  };
}

function secondsSpread(framePowers: readonly Float64Array[]): Spread | null {
  const seconds = Math.floor(framePowers[0].length / FRAMES_PER_SECOND);
  const levels: number[] = [];
  for (let s = 0; s < seconds; s++) {
    let sum = 0;
    for (const powers of framePowers) {
      for (let i = s * FRAMES_PER_SECOND; i < (s + 1) * FRAMES_PER_SECOND; i++) sum += powers[i];
    }
    if (sum > 0) levels.push(meanSquareToDbfs(sum / (FRAMES_PER_SECOND * framePowers.length)));
  }
  return levels.length < 2 ? null : { sd: standardDeviation(levels), count: levels.length, of: '1 s blocks' };
}

/** The figures as measurements with their conditions. */
export function levelMeasurements(level: LevelFigures): Measurement[] {
  const band = 'all of the band of the file';
  return [
    measured('samplePeak', level.peakDbfs, 're full scale, highest channel'),
    measured('rms', level.rmsDbfs, `unweighted, ${band}, whole clip`, { spread: level.rmsSpread }),
    measured('crest', level.crestDb, `unweighted, ${band}, whole clip`),
    measured('dcOffset', level.dcOffset, 'whole clip, largest channel'),
    measured('clippedRuns', level.clippedRuns, 'all channels, three or more equal samples'),
  ].map((m) => (Number.isFinite(m.value) ? m : { ...m, value: null, notMeasured: 'The clip is digital silence.' }));
}
