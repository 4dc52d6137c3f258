import type { Family } from '#contracts/variant';

interface Row {
  readonly id: string;
  readonly name: string;
  readonly family: Family | null;
}

/** What stands in a field of a row; `a.b.c` is the field c of b of a. */
function valueOf(row: object, field: string): unknown {
  return field.split('.').reduce<unknown>((at, key) => (isObject(at) ? at[key] : undefined), row);
}

const isObject = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null;

const wordsOf = ({ family }: Row): string => family?.configuration ?? '';

/** Nothing comes before everything, words by the alphabet, numbers by size. */
function compared(a: unknown, b: unknown): number {
  const [noA, noB] = [a === null || a === undefined, b === null || b === undefined];
  if (noA || noB) return Number(noB) - Number(noA);
  if (typeof a === 'string' && typeof b === 'string') return a.localeCompare(b);
  return Number(a) - Number(b);
}

/**
 * Sorts a list so that the configurations of a unit stand below it, wherever the unit stands; one whose unit is not listed
 * is sorted by itself.
 *
 * @param rows - sorted in place
 * @param field - a field of the rows, `a.b` for one of a part
 * @param order - 1: rising, −1: falling
 */
export function sortFamilies<T extends Row>(rows: T[], field: string, order: number): void {
  const byId = new Map(rows.map((r) => [r.id, r]));
  const leadOf = (row: T): T => (row.family && byId.get(row.family.main)) ?? row;
  rows.sort((a, b) => {
    const [leadA, leadB] = [leadOf(a), leadOf(b)];
    if (leadA === leadB) return Number(a !== leadA) - Number(b !== leadB) || wordsOf(a).localeCompare(wordsOf(b));
    const byField = order * compared(valueOf(leadA, field), valueOf(leadB, field));
    return byField || leadA.name.localeCompare(leadB.name) || leadA.id.localeCompare(leadB.id);
  });
}

/** Rows that stand below the unit that they are a configuration of. */
export const belowTheirUnit = (rows: readonly Row[]): ReadonlySet<string> => {
  const listed = new Set(rows.map((r) => r.id));
  return new Set(
    rows.flatMap(({ id, family }) => (family && family.main !== id && listed.has(family.main) ? [id] : [])),
  );
};
