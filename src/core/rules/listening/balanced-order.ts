/**
 * Orders of presentation in which every thing stands in every place equally often and follows every other equally
 * often: a Latin square balanced for what was heard before (Williams' design). n rows for even n, 2n for odd.
 *
 * @param n - things, at least one
 * @returns rows of indices 0 … n − 1
 * @see Williams, Experimental designs balanced for the estimation of residual effects, Aust. J. Sci. Res. A 2 (1949)
 */
export function williamsSquare(n: number): number[][] {
  const first = Array.from({ length: n }, (_, i) => (i % 2 === 0 ? i / 2 : n - (i + 1) / 2));
  const square = Array.from({ length: n }, (_, shift) => first.map((x) => (x + shift) % n));
  return n % 2 === 0 ? square : [...square, ...square.map((row) => [...row].reverse())];
}

/**
 * The order of one listener.
 *
 * @param n - things
 * @param listener - number of the listener, from 0; rows are used in turn
 */
export function balancedOrder(n: number, listener: number): number[] {
  const square = williamsSquare(n);
  return square.length === 0 ? [] : square[listener % square.length];
}
