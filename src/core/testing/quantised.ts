import { seededBits, uniform } from '../stats/random';

/** Samples rounded to the steps of a format, with triangular dither of two steps. */
export function quantised(samples: Float64Array, bits: number, seed: string): Float64Array {
  const step = 2 ** (1 - bits);
  const random = seededBits(seed);
  return samples.map((x) => step * Math.round(x / step + uniform(random) - uniform(random)));
}
