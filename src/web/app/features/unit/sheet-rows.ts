import { impossibleClaim, sheetClaim } from '#core/gear/claim-comparison';
import { gearKind } from '#core/gear/kinds';
import { SHEET_GROUPS, type SheetField, type SheetGroup, type SheetValue } from '#core/gear/sheet/sheet-field';
import { convertedText, sheetValueText } from '#core/gear/sheet/sheet-value';
import type { Category } from '#contracts/common';
import type { UnitMeasurement } from '#contracts/measurement';
import { currentSheet, type SheetEntry } from '#contracts/sheet';
import { claimText } from './measured-groups';

/** A field of a unit's data sheet as it is shown. */
export interface SheetRow {
  readonly field: SheetField;
  readonly value: SheetValue | null;
  readonly text: string;
  /** What it comes to in the unit that it is compared in; '' where that says nothing new. */
  readonly converted: string;
  /** Against the measured figure: how far apart, or why they cannot stand beside each other; '' where none was measured. */
  readonly beside: string;
  /** Why nothing can be as good; '' where it is possible. */
  readonly impossible: string;
}

export interface SheetPartRows {
  readonly group: SheetGroup;
  readonly rows: readonly SheetRow[];
}

/** What the newest entries of a sheet say, with what can be said of each. */
export function sheetRow(field: SheetField, value: SheetValue | null, figures: readonly UnitMeasurement[]): SheetRow {
  const claim = value && sheetClaim(field.id, value);
  const figure = claim && figures.find((m) => m.quantity === claim.quantity);
  return {
    field,
    value,
    text: value === null ? '' : sheetValueText(value),
    converted: value === null ? '' : convertedText(field, value),
    beside: claim && figure && figure.value !== null ? claimText(claim, figure).remark : '',
    impossible: (claim && impossibleClaim(claim)) ?? '',
  };
}

/**
 * The sheet of a unit, part by part, every field of its kind in it.
 *
 * @param values - by field; a draft, or what stands
 * @param figures - of the run that counts
 */
export function sheetParts(
  kind: Category,
  values: ReadonlyMap<string, SheetValue | null>,
  figures: readonly UnitMeasurement[],
): SheetPartRows[] {
  const { sheet } = gearKind(kind);
  return SHEET_GROUPS.map((group) => ({
    group,
    rows: sheet.filter((f) => f.group === group).map((f) => sheetRow(f, values.get(f.id) ?? null, figures)),
  })).filter((part) => part.rows.length > 0);
}

/** Entries that were taken back or that others have taken the place of, with what they are called. */
export function earlierEntries(kind: Category, entries: readonly SheetEntry[]) {
  const names = new Map(gearKind(kind).sheet.map((f) => [f.id, f.name]));
  const current = new Set<string>();
  return entries.flatMap((entry) => {
    const isCurrent = !current.has(entry.field);
    current.add(entry.field);
    if (isCurrent && entry.value !== null) return [];
    return [
      {
        ...entry,
        name: names.get(entry.field) ?? entry.field,
        text: entry.value === null ? 'taken back' : sheetValueText(entry.value),
      },
    ];
  });
}

/** What a draft changes of what stands: the body of the request. Fields that were emptied are taken back. */
export function changedEntries(
  draft: ReadonlyMap<string, SheetValue | null>,
  entries: readonly SheetEntry[],
): { readonly field: string; readonly value: SheetValue | null }[] {
  const stands = currentSheet(entries);
  return [...draft].flatMap(([field, value]) =>
    JSON.stringify(value) === JSON.stringify(stands.get(field) ?? null) ? [] : [{ field, value }],
  );
}

/** What another unit's sheet has for the fields that are still empty here: names of one's own specimen are not copied. */
export function fromSibling(
  kind: Category,
  draft: ReadonlyMap<string, SheetValue | null>,
  own: readonly SheetEntry[],
  other: readonly SheetEntry[],
): ReadonlyMap<string, SheetValue | null> {
  const [stands, theirs] = [currentSheet(own), currentSheet(other)];
  const filled = new Map(draft);
  for (const { id } of gearKind(kind).sheet) {
    const value = theirs.get(id);
    if (value !== undefined && (draft.get(id) ?? stands.get(id) ?? null) === null) filled.set(id, value);
  }
  return filled;
}
