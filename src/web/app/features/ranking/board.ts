import { csvText, type Cell } from '#domain/tables/csv';
import { QUANTITY_IDS, quantity, type QuantityId } from '#core/measure/registry';
import type { UnitFacts } from '#core/rules/criterion-points';

/** A figure of a board: what stands in a cell, and where it stands in its column. */
export interface BoardCell {
  readonly value: number;
  readonly uncertainty: number | null;
  /** What another reading differs by: what a tie is told by. */
  readonly anotherReading: number | null;
  readonly bound: 'exact' | 'at-least' | 'at-most';
  /** 1 for the best; null for a limit, and where no way is better. */
  readonly rank: number | null;
  /** Whether its difference from the best is no larger than the uncertainty of the two. */
  readonly tiesBest: boolean;
  /** Fourth of the column in which it stands, 1 for the best; null where it has no rank. */
  readonly fourth: 1 | 2 | 3 | 4 | null;
}

export interface BoardColumn {
  readonly id: QuantityId;
  readonly name: string;
  readonly unit: string;
  readonly cells: ReadonlyMap<string, BoardCell>;
}

/** A difference within this many standard uncertainties of both is none. */
const COVERAGE = 2;

/** All figures that units of a kind have, each column ranked by itself. */
export function boardOf(units: readonly UnitFacts[]): BoardColumn[] {
  return QUANTITY_IDS.filter((id) => quantity(id).group !== 'recording').flatMap((id): BoardColumn[] => {
    const known = units.flatMap((unit) => {
      const fact = unit.figures[id];
      return fact && fact.value !== null ? [{ unit: unit.id, ...fact, value: fact.value }] : [];
    });
    if (known.length === 0) return [];
    const { name, shortName, unit, better } = quantity(id);
    const sign = better === 'lower' ? 1 : -1;
    const exact = known.filter((k) => k.bound === 'exact').sort((a, b) => sign * (a.value - b.value));
    const best = exact.at(0);
    const again = (k: (typeof known)[number]): number => Math.hypot(k.uncertainty ?? 0, k.between ?? 0);
    // A limit has no rank, but one that lies beyond a figure on the better side is better than it, whatever it is.
    const limits = known.filter((k) => k.bound === (better === 'lower' ? 'at-most' : 'at-least'));
    const limitsBetter = (value: number): number => limits.filter((l) => sign * (l.value - value) <= 0).length;
    const cells = new Map(
      known.map((k): [string, BoardCell] => {
        // Equal values share the better place.
        const isRanked = better !== null && k.bound === 'exact';
        const rank = isRanked ? exact.findIndex((e) => e.value === k.value) + 1 + limitsBetter(k.value) : null;
        const fourth = rank === null ? null : (Math.min(4, 1 + Math.floor((4 * (rank - 1)) / known.length)) as 1 | 2 | 3 | 4); // prettier-ignore
        const tiesBest =
          rank !== null &&
          best !== undefined &&
          limitsBetter(k.value) === 0 &&
          Math.abs(k.value - best.value) <= COVERAGE * Math.hypot(again(k), again(best));
        const { value, uncertainty, bound } = k;
        const anotherReading = bound === 'exact' ? again(k) : null;
        return [k.unit, { value, uncertainty, anotherReading, bound, rank, tiesBest, fourth }];
      }),
    );
    return [{ id, name: shortName ?? name, unit, cells }];
  });
}

/** The board as comma-separated values, every figure with all its digits and its uncertainty. */
export function boardCsv(
  units: readonly { readonly id: string; readonly name: string }[],
  columns: readonly BoardColumn[],
): string {
  const head = [
    'unit',
    ...columns.flatMap((c) => [`${c.id} in ${c.unit || '1'}`, `${c.id} uncertainty`, `${c.id} rank`]),
  ];
  const rows = units.map(({ id, name }): Cell[] => [
    name,
    ...columns.flatMap((column): Cell[] => {
      const cell = column.cells.get(id);
      if (!cell) return [null, null, null];
      const sign = { exact: '', 'at-least': '>=', 'at-most': '<=' }[cell.bound];
      return [sign === '' ? cell.value : `${sign}${cell.value}`, cell.uncertainty ?? null, cell.rank ?? null];
    }),
  ]);
  return csvText([head, ...rows]);
}
