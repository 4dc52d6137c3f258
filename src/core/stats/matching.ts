/**
 * Permutations of n things that leave exactly k in their place: the rencontres numbers.
 *
 * @param n - things, up to 170
 * @param k - 0…n
 * @see Riordan, An Introduction to Combinatorial Analysis (1958), chapter 3
 *
 * @example
 *   rencontres(4, 0); // => 9
 */
export function rencontres(n: number, k: number): number {
  if (k < 0 || k > n) return 0;
  return choose(n, k) * derangements(n - k);
}

/** Permutations of n things that leave none in its place. */
function derangements(n: number): number {
  let [before, now] = [1, 0];
  if (n === 0) return before;
  for (let i = 2; i <= n; i++) [before, now] = [now, (i - 1) * (now + before)];
  return now;
}

function choose(n: number, k: number): number {
  let ways = 1;
  for (let i = 1; i <= Math.min(k, n - k); i++) ways = (ways * (n - i + 1)) / i;
  return Math.round(ways);
}

/**
 * Probability that somebody who gives n names to n clips at random has at least k right.
 *
 * @param k - right names
 * @param n - clips
 *
 * @example
 *   matchingTail(2, 4); // ≈ 0.291667
 */
export function matchingTail(k: number, n: number): number {
  let all = 1;
  for (let i = 2; i <= n; i++) all *= i;
  let sum = 0;
  for (let i = Math.max(0, k); i <= n; i++) sum += rencontres(n, i);
  return sum / all;
}

/**
 * As {@link matchingTail} for several rounds together: the distribution of the sum of independent rounds.
 *
 * @param k - right names in all rounds
 * @param sizes - clips of each round
 */
export function matchingTailOfRounds(k: number, sizes: readonly number[]): number {
  let sums = [1];
  for (const n of sizes) {
    const next = new Array<number>(sums.length + n).fill(0);
    const exactly = Array.from({ length: n + 1 }, (_, i) => matchingTail(i, n) - matchingTail(i + 1, n));
    sums.forEach((p, s) => {
      for (let i = 0; i <= n; i++) next[s + i] += p * exactly[i];
    });
    sums = next;
  }
  return sums.slice(Math.max(0, k)).reduce((s, p) => s + p, 0);
}
