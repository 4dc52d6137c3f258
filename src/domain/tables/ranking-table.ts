import { quantity, isQuantity, type QuantityId } from '#core/measure/registry';
import type { UnitFacts } from '#core/rules/criterion-points';
import type { RankedUnit } from '#core/rules/rank';
import type { Category } from '#contracts/common';
import type { BoardExport, RankingExport } from '#contracts/kind-tables';
import type { RankingInputs } from '#contracts/ranking';
import { unitName } from '#contracts/unit-name';
import type { Cell } from './csv';

/** The ranking of a kind, best first, with what every criterion gives and why. */
export function rankingExport(
  ranked: readonly RankedUnit[],
  { rubric, names }: Pick<RankingInputs, 'rubric' | 'names'>,
  day: string,
): RankingExport {
  return {
    format: 'sediment-ranking/1',
    category: rubric.category,
    day,
    rulesVersion: rubric.version,
    criteria: rubric.criteria.map(({ id, name }) => ({ id, name })),
    units: ranked.map((u) => ({
      unit: unitName(names[u.id]),
      place: u.place,
      place90: [...u.rank90],
      stratum: u.stratum,
      points: rounded(u.composite),
      points90: [rounded(u.composite90[0]), rounded(u.composite90[1])],
      criteria: Object.fromEntries(
        rubric.criteria.map(({ id }) => {
          const { points, why } = u.points[id];
          return [id, { points: points === null ? null : rounded(points), why }];
        }),
      ),
    })),
  };
}

/** The same as a table: a line per unit. */
export function rankingTable({ criteria, units }: RankingExport): Cell[][] {
  const head = [
    'place',
    'stratum',
    'unit',
    'points (0 to 5)',
    'points, 5 % quantile',
    'points, 95 % quantile',
    'place, 5 % quantile',
    'place, 95 % quantile',
    ...criteria.flatMap((c) => [`${c.name} (points, 0 to 5)`, `${c.name}: why`]),
  ];
  return [
    head,
    ...units.map((u): Cell[] => [
      u.place,
      u.stratum,
      u.unit,
      u.points,
      ...u.points90,
      ...u.place90,
      ...criteria.flatMap((c): Cell[] => [u.criteria[c.id].points, u.criteria[c.id].why]),
    ]),
  ];
}

/** Every figure of every unit of a kind: value, uncertainty, whether it is a limit. */
export function boardExport(
  units: readonly UnitFacts[],
  nameOf: (id: string) => string,
  { category, day }: { readonly category: Category; readonly day: string },
): BoardExport {
  const ids = [...new Set(units.flatMap((u) => Object.keys(u.figures)))]
    .filter((id): id is QuantityId => isQuantity(id))
    .filter((id) => quantity(id).group !== 'recording');
  return {
    format: 'sediment-board/1',
    category,
    day,
    figures: ids.map((id) => ({ id, name: quantity(id).name, unit: quantity(id).unit })),
    units: units.map((u) => ({
      unit: nameOf(u.id),
      figures: Object.fromEntries(
        ids.flatMap((id) => {
          const fact = u.figures[id];
          if (!fact) return [];
          const { value, uncertainty, bound, notMeasured } = fact;
          return [[id, value === null ? { value, uncertainty: null, bound: null, notMeasured } : { value, uncertainty, bound, notMeasured: null }]]; // prettier-ignore
        }),
      ),
    })),
  };
}

/** The same as a table: a line per unit, three cells per figure. */
export function boardTable({ figures, units }: BoardExport): Cell[][] {
  const head = figures.flatMap(({ name, unit }) => [
    `${name} (${unit || 'number'})`,
    `${name}: standard uncertainty`,
    `${name}: bound`,
  ]);
  return [
    ['unit', ...head],
    ...units.map((u): Cell[] => [
      u.unit,
      ...figures.flatMap(({ id }): Cell[] => {
        const fact = new Map(Object.entries(u.figures)).get(id);
        if (!fact) return [null, null, null];
        return fact.value === null ? [null, null, fact.notMeasured] : [fact.value, fact.uncertainty, fact.bound];
      }),
    ]),
  ];
}

/** Digits beyond a thousandth of a point are draws of chance. */
const rounded = (value: number): number => Math.round(value * 1000) / 1000;
