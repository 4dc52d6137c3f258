import { z } from 'zod';
import { OWN_HATCHES, kindOf, type KindDocument } from '#core/gear/kind-document';
import { SHIPPED_KIND_IDS, isShippedKind, shippedKind, type ShippedKindId } from '#core/gear/kinds';
import { possibleColumns } from '#core/gear/list-columns';
import { QUANTITY_IDS } from '#core/measure/registry';
import { SHEET_GROUPS, type SheetField } from '#core/gear/sheet/sheet-field';
import { SHEET_UNITS, type SheetUnit } from '#core/gear/sheet/sheet-units';
import { nameSchema, slugSchema } from './common';
import { sheetFieldIdSchema } from './sheet';

const fieldBase = {
  id: sheetFieldIdSchema,
  name: nameSchema,
  group: z.enum(SHEET_GROUPS),
  alsoCalled: z.array(z.string().trim().min(1).max(80)).max(20).optional(),
};
const optionsSchema = z.array(z.string().trim().min(1).max(80)).max(60);

/** A field of a data sheet that a person has added. */
export const ownFieldSchema: z.ZodType<SheetField> = z.discriminatedUnion('type', [
  z.strictObject({
    ...fieldBase,
    type: z.literal('number'),
    unit: z.enum(Object.keys(SHEET_UNITS) as [SheetUnit, ...SheetUnit[]]),
    least: z.number().optional(),
    most: z.number().optional(),
  }),
  z.strictObject({
    ...fieldBase,
    type: z.enum(['choice', 'several']),
    options: optionsSchema,
    isClass: z.boolean().optional().describe('Whether it divides the kind: lists are filtered by it.'),
  }),
  z.strictObject({ ...fieldBase, type: z.literal('yes-no'), isClass: z.boolean().optional() }),
  z.strictObject({ ...fieldBase, type: z.literal('text') }),
]);

/** A kind of gear as a document. */
export const kindDocumentSchema: z.ZodType<KindDocument> = z.strictObject({
  id: slugSchema.max(60),
  version: z.int().min(1),
  name: nameSchema,
  like: z.enum(SHIPPED_KIND_IDS as readonly [ShippedKindId, ...ShippedKindId[]]),
  hatch: z.enum(OWN_HATCHES).nullable(),
  fields: z.array(ownFieldSchema).max(100),
  withoutFields: z.array(sheetFieldIdSchema).max(100),
  columns: z.array(z.string().min(1).max(60)).max(12).nullable(),
});

/** A kind as the page lists it. */
export const kindSchema = z.object({
  document: kindDocumentSchema,
  /** Whether anything was saved of it; what ships is version 1 of itself. */
  isSaved: z.boolean(),
  units: z.int(),
  /** Fields that something stands in, anywhere: they keep their type. */
  usedFields: z.array(z.string()),
});
export type Kind = z.infer<typeof kindSchema>;

/**
 * What is wrong inside a kind that has the right shape.
 *
 * @param document - to be saved
 * @param stands - the version that stands; null for a kind that is new
 * @param used - fields that something stands in
 */
export function kindProblems(
  document: KindDocument,
  stands: KindDocument | null,
  used: ReadonlySet<string>,
): { field: string; message: string }[] {
  const problems: { field: string; message: string }[] = [];
  const shipped = shippedKind(document.like).sheet;
  const isOwnKind = !isShippedKind(document.id);
  if (
    !isOwnKind &&
    (document.like !== document.id || document.name !== shippedKind(document.like).name || document.hatch !== null)
  )
    // prettier-ignore
    problems.push({ field: 'id', message: 'a kind that ships keeps its name, its hatch and its measurements' });
  if (stands && stands.like !== document.like)
    problems.push({ field: 'like', message: 'a kind cannot be measured like another one once it is there' });
  const ids = document.fields.map((f) => f.id);
  document.fields.forEach((field, i) => {
    const say = (message: string): void => void problems.push({ field: `fields[${i}]`, message });
    if (ids.indexOf(field.id) < i) say(`"${field.id}" is there twice`);
    if (shipped.some((f) => f.id === field.id)) say(`"${field.id}" is a field of ${document.like} already`);
    if ((field.type === 'choice' || field.type === 'several') && field.options.length === 0)
      say(`“${field.name}” needs words to choose from`);
    const before = stands?.fields.find((f) => f.id === field.id);
    if (
      before &&
      used.has(field.id) &&
      (before.type !== field.type ||
        (before.type === 'number' && field.type === 'number' && before.unit !== field.unit))
    )
      // prettier-ignore
      say(`“${field.name}” is filled in somewhere; it keeps its type and its unit`);
  });
  for (const field of stands?.fields ?? [])
    if (used.has(field.id) && !ids.includes(field.id))
      problems.push({ field: 'fields', message: `“${field.name}” is filled in somewhere, so it stays` });
  for (const id of document.withoutFields)
    if (!shipped.some((f) => f.id === id))
      problems.push({ field: 'withoutFields', message: `${document.like} has no field "${id}"` });
  const kind = kindOf(document, shippedKind(document.like));
  for (const id of document.columns ?? [])
    if (!possibleColumns(kind, QUANTITY_IDS).some((c) => c.id === id))
      problems.push({ field: 'columns', message: `there is no figure and no field "${id}" to show` });
  return problems;
}
