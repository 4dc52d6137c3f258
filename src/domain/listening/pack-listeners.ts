import { listenedShare, listenedWeight, votersListened } from '#core/stats/listened-share';
import type { Answer, TrialDocument } from '#contracts/listening';
import { codeOf, orderOf } from './heard-from-answer';
import { isRanked } from './trial-plan';
import type { ItemRow } from './test-item';

type Item = Pick<ItemRow, 'id' | 'role' | 'take_id'>;
type Answered = readonly { readonly trial: TrialDocument; readonly answer: Answer | null }[];

/** Those who answered a pack, as far as their checks tell of them. */
export interface PackListeners {
  readonly passed: number;
  readonly failed: number;
  /** Of those who listened. */
  readonly share: number;
  readonly share90: readonly [number, number];
  /** What the answers of each weigh, in the order given. */
  readonly weights: readonly number[];
}

/**
 * Whether somebody put the copy without highs below its original; null where that was not asked, or both were alike. A
 * favourite tells nothing: a guesser would seldom name the copy.
 *
 * @param answered - trials of one listener
 * @param items - of the test
 */
export function knewTheCopy(answered: Answered, items: readonly Item[]): boolean | null {
  const copy = items.find((i) => i.role === 'known-worse');
  const original = items.find((i) => isRanked(i) && i.take_id === copy?.take_id);
  if (!copy || !original) return null;
  for (const { trial, answer } of answered) {
    if (answer?.kind === 'order') {
      const order = orderOf(trial, answer);
      const [at, of] = [order.indexOf(copy.id), order.indexOf(original.id)];
      if (at >= 0 && of >= 0) return of < at;
    }
    if (answer?.kind === 'points') {
      const given = new Map(Object.entries(answer.points));
      const [own, of] = [copy, original].map((item) => given.get(codeOf(trial.items.indexOf(item.id))));
      if (own !== undefined && of !== undefined && own !== of) return own < of;
    }
  }
  return null;
}

/** Share of a poll's voters who listened, where the copy without highs could be voted for; null for anything else. */
export function pollListened(answered: Answered, items: readonly Item[]): number | null {
  const copy = items.find((i) => i.role === 'known-worse');
  for (const { trial, answer } of answered) {
    const code = copy ? codeOf(trial.items.indexOf(copy.id)) : '';
    if (answer?.kind !== 'votes' || !(code in answer.votes)) continue;
    const counts = Object.values(answer.votes);
    if (counts.length < 2) return null;
    return votersListened(answer.votes[code], counts.reduce((sum, n) => sum + n, 0), counts.length); // prettier-ignore
  }
  return null;
}

/** How far those who answered can be relied on: by their own checks, all of them together; a poll by its own. */
export function packListeners(all: readonly Answered[], items: readonly Item[]): PackListeners {
  const outcomes = all.map((answered) => knewTheCopy(answered, items));
  const passed = outcomes.filter((o) => o === true).length;
  const failed = outcomes.filter((o) => o === false).length;
  const { mean, interval90 } = listenedShare(passed, failed);
  return {
    passed,
    failed,
    share: mean,
    share90: interval90,
    weights: outcomes.map((o, i) => pollListened(all[i], items) ?? listenedWeight(mean, o)),
  };
}
