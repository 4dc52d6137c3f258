import type { Biquad } from './biquad';

// Second-order filters by the bilinear transform, formulas of R. Bristow-Johnson's "Audio EQ Cookbook" (W3C Note 2021).

interface Prepared {
  readonly cos: number;
  readonly alpha: number;
}

function prepare(sampleRate: number, frequency: number, q: number): Prepared {
  const w = (2 * Math.PI * frequency) / sampleRate;
  return { cos: Math.cos(w), alpha: Math.sin(w) / (2 * q) };
}

const normalised = (b0: number, b1: number, b2: number, a0: number, a1: number, a2: number): Biquad => ({
  b0: b0 / a0,
  b1: b1 / a0,
  b2: b2 / a0,
  a1: a1 / a0,
  a2: a2 / a0,
});

/**
 * Bell: raises or lowers a region.
 *
 * @param sampleRate - in hertz
 * @param frequency - centre in hertz
 * @param gainDb - at the centre
 * @param q - centre over bandwidth
 */
export function peaking(sampleRate: number, frequency: number, gainDb: number, q: number): Biquad {
  const { cos, alpha } = prepare(sampleRate, frequency, q);
  const a = 10 ** (gainDb / 40);
  return normalised(1 + alpha * a, -2 * cos, 1 - alpha * a, 1 + alpha / a, -2 * cos, 1 - alpha / a);
}

/** High-pass of second order; q = 0.7071 is Butterworth. Frequency in hertz at −3 dB for that q. */
export function highPass(sampleRate: number, frequency: number, q = Math.SQRT1_2): Biquad {
  const { cos, alpha } = prepare(sampleRate, frequency, q);
  return normalised((1 + cos) / 2, -(1 + cos), (1 + cos) / 2, 1 + alpha, -2 * cos, 1 - alpha);
}

/** Low-pass of second order; q = 0.7071 is Butterworth. Frequency in hertz at −3 dB for that q. */
export function lowPass(sampleRate: number, frequency: number, q = Math.SQRT1_2): Biquad {
  const { cos, alpha } = prepare(sampleRate, frequency, q);
  return normalised((1 - cos) / 2, 1 - cos, (1 - cos) / 2, 1 + alpha, -2 * cos, 1 - alpha);
}
