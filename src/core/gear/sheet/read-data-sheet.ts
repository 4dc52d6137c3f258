import { readSheetValue } from './read-sheet-value';
import type { SheetField, SheetValue } from './sheet-field';
import { sheetNumber } from './sheet-value';

/** A line of a data sheet that was understood. */
export interface ReadLine {
  readonly field: SheetField;
  readonly value: SheetValue;
  readonly line: string;
}

/** A line that was not, and why where its field was found. */
export interface LeftLine {
  readonly line: string;
  readonly why: string;
}

/** What a text of a data sheet says. */
export interface ReadSheet {
  readonly read: readonly ReadLine[];
  readonly left: readonly LeftLine[];
}

/** Words between a name and its value: a colon, a tab, an equals sign, or two blanks of a table. */
const PARTING = /\s*(?::|\t|=|\s{2,}|\|)\s*/u;
const RANGE = /^(.*?\d[\d\s.,]*?)\s*(\p{L}*)\s*(?:–|—|−|-|to|…|\.\.\.?)\s*(\d[\d\s.,]*?)\s*(k?Hz)\b(.*)$/iu;

/**
 * Reads the text of a data sheet, line by line: "Name: value". What a person confirms is what was read; every other line
 * stays as text, with the reason where its field was found but its value was not understood. The first line of a field
 * counts.
 *
 * @param text - as it was pasted
 * @param fields - of the kind of gear
 */
export function readDataSheet(text: string, fields: readonly SheetField[]): ReadSheet {
  const read: ReadLine[] = [];
  const left: LeftLine[] = [];
  const taken = new Set<string>();
  for (const line of text.split(/\r?\n/u).map((l) => l.trim().replace(/^[•*·]\s*/u, ''))) {
    if (line === '') continue;
    const { found, why } = readLine(line, fields);
    const fresh = found.filter((f) => !taken.has(f.field.id));
    for (const one of fresh) taken.add(one.field.id);
    read.push(...fresh);
    if (fresh.length === 0) left.push({ line, why: found.length > 0 ? 'this field has been read already' : why });
  }
  return { read, left };
}

function readLine(line: string, fields: readonly SheetField[]): { found: ReadLine[]; why: string } {
  const parting = PARTING.exec(line);
  if (!parting || parting.index === 0) return { found: [], why: '' };
  const name = folded(line.slice(0, parting.index));
  const said = line.slice(parting.index + parting[0].length).trim();
  const called = fields.filter((f) => [f.name.toLowerCase(), ...(f.alsoCalled ?? [])].some((n) => folded(n) === name));
  const range = RANGE.exec(said);
  const found: ReadLine[] = [];
  let why = '';
  for (const field of called) {
    const text = field.type === 'number' && field.end !== undefined && range ? endOfRange(range, field.end) : said;
    const value = readSheetValue(text, field);
    if (!value.isUnderstood) why = value.why;
    else if (value.value !== null && saysWhich(text, field, called)) found.push({ field, value: value.value, line });
    else why = 'the weighting is not said: A-weighted or unweighted?';
  }
  const ends = called.filter((f) => endOf(f) !== undefined);
  if (range && ends.length > 0 && ends.some((f) => found.every((one) => one.field !== f))) return { found: [], why };
  const [low, high] = (['low', 'high'] as const).map((end) => found.find((f) => endOf(f.field) === end));
  if (low && high && numberOf(low) >= numberOf(high))
    return { found: [], why: 'the upper end of this range is not above its lower one' };
  return { found, why };
}

const endOf = (field: SheetField): string | undefined => (field.type === 'number' ? field.end : undefined);
const numberOf = ({ field, value }: ReadLine): number => sheetNumber(field, value) ?? NaN;

/** Where a name stands for several weightings, the line has to say which. */
function saysWhich(text: string, field: SheetField, called: readonly SheetField[]): boolean {
  if (field.type !== 'number' || field.implies === undefined) return true;
  if (called.every((f) => f === field || f.type !== 'number' || f.implies === undefined)) return true;
  const { implies, ...unsaid } = field;
  const bare = readSheetValue(text, unsaid);
  return bare.isUnderstood && bare.value?.type === 'number' && bare.value.condition.includes(implies);
}

/** One end of "40 Hz – 18 kHz (±3 dB)", with the conditions of both. */
function endOfRange([, low, lowUnit, high, highUnit, behind]: RegExpExecArray, end: 'low' | 'high'): string {
  const conditions = behind.trim().replace(/^[,;]\s*/u, '');
  const value = end === 'low' ? `${low.trim()} ${lowUnit === '' ? highUnit : lowUnit}` : `${high.trim()} ${highUnit}`;
  return conditions === '' ? value : `${value}, ${conditions.replace(/^\(([^()]*)\)$/u, '$1')}`;
}

const folded = (text: string): string =>
  text
    .toLowerCase()
    .replace(/[^\p{L}\d+]+/gu, ' ')
    .trim();
