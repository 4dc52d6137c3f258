import { z } from 'zod';
import { LONGEST_CONDITION, LONGEST_TEXT } from '#core/gear/sheet/read-sheet-value';
import type { SheetValue } from '#core/gear/sheet/sheet-field';
import { daySchema } from './common';

/** Name of a field of a data sheet. */
export const sheetFieldIdSchema = z
  .string()
  .regex(/^[a-z][A-Za-z0-9]{0,59}$/, 'must be the name of a field of the sheet, such as outputImpedance');

/** What stands in a field, as it was typed. */
export const sheetValueSchema: z.ZodType<SheetValue> = z.discriminatedUnion('type', [
  z.strictObject({
    type: z.literal('number'),
    value: z.number(),
    unit: z.string().trim().max(24).describe('As it was given, e.g. "kΩ"; empty for a count.'),
    condition: z.string().trim().max(LONGEST_CONDITION).default('').describe('Weighting, load, gain, rate.'),
  }),
  z.strictObject({ type: z.literal('words'), words: z.array(z.string().trim().min(1).max(80)).min(1).max(40) }),
  z.strictObject({ type: z.literal('yes-no'), yes: z.boolean() }),
  z.strictObject({ type: z.literal('text'), text: z.string().trim().min(1).max(LONGEST_TEXT) }),
]);

/** An entry of a sheet; null takes back what stood in the field. */
export const sheetEntrySchema = z.object({
  field: sheetFieldIdSchema,
  value: sheetValueSchema.nullable(),
  date: daySchema,
  reason: z.string(),
});
export type SheetEntry = z.infer<typeof sheetEntrySchema>;

/** Body of a request that fills in fields of a sheet: all of them or none. */
export const newSheetEntriesSchema = z.strictObject({
  entries: z
    .array(z.strictObject({ field: sheetFieldIdSchema, value: sheetValueSchema.nullable() }))
    .min(1)
    .max(100),
  reason: z.string().trim().max(500).default('').describe('Why something is taken back or changed.'),
});
export type NewSheetEntries = z.infer<typeof newSheetEntriesSchema>;

/** The entries that count: the newest of each field (they come newest first), without what was taken back. */
export function currentSheet(entries: readonly SheetEntry[]): ReadonlyMap<string, SheetValue> {
  const newest = new Map<string, SheetEntry>();
  for (const entry of entries) if (!newest.has(entry.field)) newest.set(entry.field, entry);
  return new Map([...newest].flatMap(([field, { value }]) => (value === null ? [] : [[field, value]])));
}
