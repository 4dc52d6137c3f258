import { conditionOf, isSameCondition, processingOf, type TakeCondition } from '#core/rules/take-conditions';
import { MOST_LANES } from '#contracts/compare';
import type { Take } from '#contracts/specimen';

/** A step that was taken in several conditions, with one take of each. */
export interface HeardStep {
  readonly title: string;
  readonly takes: readonly string[];
}

/**
 * Steps to be heard over the conditions of a run: of each condition the last take as it came, the condition that counts
 * first.
 *
 * @param takes - of the run
 * @param conditions - of its grid
 */
export function heardByCondition(takes: readonly Take[], conditions: readonly TakeCondition[]): HeardStep[] {
  const raw = takes.filter((t) => t.summary !== null && processingOf(t.settings) === null);
  return [...new Set(raw.map((t) => t.step))].flatMap((step) => {
    const own = raw.filter((t) => t.step === step);
    const chosen = conditions.flatMap((c) => own.findLast((t) => isSameCondition(conditionOf(t.settings), c)) ?? []);
    return chosen.length < 2
      ? []
      : [{ title: chosen[0].stepTitle, takes: chosen.slice(0, MOST_LANES).map((t) => t.id) }];
  });
}
