import type { TrialDocument } from '#contracts/listening';
import { codeOf, itemOfCode } from './heard-from-answer';

/** More deliveries of one clip in one trial are no listening: averaged, they would take the dither away. */
export const MOST_DELIVERIES = 12;

/** How often each clip of a trial went out, by the letter under which it is offered. */
export type Deliveries = Readonly<Partial<Record<string, number>>>;

/** Letters under which a trial offers clips: X of an ABX and the open reference of a rating stand beside the others. */
export function slotsOf(trial: TrialDocument): string[] {
  const codes = trial.items.map((_, i) => codeOf(i));
  if (trial.kind === 'abx') return [...codes, 'X'];
  return trial.kind === 'ratings' ? [...codes, 'R'] : codes;
}

/** What is offered under a letter, or null. */
export function itemBehind(trial: TrialDocument, slot: string): string | null {
  if (!slotsOf(trial).includes(slot)) return null;
  if (slot === 'X' && trial.kind === 'abx') return trial.x;
  if (slot === 'R' && trial.kind === 'ratings') return trial.reference;
  return itemOfCode(trial, slot);
}

/** Letters whose clip never went out: who has not had them cannot have heard them. */
export const unheardSlots = (trial: TrialDocument, deliveries: Deliveries): string[] =>
  slotsOf(trial).filter((slot) => (deliveries[slot] ?? 0) === 0);

/** The trial that is asked now: the first that has no answer. Those behind it are not open yet. */
export const openTrial = <Row extends { readonly answer: unknown }>(trials: readonly Row[]): Row | null =>
  trials.find((t) => t.answer === null) ?? null;
