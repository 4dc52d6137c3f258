/** How often a figure's ±2u holds a truth that is known. */
export interface Coverage {
  readonly figure: string;
  readonly trials: number;
  /** Of those that gave a figure, how many hold the truth: within ±2u, or on the right side of a limit. */
  readonly inside: number;
  /** How many gave a figure; the rest were refused in words. */
  readonly given: number;
  /** How many of those were limits. */
  readonly limits: number;
  /** Root mean square error of the figures, in their unit. */
  readonly rms: number;
}

/** One simulated reading against its truth. */
export interface Trial {
  readonly error: number;
  readonly u: number;
  readonly bound?: 'exact' | 'at-least' | 'at-most';
}

const isInside = ({ error, u, bound = 'exact' }: Trial): boolean =>
  bound === 'at-most' ? error >= -2 * u : bound === 'at-least' ? error <= 2 * u : Math.abs(error) <= 2 * u;

/** Counts trials; null is a reading that was refused. */
export function coverage(figure: string, trials: readonly (Trial | null)[]): Coverage {
  const given = trials.filter((t) => t !== null);
  return {
    figure,
    trials: trials.length,
    given: given.length,
    limits: given.filter((t) => (t.bound ?? 'exact') !== 'exact').length,
    inside: given.filter(isInside).length,
    rms: Math.sqrt(given.reduce((s, t) => s + t.error ** 2, 0) / Math.max(1, given.length)),
  };
}

/** Share inside, 0…1; NaN where nothing was given. */
export const share = ({ inside, given }: Coverage): number => inside / given;
