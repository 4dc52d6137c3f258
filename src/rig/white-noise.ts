import { standardNormal } from '#core/stats/normal';
import { seededBits, uniform, type RandomBits } from '#core/stats/random';

/** A power of two; 22 s at 48 kHz, longer than any take of the demo. */
const LENGTH = 2 ** 20;
let bank: Float64Array | null = null;

/**
 * White Gaussian noise of unit variance. The numbers come from one bank, drawn once per thread, entered at a place that
 * the seed decides: drawing anew for every noise of every take was half of the time that a take needs.
 *
 * @param length - samples; beyond the bank's length they repeat
 * @param bits - decides where
 */
export function whiteNoise(length: number, bits: RandomBits): Float64Array {
  if (!bank) {
    const source = seededBits('noise bank');
    bank = Float64Array.from({ length: LENGTH }, () => standardNormal(source));
  }
  const noise = new Float64Array(length);
  let from = Math.floor(uniform(bits) * LENGTH);
  for (let at = 0; at < length; from = 0) {
    const part = bank.subarray(from, from + length - at);
    noise.set(part, at);
    at += part.length;
  }
  return noise;
}
