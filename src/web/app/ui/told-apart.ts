/** Something of a list, by its name and day. */
interface Named {
  readonly id: string;
  readonly name: string;
  readonly day: string;
}

/**
 * What tells entries of one name and day apart: their order, "2nd of 4". Empty for those that are alone.
 *
 * @param rows - of a list; ids grow with time
 * @returns by id
 */
export function toldApart(rows: readonly Named[]): ReadonlyMap<string, string> {
  const groups = new Map<string, Named[]>();
  for (const row of rows) {
    const key = `${row.day}/${row.name.trim().toLowerCase()}`;
    groups.set(key, [...(groups.get(key) ?? []), row]);
  }
  return new Map(
    [...groups.values()].flatMap((group) =>
      [...group]
        .sort((a, b) => Number(a.id) - Number(b.id))
        .map((row, i) => [row.id, group.length === 1 ? '' : `${ordinal(i + 1)} of ${group.length}`] as const),
    ),
  );
}

function ordinal(n: number): string {
  const ending = n % 100 >= 11 && n % 100 <= 13 ? 'th' : (['th', 'st', 'nd', 'rd'][n % 10] ?? 'th');
  return `${n}${ending}`;
}
