import { convolve } from '../dsp/convolve';
import { besselI0 } from './resample';

/** Corner frequencies of the anchors of ITU-R BS.1534: low and mid range. */
export const ANCHOR_HZ = { low: 3500, mid: 7000 } as const;
/** Where the stop band begins, as a multiple of the corner: 25 dB are asked for at 4 kHz, 50 dB at 4.5 kHz. */
const STOP = 4 / 3.5;
/** Kaiser window for 60 dB. */
const BETA = 5.65;

/**
 * Low-pass anchor of a listening test: flat to the corner within 0.1 dB, 60 dB down from 1.14 times the corner on.
 * Linear phase; the delay is taken off, so that it lies exactly under the reference.
 *
 * @param samples - the reference, one channel
 * @param sampleRate - in hertz
 * @param cornerHz - see {@link ANCHOR_HZ}
 * @see ITU-R BS.1534-3, 5.1 (anchors; limits from memory)
 */
export function lowPassAnchor(samples: Float64Array, sampleRate: number, cornerHz: number): Float64Array {
  const stopHz = cornerHz * STOP;
  if (stopHz >= sampleRate / 2) return samples.slice();
  // Kaiser's estimate of the order: (A − 7.95) / (14.36 Δf / fs) for A = 60 dB.
  const half = Math.ceil((60 - 7.95) / (14.36 * ((stopHz - cornerHz) / sampleRate)) / 2);
  const centreHz = (cornerHz + stopHz) / 2;
  const taps = Float64Array.from({ length: 2 * half + 1 }, (_, i) => {
    const k = i - half;
    const window = besselI0(BETA * Math.sqrt(1 - (k / half) ** 2)) / besselI0(BETA);
    const f = (2 * centreHz) / sampleRate;
    return window * (k === 0 ? f : Math.sin(Math.PI * f * k) / (Math.PI * k));
  });
  const whole = convolve(samples, taps, samples.length + half);
  return whole.slice(half);
}
