/** How many of those who answered listened, as their checks tell. */
export interface ListenedShare {
  /** Mean of what it may be. */
  readonly mean: number;
  /** Nine times in ten it lies between. */
  readonly interval90: readonly [number, number];
}

/** Steps of the share over which is summed: finer ones change the fourth digit. */
const STEPS = 4000;

/**
 * Share of listeners who hear what anybody hears who listens, from a check that a guesser passes half of the time: of
 * those who listen all pass, of the others half, so that passing has probability (1 + s) / 2. That is the correction for
 * guessing (Abbott, J. Econ. Entomol. 18, 1925) read backwards; the share is taken to be anything from 0 to 1 beforehand,
 * so that without any check it is 0.5, and hardly known.
 *
 * @param passed - checks that were passed
 * @param failed - checks that were not
 * @returns posterior mean and the central 90 %
 * @throws RangeError for numbers that are no counts
 */
export function listenedShare(passed: number, failed: number): ListenedShare {
  for (const n of [passed, failed])
    if (!Number.isInteger(n) || n < 0) throw new RangeError(`${n} is no number of checks`);
  const shares = Array.from({ length: STEPS }, (_, i) => (i + 0.5) / STEPS);
  const logs = shares.map((s) => passed * Math.log((1 + s) / 2) + failed * Math.log((1 - s) / 2));
  const most = Math.max(...logs);
  const weights = logs.map((l) => Math.exp(l - most));
  const total = weights.reduce((sum, w) => sum + w, 0);
  const mean = shares.reduce((sum, s, i) => sum + s * weights[i], 0) / total;
  const below = (q: number): number => {
    let sum = 0;
    const at = weights.findIndex((w) => (sum += w) >= q * total);
    return shares[Math.max(0, at)];
  };
  return { mean, interval90: [below(0.05), below(0.95)] };
}

/**
 * Share of voters who listened, from how many voted for a clip that nobody prefers who listens: who guesses divides evenly
 * over all clips. The same correction for guessing, of many voters at once; one vote is added to each clip, so that few
 * votes say little.
 *
 * @param forCopy - votes for that clip
 * @param votes - all of them
 * @param clips - that were offered, two at least
 * @throws RangeError for fewer clips, or more votes for one than there are
 */
export function votersListened(forCopy: number, votes: number, clips: number): number {
  if (clips < 2 || forCopy < 0 || forCopy > votes) throw new RangeError('these are no votes of a poll');
  return Math.max(0, 1 - (clips * (forCopy + 1)) / (votes + clips));
}

/**
 * What the answers of one listener weigh: how likely it is that this listener listened.
 *
 * @param share - of those who listen
 * @param passed - whether this one passed the check; null where there was none
 */
export function listenedWeight(share: number, passed: boolean | null): number {
  if (passed === null) return share;
  return passed ? share / (share + (1 - share) / 2) : 0;
}
