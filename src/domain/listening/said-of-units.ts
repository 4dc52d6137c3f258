import type { TrialDocument, Words } from '#contracts/listening';
import { itemOfCode } from './heard-from-answer';
import type { ItemRow } from './test-item';
import { isRanked } from './trial-plan';

/**
 * Words of an answer by the unit that they are said of. What is said of a low-passed copy, or of a clip against
 * itself, is not said of the unit.
 *
 * @param words - by the letter under which the clip was heard
 */
export function saidOfUnits(
  trial: TrialDocument,
  items: readonly Pick<ItemRow, 'id' | 'role' | 'specimen_id'>[],
  words: Words,
): { readonly specimenId: string; readonly said: Words[string] }[] {
  if (trial.kind === 'pair' && trial.control !== null) return [];
  return Object.entries(words).flatMap(([code, said]) => {
    const item = items.find((i) => i.id === itemOfCode(trial, code));
    return item && isRanked(item) ? [{ specimenId: item.specimen_id, said }] : [];
  });
}
