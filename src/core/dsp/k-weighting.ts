import type { Biquad } from './biquad';

/**
 * The two sections of K-weighting, ITU-R BS.1770-5 Annex 1: a high shelf for the head, then the RLB high-pass.
 * The standard tabulates coefficients for 48 kHz only. They are re-derived here for any rate by the bilinear
 * transform from the analogue parameters behind the table (f₀, Q and gain found by matching it; the same
 * numbers as in libebur128), so that 48 kHz gives the table to 1e-10 (checked in the test).
 *
 * @param sampleRate - in hertz
 * @returns shelf and high-pass, in this order
 */
export function kWeighting(sampleRate: number): readonly [Biquad, Biquad] {
  return [headShelf(sampleRate), rlbHighPass(sampleRate)];
}

function headShelf(sampleRate: number): Biquad {
  const gainDb = 3.999843853973347;
  const q = 0.7071752369554196;
  const k = Math.tan((Math.PI * 1681.974450955533) / sampleRate);
  const vh = 10 ** (gainDb / 20);
  const vb = vh ** 0.4996667741545416;
  const a0 = 1 + k / q + k * k;
  return {
    b0: (vh + (vb * k) / q + k * k) / a0,
    b1: (2 * (k * k - vh)) / a0,
    b2: (vh - (vb * k) / q + k * k) / a0,
    a1: (2 * (k * k - 1)) / a0,
    a2: (1 - k / q + k * k) / a0,
  };
}

const TABLE_RATE = 48_000;
const RLB_Q = 0.5003270373238773;
const rlbK = (sampleRate: number): number => Math.tan((Math.PI * 38.13547087602444) / sampleRate);
const rlbA0 = (sampleRate: number): number => 1 + rlbK(sampleRate) / RLB_Q + rlbK(sampleRate) ** 2;

function rlbHighPass(sampleRate: number): Biquad {
  const k = rlbK(sampleRate);
  const a0 = rlbA0(sampleRate);
  // The table leaves the numerator at 1, −2, 1 instead of dividing it by a0, and so has a gain of +0.043 dB. That gain
  // is part of the standard's curve; keeping 1, −2, 1 at other rates would change it (by 0.09 dB at 16 kHz).
  const b0 = rlbA0(TABLE_RATE) / a0;
  return { b0, b1: -2 * b0, b2: b0, a1: (2 * (k * k - 1)) / a0, a2: (1 - k / RLB_Q + k * k) / a0 };
}
