import type { Biquad } from './biquad';
import { highPass, lowPass } from './eq-biquads';

/** Quality factors of the second-order sections of a Butterworth filter; its poles lie evenly on a half circle. */
function sectionQs(order: number): number[] {
  return Array.from(
    { length: Math.floor(order / 2) },
    (_, k) => 1 / (2 * Math.sin((Math.PI * (2 * k + 1)) / (2 * order))),
  );
}

/** First-order section by the bilinear transform, warped so that the corner falls where it is asked for. */
function firstOrder(kind: 'high' | 'low', cornerHz: number, sampleRate: number): Biquad {
  const k = Math.tan((Math.PI * cornerHz) / sampleRate);
  const a1 = (k - 1) / (k + 1);
  return kind === 'high'
    ? { b0: 1 / (1 + k), b1: -1 / (1 + k), b2: 0, a1, a2: 0 }
    : { b0: k / (1 + k), b1: k / (1 + k), b2: 0, a1, a2: 0 };
}

/**
 * Butterworth high-pass as sections (bilinear transform).
 *
 * @param order - 1…8
 * @param cornerHz - −3.01 dB
 * @param sampleRate - in hertz
 */
export function butterworthHighPass(order: number, cornerHz: number, sampleRate: number): Biquad[] {
  const sections = sectionQs(order).map((q) => highPass(sampleRate, cornerHz, q));
  return order % 2 === 1 ? [...sections, firstOrder('high', cornerHz, sampleRate)] : sections;
}

/** As {@link butterworthHighPass}, low-pass. */
export function butterworthLowPass(order: number, cornerHz: number, sampleRate: number): Biquad[] {
  const sections = sectionQs(order).map((q) => lowPass(sampleRate, cornerHz, q));
  return order % 2 === 1 ? [...sections, firstOrder('low', cornerHz, sampleRate)] : sections;
}

/**
 * Magnitude of an analogue Butterworth high-pass: −10·lg(1 + (f_c/f)^2n).
 *
 * @param order - n
 * @param cornerHz - f_c
 * @param frequency - f, in hertz
 * @returns gain in dB
 */
export const butterworthHighPassDb = (order: number, cornerHz: number, frequency: number): number =>
  -10 * Math.log10(1 + (cornerHz / frequency) ** (2 * order));
