import { z } from 'zod';
import { currentKind } from '#core/gear/kinds';
import type { SheetValue } from '#core/gear/sheet/sheet-field';
import { categorySchema, nameSchema } from '#contracts/common';
import { variantOfSchema } from '#contracts/variant';
import {
  claimSchema,
  pointsInputSchema,
  priceSchema,
  runDocumentSchema,
  runTakeSchema,
  type RunDocument,
} from '#contracts/run-document';
import { fieldText, issueText } from '#contracts/issue-text';
import { sheetValueSchema } from '#contracts/sheet';
import { tableReadingSchema } from '#contracts/table-reading';

const ENTRIES = {
  prices: priceSchema,
  claims: claimSchema,
  takes: runTakeSchema,
  tables: tableReadingSchema,
  points: pointsInputSchema,
} as const;
const SPECIMEN = {
  maker: nameSchema,
  model: nameSchema,
  label: nameSchema,
  category: categorySchema,
  variantOf: variantOfSchema,
} as const;
const PLAIN = z
  .object(runDocumentSchema.shape)
  .omit({ format: true, specimen: true, prices: true, claims: true, takes: true, tables: true, points: true })
  .partial();

/** As much of a run document as could be read. */
export type ReadRunDocument = Partial<Omit<RunDocument, 'specimen'>> & { specimen: Partial<RunDocument['specimen']> };

/**
 * Reads a run.json part by part: an entry that cannot be read is left out and named, everything else is kept. A field
 * that is not known is named, too.
 *
 * @param raw - the parsed JSON
 * @returns null as the document where it is none of this format
 */
export function readRunDocument(raw: unknown): { document: ReadRunDocument | null; notes: string[] } {
  const notes: string[] = [];
  const document: ReadRunDocument = { specimen: {} };
  const leave = (what: string, error: z.ZodError): void => {
    notes.push(`run.json: ${what} was left out: ${reasonOf(error)}.`);
  };
  if (!isRecord(raw) || raw['format'] !== 'sediment-run/1')
    return { document: null, notes: ['run.json was not used: it is no run document of the format “sediment-run/1”.'] };
  for (const [key, value] of Object.entries(raw)) {
    if (key === 'format') continue;
    if (key in ENTRIES) Object.assign(document, { [key]: entriesOf(key as keyof typeof ENTRIES, value, leave) });
    else if (key === 'specimen') document.specimen = specimenOf(value, leave);
    else if (key === 'sheet') document.sheet = sheetOf(value, leave);
    else if (key in PLAIN.shape) {
      const read = PLAIN.shape[key as keyof typeof PLAIN.shape].safeParse(value);
      if (read.success) Object.assign(document, { [key]: read.data });
      else leave(`“${key}”`, read.error);
    } else notes.push(`run.json: “${key}” was left out: a run has no such field.`);
  }
  return {
    document,
    notes: notes.length === 0 ? ['Filled in from run.json.'] : [...notes, 'The rest was filled in from run.json.'],
  };
}

type Leave = (what: string, error: z.ZodError) => void;

function entriesOf(key: keyof typeof ENTRIES, value: unknown, leave: Leave): unknown[] {
  const list = z.array(z.unknown()).safeParse(value);
  if (!list.success) {
    leave(`“${key}”`, list.error);
    return [];
  }
  return list.data.flatMap((entry, i) => {
    const read = ENTRIES[key].safeParse(entry);
    if (read.success) return [read.data];
    leave(`entry ${i + 1} of “${key}”${nameOf(entry)}`, read.error);
    return [];
  });
}

function specimenOf(value: unknown, leave: Leave): ReadRunDocument['specimen'] {
  const fields = isRecord(value) ? value : {};
  return Object.fromEntries(
    Object.entries(SPECIMEN).flatMap(([key, schema]) => {
      if (!(key in fields)) return [];
      // Files name a kind as it was called when they were written.
      const read = schema.safeParse(key === 'category' ? currentKind(fields[key]) : fields[key]);
      if (!read.success) leave(`“${key}” of the specimen`, read.error);
      return read.success ? [[key, read.data]] : [];
    }),
  );
}

function sheetOf(value: unknown, leave: Leave): Record<string, SheetValue> {
  return Object.fromEntries(
    Object.entries(isRecord(value) ? value : {}).flatMap(([field, entry]) => {
      const read = sheetValueSchema.safeParse(entry);
      if (!read.success) leave(`“${field}” of the data sheet`, read.error);
      return read.success ? [[field, read.data]] : [];
    }),
  );
}

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** What tells an entry from the others, as far as it has that. */
function nameOf(entry: unknown): string {
  if (!isRecord(entry)) return '';
  const name = [entry['quantity'], entry['file'], entry['criterion'], entry['step']].find((n) => typeof n === 'string');
  return name === undefined ? '' : ` (${name})`;
}

const reasonOf = (error: z.ZodError): string =>
  error.issues.map((i) => [fieldText(i.path), issueText(i)].filter((t) => t !== null).join(' ')).join('; ');
