/** Gain of the network at its reference, so that 1 kHz reads 0 dB: +18.2 dB (ITU-R BS.468-4 Annex 1). */
const REFERENCE_GAIN = 10 ** (18.2 / 20);

/** Real and imaginary part of a gain. */
export interface ComplexGain {
  readonly re: number;
  readonly im: number;
}

/**
 * Weighting network of ITU-R BS.468-4 Annex 1 Fig. 1a as a rational function of frequency: one zero at DC over a
 * polynomial of sixth order, with the network's own (minimum) phase. The coefficients are those commonly derived from
 * the component values of the figure; written from memory and confirmed by the standard's table 1 in the test.
 *
 * @param frequency - in hertz, 0 or more
 */
export function itu468Gain(frequency: number): ComplexGain {
  const f = frequency;
  const f2 = f * f;
  const even = ((-4.737338981378384e-24 * f2 + 2.043828333606125e-15) * f2 - 1.363894795463638e-7) * f2 + 1;
  const odd = ((1.306612257412824e-19 * f2 - 2.118150887518656e-11) * f2 + 5.559488023498642e-4) * f;
  const top = REFERENCE_GAIN * 1.246332637532143e-4 * f;
  // j·top / (even + j·odd)
  const bottom = even * even + odd * odd;
  return { re: (top * odd) / bottom, im: (top * even) / bottom };
}

/** The same as a ratio of powers. */
export function itu468Power(frequency: number): number {
  const { re, im } = itu468Gain(frequency);
  return re * re + im * im;
}
