import { gearKind } from '#core/gear/kinds';
import { isClassField } from '#core/gear/sheet/sheet-field';
import type { Category } from '#contracts/common';
import type { SpecimenRow } from '#contracts/specimen';

/** Words of fields that divide a kind. */
export type ClassFilter = readonly { readonly field: string; readonly word: string }[];

/** A filter in the address: "transducer:ribbon,pattern:cardioid", a comma in a word as %2C. What is no field is left out. */
export function readClasses(text: string | undefined, kind: Category): ClassFilter {
  const fields = new Set(
    gearKind(kind)
      .sheet.filter(isClassField)
      .map((f) => f.id),
  );
  return (text ?? '').split(',').flatMap((part) => {
    const at = part.indexOf(':');
    const [field, word] = [part.slice(0, at), part.slice(at + 1).replace(/%2C|%25/gu, decodeURIComponent)];
    return at > 0 && word !== '' && fields.has(field) ? [{ field, word }] : [];
  });
}

/** The same as it stands in the address; null for none. */
export const classesText = (classes: ClassFilter): string | null =>
  classes.length === 0
    ? null
    : classes.map((c) => `${c.field}:${c.word.replace(/[%,]/gu, encodeURIComponent)}`).join(',');

/** Words of each class field that units of a kind have, with how many have them. */
export function classChoices(kind: Category, rows: readonly SpecimenRow[]) {
  return gearKind(kind)
    .sheet.filter(isClassField)
    .map((field) => {
      const counts = new Map<string, number>();
      for (const row of rows)
        for (const word of row.category === kind ? (row.classes[field.id] ?? []) : [])
          counts.set(word, (counts.get(word) ?? 0) + 1);
      const words = [...counts].sort((a, b) => b[1] - a[1]).map(([word, units]) => ({ word, units }));
      return { field: field.id, name: field.name, words };
    })
    .filter((choice) => choice.words.length > 0);
}

/** Whether a unit is of the classes that are asked for: of several words of one field, one is enough. */
export function isOfClasses(classes: SpecimenRow['classes'], filter: ClassFilter): boolean {
  const fields = [...new Set(filter.map((c) => c.field))];
  return fields.every((field) =>
    filter.some((c) => c.field === field && (Object.hasOwn(classes, field) ? classes[field] : []).includes(c.word)),
  );
}

/** Ids of the units of a kind that are of the classes that are asked for; null where none are, or the list is not there yet. */
export const unitsOfClasses = (
  rows: readonly Pick<SpecimenRow, 'id' | 'category' | 'classes'>[] | null,
  kind: Category,
  filter: ClassFilter,
): string[] | null =>
  rows === null || filter.length === 0
    ? null
    : rows.filter((r) => r.category === kind && isOfClasses(r.classes, filter)).map((r) => r.id);
