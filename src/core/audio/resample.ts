/** Zero crossings of the sinc on each side of the centre. */
const HALF_LOBES = 32;
/** Shape of the Kaiser window: about 90 dB of stop band (Kaiser 1974). */
const BETA = 9;

/**
 * Converts a clip to another sample rate by band-limited interpolation with a Kaiser-windowed sinc, the cut-off a
 * little below half of the lower rate. Linear phase, no delay.
 *
 * @param samples - one channel
 * @param from - its sample rate in hertz
 * @param to - wanted sample rate in hertz
 * @returns round(length · to / from) samples; the input itself where the rates are equal
 * @see Smith & Gossett, A flexible sampling-rate conversion method, ICASSP 1984
 */
export function resample(samples: Float64Array, from: number, to: number): Float64Array {
  if (from === to) return samples;
  const ratio = to / from;
  // Relative to the input's rate; the transition band ends at half of the lower rate.
  const cutOff = 0.95 * Math.min(1, ratio);
  const reach = HALF_LOBES / cutOff;
  const bottom = besselI0(BETA);
  const out = new Float64Array(Math.round(samples.length * ratio));
  for (let i = 0; i < out.length; i++) {
    const centre = i / ratio;
    const first = Math.max(0, Math.ceil(centre - reach));
    const last = Math.min(samples.length - 1, Math.floor(centre + reach));
    let sum = 0;
    for (let k = first; k <= last; k++) {
      const x = k - centre;
      const window = besselI0(BETA * Math.sqrt(Math.max(0, 1 - (x / reach) ** 2))) / bottom;
      sum += samples[k] * sinc(cutOff * x) * window;
    }
    out[i] = cutOff * sum;
  }
  return out;
}

const sinc = (x: number): number => (x === 0 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x));

/** Modified Bessel function of the first kind, order zero, by its series (Abramowitz & Stegun 9.6.12). */
export function besselI0(x: number): number {
  let term = 1;
  let sum = 1;
  for (let k = 1; term > sum * 1e-12; k++) {
    term *= (x / 2 / k) ** 2;
    sum += term;
  }
  return sum;
}
