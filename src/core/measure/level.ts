import { FRAMES_PER_SECOND } from '../dsp/frame-power';
import { clippedRunsOf, peakOf } from '../dsp/level-meter';
import { standardDeviation } from '../stats/moments';
import { amplitudeToDb, db, dbfs, meanSquareToDbfs, powerToDb, type Db, type Dbfs } from '../units';
import type { ChannelReadings } from './channel-meters';
import { measured, type Measurement, type Spread } from './measurement';

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

/** What level is read from, of one channel. */
export type ChannelLevel = Pick<ChannelReadings, 'level' | 'count' | 'sum' | 'sumOfSquares' | 'plain'>;

/**
 * Level by AES17: a full-scale sine reads 0 dBFS RMS. The RMS of several channels is that of all their samples
 * taken together; the peak is the highest of any channel.
 *
 * @param channels - readings of the whole clip
 */
export function levelFigures(channels: readonly ChannelLevel[]): LevelFigures {
  const count = channels.reduce((s, c) => s + c.count, 0);
  const meanSquare = channels.reduce((s, c) => s + c.sumOfSquares, 0) / count;
  const peak = Math.max(...channels.map((c) => peakOf(c.level)));
  const offsets = channels.map((c) => c.sum / c.count);
  return {
    peakDbfs: dbfs(amplitudeToDb(peak)),
    rmsDbfs: meanSquareToDbfs(meanSquare),
    crestDb: db(amplitudeToDb(peak) - powerToDb(meanSquare)),
    dcOffset: offsets.reduce((a, b) => (Math.abs(b) > Math.abs(a) ? b : a)),
    clippedRuns: channels.reduce((s, { level }) => s + clippedRunsOf(level), 0),
    rmsSpread: secondsSpread(channels.map((c) => c.plain)),
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
  return levels.length < 2 ? null : { sd: standardDeviation(levels), count: levels.length, of: 'blocks of 1 s' };
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
