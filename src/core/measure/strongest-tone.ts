import { welch } from '../dsp/welch';
import { meanSquareToDbfs, type Dbfs } from '../units';

/** The loudest steady tone of a recording. */
export interface StrongestTone {
  /** AES17: a full-scale sine reads 0. */
  readonly dbfs: Dbfs;
  readonly hz: number;
}

const LOWEST_HZ = 20;
/** Bins to either side that hold all of a tone under a Hann window. */
const REACH = 3;
/** A tone holds at least this share of all power; anything else is no calibrator. */
const LEAST_SHARE = 0.5;
const FRAME_S = 0.25;

/**
 * Level and frequency of the tone that fills a recording: the power of the bins around the highest one of a Welch
 * spectrum (Hann); the frequency is their centre of gravity.
 *
 * @param samples - one channel, full scale ±1, at least a quarter of a second
 * @param sampleRate - in hertz
 * @returns null where no tone holds half of the power
 */
export function strongestTone(samples: Float64Array, sampleRate: number): StrongestTone | null {
  const { powers, binHz, frames } = welch(samples, sampleRate, 2 ** Math.floor(Math.log2(FRAME_S * sampleRate)));
  if (frames === 0) return null;
  const lowest = Math.ceil(LOWEST_HZ / binHz);
  const sum = (first: number, end: number): number => powers.subarray(first, end).reduce((a, b) => a + b, 0);
  let peak = -1;
  for (let k = lowest; k < powers.length; k++) {
    // What falls from below the lowest bin belongs to a rumble there.
    if (powers[k] >= powers[k - 1] && (peak < 0 || powers[k] > powers[peak])) peak = k;
  }
  if (peak < 0) return null;
  const [from, to] = [Math.max(lowest, peak - REACH), Math.min(powers.length, peak + REACH + 1)];
  const tone = sum(from, to);
  if (!(tone >= LEAST_SHARE * sum(lowest, powers.length)) || tone <= 0) return null;
  let moment = 0;
  for (let k = from; k < to; k++) moment += k * powers[k];
  return { dbfs: meanSquareToDbfs(tone), hz: (moment / tone) * binHz };
}
