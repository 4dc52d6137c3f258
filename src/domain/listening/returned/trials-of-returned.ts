import type { Answer, TrialDocument } from '#contracts/listening';
import type { Understood } from './pack-ears';
import type { ReadAnswer } from './read-table';

/** A trial as it came back, with its answer. */
export interface ReturnedTrial {
  readonly trial: TrialDocument;
  readonly answer: Answer;
  /** Whether the scale hears it: of what one listener says twice, the fuller. */
  readonly isHeard: boolean;
}

/**
 * What an answer is as trials of a sitting: letters are the codes of its items.
 *
 * @param said - by the listener
 * @param items - of the test, in the order of the letters
 */
export function trialsOfReturned(
  said: Pick<Understood, 'order' | 'best' | 'points' | 'names' | 'votes'>,
  items: readonly string[],
): ReturnedTrial[] {
  const all = [...items];
  const trials: Omit<ReturnedTrial, 'isHeard'>[] = [];
  if (said.order.length > 1)
    trials.push({ trial: { kind: 'order', items: all, round: 1, isFinal: true }, answer: { kind: 'order', codes: [...said.order] } }); // prettier-ignore
  if (Object.keys(said.points).length > 0)
    trials.push({ trial: { kind: 'points', items: all }, answer: { kind: 'points', points: { ...said.points } } });
  if (said.votes !== null)
    trials.push({ trial: { kind: 'votes', items: all }, answer: { kind: 'votes', votes: { ...said.votes } } });
  if (said.best !== null)
    trials.push({ trial: { kind: 'best', items: all }, answer: { kind: 'best', best: said.best } });
  const heard = trials.at(0);
  if (Object.keys(said.names).length > 0)
    trials.push({ trial: { kind: 'names', items: all }, answer: { kind: 'names', names: { ...said.names } } });
  return trials.map((t) => ({ ...t, isHeard: t === heard }));
}

/** An answer, with a problem where it says nothing that could be kept. */
export const saidOf = (answer: ReadAnswer): ReadAnswer =>
  answer.problem === null && trialsOfReturned(answer, []).length === 0
    ? { ...answer, problem: 'It says nothing that can be kept: an order needs two clips.' }
    : answer;
