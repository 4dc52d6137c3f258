import { atLetter, letterOf } from '#core/rules/listening/letters';
import type { Answer, ItemRole, NewTest, TrialDocument } from '#contracts/listening';
import { isRanked } from './trial-plan';
import type { ItemRow } from './test-item';
import type { HeardAnswer } from '../scale/heard-answer';
import { putIn } from './put-in';

/** An item with what the scale needs of it. */
export interface HeardItem {
  readonly id: string;
  readonly specimenId: string;
  readonly role: ItemRole;
  readonly loudnessLufs: number | null;
}

/** An item of a test as it is kept. */
export const heardItem = ({ id, specimen_id, role, loudness_lufs }: ItemRow): HeardItem => ({
  id,
  specimenId: specimen_id,
  role,
  loudnessLufs: loudness_lufs,
});

/** Code under which an item is offered: letters in the order of the offer, which says nothing of what it is. */
export const codeOf = letterOf;

/** The item behind a code of a trial. */
export function itemOfCode(trial: TrialDocument, code: string): string | null {
  return atLetter(trial.items, code);
}

/** Items of an answer, best first; empty where it is not an order. One that was put into a table stands in it. */
export function orderOf(trial: TrialDocument, answer: Answer): string[] {
  if (trial.kind === 'place' && answer.kind === 'place')
    return putIn(trial.items.slice(0, -1), trial.items.at(-1) ?? '', answer.at);
  return answer.kind === 'order' ? answer.codes.flatMap((c) => itemOfCode(trial, c) ?? []) : [];
}

/** Whether an ABX answer was right; null for other trials. */
export function isRight(trial: TrialDocument, answer: Answer): boolean | null {
  return trial.kind === 'abx' && answer.kind === 'abx' ? itemOfCode(trial, answer.x) === trial.x : null;
}

type Facts = Pick<HeardAnswer, 'specimens' | 'outcome' | 'tiesAllowed' | 'weight' | 'circumstances'>;

/**
 * What an answer tells the scale: a pair as it is, a heat as an order, ratings as an order (or, where some are equal,
 * as all their pairs, weighted so that they count as much as one order would), a favourite as one choice, one that was
 * put into a table as better than the next and worse than the one before: the table itself was told already. Controls
 * and anchors tell it nothing.
 */
export function heardFromAnswer(
  test: NewTest,
  trial: TrialDocument,
  answer: Answer,
  items: readonly HeardItem[],
): Facts[] {
  return toldOf(test, trial, answer, items).flatMap(withoutItself);
}

/** A unit against itself tells nothing: two items may be of one unit since it was merged. Of an order its first place counts. */
function withoutItself(facts: Facts): Facts[] {
  const { specimens, circumstances, outcome } = facts;
  const isFirst = specimens.map((id, i) => specimens.indexOf(id) === i);
  if (isFirst.every(Boolean)) return [facts];
  const left = { ...facts, specimens: specimens.filter((_, i) => isFirst[i]), circumstances: circumstances.filter((_, i) => isFirst[i]) }; // prettier-ignore
  return outcome !== null || left.specimens.length < 2 ? [] : [left];
}

function toldOf(test: NewTest, trial: TrialDocument, answer: Answer, items: readonly HeardItem[]): Facts[] {
  const byId = new Map(items.map((i) => [i.id, i]));
  const mean = meanLoudness(items);
  const circumstance = (id: string): readonly [number, number, 0 | 1] => {
    const item = byId.get(id);
    return [
      trial.items.indexOf(id),
      mean === null || item?.loudnessLufs === undefined || item.loudnessLufs === null ? 0 : item.loudnessLufs - mean,
      test.sighted && item?.role === 'yardstick' ? 1 : 0,
    ];
  };
  const facts = (ids: readonly string[], outcome: Facts['outcome'], tiesAllowed: boolean, weight: number): Facts => ({
    specimens: ids.flatMap((id) => byId.get(id)?.specimenId ?? []),
    outcome,
    tiesAllowed,
    weight,
    circumstances: ids.map(circumstance),
  });
  const isUnit = (id: string): boolean => {
    const item = byId.get(id);
    return item !== undefined && isRanked(item);
  };

  if (trial.kind === 'order' && answer.kind === 'order') {
    const ordered = orderOf(trial, answer).filter(isUnit);
    return ordered.length < 2 ? [] : [facts(ordered, null, false, 1)];
  }
  if (trial.kind === 'place' && answer.kind === 'place') {
    const placed = trial.items.at(-1) ?? '';
    const [above, below] = [trial.items.slice(0, -1).at(answer.at - 1), trial.items.slice(0, -1).at(answer.at)];
    return [
      ...(answer.at > 0 && above !== undefined ? [facts([above, placed], 1, false, 1)] : []),
      ...(below === undefined ? [] : [facts([placed, below], 1, false, 1)]),
    ];
  }
  if (trial.kind === 'best' && answer.kind === 'best')
    return favourite(trial, answer.best, trial.items.filter(isUnit)).map((ids) => facts(ids, 1, false, 1 / (trial.items.filter(isUnit).length - 1))); // prettier-ignore
  if (trial.kind === 'votes' && answer.kind === 'votes') {
    const offered = trial.items.filter((id, i) => isUnit(id) && codeOf(i) in answer.votes);
    return Object.entries(answer.votes).flatMap(([code, votes]) =>
      votes === 0
        ? []
        : favourite(trial, code, offered).map((ids) => facts(ids, 1, false, votes / (offered.length - 1))),
    );
  }
  if (trial.kind === 'pair' && answer.kind === 'pair' && trial.control === null) {
    const preferred = answer.preferred === null ? null : itemOfCode(trial, answer.preferred);
    const outcome = preferred === null ? 0.5 : preferred === trial.items[0] ? 1 : 0;
    return [facts(trial.items, outcome, test.tiesAllowed, 1)];
  }
  const given = answer.kind === 'ratings' ? answer.ratings : answer.kind === 'points' ? answer.points : null;
  if (given !== null && (trial.kind === 'ratings' || trial.kind === 'points')) {
    const rated = trial.items
      .map((id, i) => ({ id, code: codeOf(i), rating: given[codeOf(i)] ?? 0 }))
      // Of a pack, points may stand for some clips alone: what was not named was not rated.
      .filter(({ id, code }) => isUnit(id) && (trial.kind === 'ratings' || code in given))
      .sort((a, b) => b.rating - a.rating);
    if (rated.length < 2) return [];
    if (new Set(rated.map((r) => r.rating)).size === rated.length)
      return [
        facts(
          rated.map((r) => r.id),
          null,
          false,
          1,
        ),
      ];
    const weight = 2 / rated.length;
    return rated.flatMap((x, i) =>
      rated.slice(i + 1).map((y) => facts([x.id, y.id], x.rating === y.rating ? 0.5 : 1, true, weight)),
    );
  }
  return [];
}

/** One that is best before all others that were offered: as much as one choice tells. */
function favourite(trial: TrialDocument, code: string, offered: readonly string[]): string[][] {
  const chosen = itemOfCode(trial, code);
  return chosen === null || !offered.includes(chosen)
    ? []
    : offered.filter((id) => id !== chosen).map((other) => [chosen, other]);
}

function meanLoudness(items: readonly HeardItem[]): number | null {
  const known = items.flatMap((i) => (i.loudnessLufs === null || i.role.startsWith('anchor') ? [] : [i.loudnessLufs]));
  return known.length === 0 ? null : known.reduce((s, x) => s + x, 0) / known.length;
}
