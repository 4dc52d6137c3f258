import type { SpecimenRow } from '#contracts/specimen';
import type { Family, Varies } from '#contracts/variant';
import { unitName } from '#contracts/unit-name';

/** What configurations differ by, as choices and in sentences. */
export const VARIES_CHOICES: readonly { readonly label: string; readonly value: Varies }[] = [
  { label: 'Connection', value: 'connection' },
  { label: 'Pattern', value: 'pattern' },
  { label: 'Switch', value: 'switch' },
  { label: 'Emulation', value: 'emulation' },
  { label: 'Firmware', value: 'firmware' },
  { label: 'Something else', value: 'other' },
];

/** A row of a family: the rows that are one unit, the unit itself first. */
export function familyRows(rows: readonly SpecimenRow[], family: Family): SpecimenRow[] {
  const own = rows.filter((r) => r.family?.main === family.main);
  return [...own.filter((r) => r.id === family.main), ...own.filter((r) => r.id !== family.main)];
}

/** What a row of a family is, in words: the unit itself by what its sheet says of that in which the others differ. */
export function configurationWords(
  row: Pick<SpecimenRow, 'id' | 'family' | 'classes'>,
  rows: readonly SpecimenRow[],
): string {
  const { family, classes } = row;
  if (family === null) return '';
  if (family.configuration !== '') return family.configuration;
  const differing = new Set(
    rows.flatMap((r) => (r.family?.main === row.id && r.family.varies ? [r.family.varies] : [])),
  );
  // A field of the sheet is called as that in which configurations differ.
  const words = [...differing].flatMap((varies) => classes[varies] ?? []);
  return words.length > 0 ? words.join(', ') : 'as entered';
}

/** Which of them stand in rankings, as choices. */
export const countingChoices = (
  rows: readonly SpecimenRow[],
): readonly { readonly label: string; readonly value: string }[] => [
  ...rows.map((r) => ({ label: `${configurationWords(r, rows)} alone`, value: r.id })),
  { label: 'each by itself', value: 'each' },
];

/** Which choice holds now: one of them, or each. */
export function countsNow(rows: readonly SpecimenRow[]): string | null {
  const counting = rows.filter((r) => r.family?.counts === true);
  if (counting.length === rows.length) return 'each';
  return counting.at(0)?.id ?? null;
}

/** What stands in rankings of a family, and what it lacks for it. */
export function countingSentence(rows: readonly SpecimenRow[]): string {
  const counting = rows.filter((r) => r.family?.counts === true);
  const untested = counting.filter((r) => r.lastTested === null);
  if (untested.length === 0) return '';
  const names = untested.map((r) => configurationWords(r, rows)).join(', ');
  return counting.length === 1
    ? `Nothing of it stands in rankings: “${names}” has not been tested yet.`
    : `Not tested yet: ${names}.`;
}

/** Units that one could be a configuration of: of its kind, and none that is a configuration itself. */
export const possibleMains = (
  rows: readonly SpecimenRow[],
  unit: Pick<SpecimenRow, 'id' | 'category'>,
): readonly { readonly label: string; readonly value: string }[] =>
  rows
    .filter((r) => r.id !== unit.id && r.category === unit.category && (r.family === null || r.family.main === r.id))
    .map((r) => ({ label: unitName(r), value: r.id }));
