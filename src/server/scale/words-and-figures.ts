import { quantity } from '#core/measure/registry';
import { HEARD_WORDS, WORD_QUANTITIES } from '#core/rules/listening/vocabulary';
import { rankCorrelation } from '#core/stats/rank-correlation';
import type { Category } from '#contracts/common';
import type { Scale } from '#contracts/scale';
import type { Queryable } from '../platform/db/database';
import type { HeardUnit } from './heard-answers';
import { newestFigures } from './newest-figures';
import { hearings, wordCounts } from './queries/heard';

/** Fewer units show nothing of how a word goes with a figure. */
const LEAST_WORD_UNITS = 4;

/**
 * How often each word was said of a unit, beside the figure that should go with it.
 *
 * @param db - the database
 * @param category - kind of gear
 * @param units - all of the kind
 */
export async function wordsAndFigures(
  db: Queryable,
  category: Category,
  units: readonly HeardUnit[],
): Promise<Scale['words']> {
  const counts = (await wordCounts(db, { category })).filter((w) => !w.is_free);
  const heard = new Map((await hearings(db, category)).map((h) => [h.specimen_id, h.count]));
  const facts = await newestFigures(db);
  const names = new Map(units.map((u) => [u.id, u.name]));
  return HEARD_WORDS.flatMap((word) =>
    (WORD_QUANTITIES[word] ?? []).flatMap(({ quantity: id, sign }) => {
      const points = [...heard].flatMap(([specimenId, times]) => {
        const fact = facts.find((f) => f.specimen_id === specimenId && f.quantity === id);
        if (!fact || fact.value === null) return [];
        const said = counts.find((c) => c.specimen_id === specimenId && c.word === word)?.count ?? 0;
        return [{ id: specimenId, name: names.get(specimenId) ?? '', said, heard: times, value: fact.value }];
      });
      if (points.every((p) => p.said === 0)) return [];
      const { name: title, unit } = quantity(id);
      const r = rankCorrelation(
        points.map((p) => p.said / p.heard),
        points.map((p) => sign * p.value),
      );
      return [{ word, quantity: id, title, unit, points, correlation: points.length < LEAST_WORD_UNITS ? null : r }];
    }),
  );
}
