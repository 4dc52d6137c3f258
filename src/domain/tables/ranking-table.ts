import { quantity, isQuantity, type QuantityId } from '#core/measure/registry';
import type { UnitFacts } from '#core/rules/criterion-points';
import type { RankedUnit } from '#core/rules/rank';
import type { RankingInputs } from '#contracts/ranking';
import { unitName } from '#contracts/unit-name';
import type { Cell } from './csv';

/** The ranking of a kind as a table: a line per unit, best first, with what every criterion gives and why. */
export function rankingTable(ranked: readonly RankedUnit[], { rubric, names }: RankingInputs): Cell[][] {
  const head = [
    'place',
    'stratum',
    'unit',
    'points (0 to 5)',
    'points, 5 % quantile',
    'points, 95 % quantile',
    'place, 5 % quantile',
    'place, 95 % quantile',
    ...rubric.criteria.flatMap((c) => [`${c.name} (points, 0 to 5)`, `${c.name}: why`]),
  ];
  return [
    head,
    ...ranked.map((u): Cell[] => [
      u.place,
      u.stratum,
      unitName(names[u.id]),
      rounded(u.composite),
      ...u.composite90.map(rounded),
      ...u.rank90,
      ...rubric.criteria.flatMap((c): Cell[] => {
        const { points, why } = u.points[c.id];
        return [points === null ? null : rounded(points), why];
      }),
    ]),
  ];
}

/** Every figure of every unit of a kind: value, uncertainty, whether it is a limit. */
export function boardTable(units: readonly UnitFacts[], nameOf: (id: string) => string): Cell[][] {
  const ids = [...new Set(units.flatMap((u) => Object.keys(u.figures)))]
    .filter((id): id is QuantityId => isQuantity(id))
    .filter((id) => quantity(id).group !== 'recording');
  const head = ids.flatMap((id) => {
    const { name, unit } = quantity(id);
    return [`${name} (${unit || 'number'})`, `${name}: standard uncertainty`, `${name}: bound`];
  });
  return [
    ['unit', ...head],
    ...units.map((u): Cell[] => [
      nameOf(u.id),
      ...ids.flatMap((id): Cell[] => {
        const fact = u.figures[id];
        if (!fact || fact.value === null) return [null, null, fact?.notMeasured ?? null];
        return [fact.value, fact.uncertainty, fact.bound];
      }),
    ]),
  ];
}

/** Digits beyond a thousandth of a point are draws of chance. */
const rounded = (value: number): number => Math.round(value * 1000) / 1000;
