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
 * Cosines and sines of −2πi·rp/N for r = 1, 2, 3, in the order in which the stages of kernels/stockham.ts read them. As
 * many steps p as a vector of 16 bytes holds stand together in the first stage; the later ones take every 4th, 16th … p.
 *
 * @param firstStage - 1.5 × size numbers, doubles or floats
 * @param later - those of all later stages, none if none are wanted
 * @param size - N, a power of two, 16 or more
 */
export function fillTwiddleFactors<Floats extends Float64Array | Float32Array>(
  firstStage: Floats,
  later: Floats,
  size: number,
): void {
  const lanes = 16 / firstStage.BYTES_PER_ELEMENT;
  const placeInFirst = (p: number): number => 6 * (p - (p % lanes)) + (p % lanes);
  const quarter = size / 4;
  const known = quarterOfCosines(size);
  const stride = known.length / quarter;
  const cos = new Float64Array(quarter);
  const sin = new Float64Array(quarter);
  // A quarter of the cosines are computed; the rest, and all sines, are the same numbers in another order.
  cos[0] = 1;
  for (let p = 1; p < quarter; p++) {
    cos[p] = known[p * stride];
    sin[p] = -known[(quarter - p) * stride];
  }
  for (let p = 0; p < quarter; p++) {
    for (let r = 1; r <= 3; r++) {
      const turned = r * p >= 2 * quarter ? 2 : r * p >= quarter ? 1 : 0;
      const at = r * p - turned * quarter;
      const to = placeInFirst(p) + 2 * lanes * (r - 1);
      firstStage[to] = turned === 0 ? cos[at] : turned === 1 ? sin[at] : -cos[at];
      firstStage[to + lanes] = turned === 0 ? sin[at] : turned === 1 ? -cos[at] : -sin[at];
    }
  }
  for (let at = 0, step = 4; at < later.length; step *= 4) {
    for (let p = 0; p < quarter; p += step) {
      for (let i = 0; i < 6; i++) later[at++] = firstStage[placeInFirst(p) + lanes * i];
    }
  }
}
