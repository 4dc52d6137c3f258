import { besselI0 } from './resample';

/** Taps on each side; with this window, all below 0.9 of half the sample rate passes within 0.01 dB. */
const REACH = 32;
const BETA = 9;

/**
 * Delays a clip by less than one sample: a sinc shifted by the delay, under a Kaiser window.
 *
 * @param samples - one channel
 * @param delay - in samples, 0 to 1
 * @returns as many samples; before the first and behind the last one, silence is assumed
 * @see Laakso et al., Splitting the unit delay, IEEE Signal Processing Magazine 13 (1996)
 */
export function fractionalDelay(samples: Float64Array, delay: number): Float64Array {
  const taps = new Float64Array(2 * REACH);
  for (let k = 0; k < taps.length; k++) {
    const x = k - REACH + delay;
    const sinc = x === 0 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x);
    taps[k] = (sinc * besselI0(BETA * Math.sqrt(Math.max(0, 1 - (x / REACH) ** 2)))) / besselI0(BETA);
  }
  const out = new Float64Array(samples.length);
  for (let i = 0; i < out.length; i++) {
    let sum = 0;
    const first = Math.max(0, i - REACH);
    const last = Math.min(samples.length - 1, i + REACH - 1);
    for (let j = first; j <= last; j++) sum += samples[j] * taps[j - i + REACH];
    out[i] = sum;
  }
  return out;
}
