import { gearKind, gearKindIds } from '#core/gear/kinds';
import { quantity } from '#core/measure/registry';
import type { KindStanding } from '#core/rules/kind-standing';
import type { RankedUnit } from '#core/rules/rank';
import { figureWords } from '#domain/review/review-facts';
import { frozenFrontier } from '#domain/review/freeze';
import type { RankingInputs } from '#contracts/ranking';
import { unitName } from '#contracts/unit-name';
import type { SiteKind, SiteRankRow } from '#press/press';

/** Of each use so many are shown. */
const FIRST = 10;

/**
 * A kind as a site shows it; null where nothing of it is ranked.
 *
 * @param forUses - its ranking for each of its uses, in their order
 */
export function siteKind(
  inputs: RankingInputs,
  standing: KindStanding,
  forUses: readonly (readonly RankedUnit[])[],
): SiteKind | null {
  const { rubric, units, names } = inputs;
  if (units.length === 0) return null;
  const rows = (ranked: readonly RankedUnit[]): SiteRankRow[] =>
    ranked.map(({ id, place, stratum, composite, composite90 }) => ({ unit: id, name: unitName(names[id]), place, stratum, composite, composite90 })); // prettier-ignore
  return {
    id: rubric.category,
    name: gearKind(rubric.category).name,
    rulesVersion: rubric.version,
    stratumProbability: rubric.stratumProbability,
    ranking: rows(standing.ranked),
    uses: (rubric.uses ?? []).map((use, i) => ({ name: use.name, rows: rows(forUses[i].slice(0, FIRST)) })),
    frontier: frozenFrontier({ rubric, standing, names, own: null }),
    records: standing.records.flatMap(({ quantity: id, steps, ties }) => {
      const holder = steps.at(-1);
      const fact = units.find((u) => u.id === holder?.unit)?.figures[id];
      if (!holder || !fact) return [];
      const shared = ties.length === 0 ? '' : `, and ${ties.length} not told apart from it`;
      return [
        {
          name: quantity(id).name,
          value: figureWords(id, fact),
          unit: `${unitName(names[holder.unit])}${shared}`,
          holder: holder.unit,
          since: holder.day,
        },
      ];
    }),
  };
}

/** Kinds in the order in which they are offered. */
export const inOrder = (kinds: readonly SiteKind[]): SiteKind[] => {
  const order = gearKindIds();
  return [...kinds].sort((a, b) => order.indexOf(a.id) - order.indexOf(b.id));
};
