import type { MeasuredFact } from './criterion-points';

/** A difference within this many standard uncertainties of both is none. */
export const COVERAGE = 2;

/** What a figure may differ by when it is read again, one deviation. */
export const spreadOf = (fact: Pick<MeasuredFact, 'uncertainty' | 'between'>): number =>
  Math.hypot(fact.uncertainty ?? 0, fact.between ?? 0);

/**
 * Whether one figure is better than another by more than both leave open; figures of which nobody knows how sure they are
 * are not told apart. A limit counts where it is on the right side:
 * "−70 dB at most" is lower than −60 dB, and nothing is known to be lower than it.
 *
 * @param a - the one that may be better
 * @param b - the other one, of the same quantity
 * @param better - which way is better
 */
export function isBetterBeyondDoubt(a: MeasuredFact, b: MeasuredFact, better: 'higher' | 'lower'): boolean {
  if (a.value === null || b.value === null) return false;
  const [reaching, standing] =
    better === 'higher' ? (['at-least', 'at-most'] as const) : (['at-most', 'at-least'] as const);
  if (a.bound !== 'exact' && a.bound !== reaching) return false;
  if (b.bound !== 'exact' && b.bound !== standing) return false;
  const by = better === 'higher' ? a.value - b.value : b.value - a.value;
  const spread = Math.hypot(spreadOf(a), spreadOf(b));
  return spread > 0 && by > COVERAGE * spread;
}
