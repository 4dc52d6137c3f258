/** Cosines of the first quarter of the largest size so far: those of a smaller one are among them, to the last bit. */
let cosines = new Float64Array(0);

function quarterOfCosines(size: number): Float64Array {
  if (4 * cosines.length < size) {
    const made = new Float64Array(size / 4);
    for (let i = 0; i < made.length; i++) made[i] = Math.cos((2 * Math.PI * i) / size);
    // A longer one than any clip needs is not kept.
    if (size > LARGEST_KEPT) return made;
    cosines = made;
  }
  return cosines;
}
/** 2 MB of cosines. */
const LARGEST_KEPT = 2 ** 20;

/**
 * Cosines of −2πi·p/N, p = 0 … N/4 − 1, of which kernels/stockham.ts makes all factors of its stages.
 *
 * @param into - N/4 numbers
 * @param size - N, a power of two, 16 or more
 */
export function fillCosines(into: Float64Array, size: number): void {
  const known = quarterOfCosines(size);
  const stride = known.length / into.length;
  if (stride === 1) into.set(known);
  else for (let p = 0; p < into.length; p++) into[p] = known[p * stride];
}
