import { readNumber, numberText } from '../../text/read-number';
import { readText } from '../../text/read-text';
import type { Reading } from '../../text/reading';
import type { NumberSheetField, SheetField, SheetValue, WordsSheetField } from './sheet-field';
import { rangeText } from './sheet-value';
import { conversionTo, unitAtStart, unitsOf } from './sheet-units';

/** More words than any field of a data sheet has; longer than any of them is. */
const MOST_WORDS = 40;
const LONGEST_WORD = 80;
export const LONGEST_CONDITION = 200;
export const LONGEST_TEXT = 2000;

const NUMBER = /^([<>≤≥~≈]?)\s*([+\-−–]?\s*(?:\d[\d\s.,'’\u00a0\u202f\u2009]*|[.,]\d+))(.*)$/su;
const BOUNDS: Readonly<Record<string, string>> = {
  '<': 'less than',
  '≤': 'at most',
  '>': 'more than',
  '≥': 'at least',
  '~': 'about',
  '≈': 'about',
};

/**
 * Reads what is typed into a field of a data sheet. A number takes its unit and its conditions with it; nothing is
 * rounded or brought into a range. Words of the field's list may be shortened as long as one only can be meant, and a
 * person's own words are taken as they are.
 *
 * @param text - as typed
 * @param field - of the sheet
 * @returns the value as it was meant, null for an empty text, or why it is refused
 *
 * @example
 *   readSheetValue('-128 dBu A, 150 ohm', { id: 'einA', name: 'EIN', group: 'Electrical', type: 'number', unit: 'dBu' }); // => { isUnderstood: true, value: { type: 'number', value: -128, unit: 'dBu', condition: 'A-weighted, 150 ohm' } }
 */
export function readSheetValue(text: string, field: SheetField): Reading<SheetValue> {
  const typed = text.trim();
  if (typed === '') return { isUnderstood: true, value: null };
  switch (field.type) {
    case 'number':
      return readSheetNumber(typed, field);
    case 'choice':
    case 'several':
      return readWords(typed, field);
    case 'yes-no':
      return readYesNo(typed);
    case 'text': {
      const read = readText(typed, LONGEST_TEXT);
      return read.isUnderstood ? { isUnderstood: true, value: { type: 'text', text: typed } } : read;
    }
  }
}

function readSheetNumber(typed: string, field: NumberSheetField): Reading<SheetValue> {
  const parts = NUMBER.exec(typed);
  if (!parts) return refused(`“${typed}” begins with no number`, field);
  const [, sign, digits, behind] = parts;
  const rest = behind.trim();
  const found = rest === '' ? { unit: unitsOf(field.unit)[0], rest: '' } : unitAtStart(rest, field.unit);
  // A bare number takes conditions as well, as long as they do not begin like a unit of something else.
  const taken = found ?? (field.unit === '' || /^[,;(]/.test(rest) ? { unit: unitsOf(field.unit)[0], rest } : null);
  if (!taken) return refused(`“${rest}” begins with no unit of this field`, field);
  // Units were read above. In the field's own unit its range tells a sign for thousands from a decimal one.
  const isOwn = taken.unit === unitsOf(field.unit)[0];
  const range = isOwn ? { ...(field.least === undefined ? {} : { least: field.least }), ...(field.most === undefined ? {} : { most: field.most }) } : {}; // prettier-ignore
  const read = readNumber(digits.trim().replace(/^([+\-−–])\s+/u, '$1'), { unit: taken.unit, ...range });
  if (!read.isUnderstood) return { isUnderstood: false, why: read.why };
  if (read.value === null) return refused(`“${typed}” is no number`, field);
  const value = read.value;
  const inUnit = conversionTo(field.unit, taken.unit)?.(value) ?? NaN;
  if (!Number.isFinite(inUnit)) return refused(`${numberText(value, { unit: taken.unit })} is no value of it`, field);
  if (inUnit < (field.least ?? -Infinity) || inUnit > (field.most ?? Infinity))
    return refused(`${numberText(value, { unit: taken.unit })} is outside`, field);
  const condition = conditionOf(taken.rest, BOUNDS[sign] ?? '');
  if (condition.length > LONGEST_CONDITION)
    return {
      isUnderstood: false,
      why: `The conditions are longer than ${LONGEST_CONDITION} characters: shorten them.`,
    };
  const contradiction = contradicts(condition, field);
  if (contradiction !== null) return { isUnderstood: false, why: contradiction };
  const isSaid = field.implies !== undefined && !condition.includes(field.implies);
  return {
    isUnderstood: true,
    value: {
      type: 'number',
      value,
      unit: taken.unit,
      condition: isSaid ? [field.implies, condition].filter((c) => c !== '').join(', ') : condition,
    },
  };
}

/** The conditions behind a unit, the weighting written in one way. */
function conditionOf(rest: string, bound: string): string {
  const said = rest
    .replace(/^[\s,;]+/u, '')
    .replace(/^\(([^()]*)\)$/u, '$1')
    .trim();
  const weighted = said
    .replace(/^\(?a\)?(?:[\s-]*(?:weighted|wtd\.?))?\)?(?=$|[\s,;])/iu, 'A-weighted')
    .replace(/^\(?(?:z|flat|linear|unweighted|unwtd\.?)\)?(?:[\s-]*weighted)?(?=$|[\s,;])/iu, 'unweighted');
  return [bound, weighted].filter((c) => c !== '').join(', ');
}

function contradicts(condition: string, { implies, name }: NumberSheetField): string | null {
  if (implies === undefined) return null;
  const other = implies === 'A-weighted' ? 'unweighted' : 'A-weighted';
  return condition.includes(other) && !condition.includes(implies)
    ? `${name} is ${implies}; what is ${other} belongs into the field beside it.`
    : null;
}

function refused(what: string, field: NumberSheetField): Reading<SheetValue> {
  const units = unitsOf(field.unit).filter((u) => u !== '');
  const range = rangeText(field);
  const inUnits = units.length === 0 ? '' : ` in ${units.join(', ')}`;
  return {
    isUnderstood: false,
    why: `${what}; a number${range === '' ? '' : ` ${range}`}${inUnits} is taken, its conditions behind it.`,
  };
}

function readWords(typed: string, field: WordsSheetField): Reading<SheetValue> {
  const parts = field.type === 'several' ? typed.split(/[,;\n]/u) : [typed];
  const words = parts.map((p) => p.trim().replace(/\s+/gu, ' ')).filter((p) => p !== '');
  if (words.length === 0) return { isUnderstood: true, value: null };
  if (words.length > MOST_WORDS)
    return { isUnderstood: false, why: `More than ${MOST_WORDS} are not kept in one field.` };
  const long = words.find((w) => w.length > LONGEST_WORD);
  if (long !== undefined)
    return {
      isUnderstood: false,
      why: `“${long.slice(0, 20)}…” is longer than ${LONGEST_WORD} characters: shorten it.`,
    };
  const meant = words.map((w) => wordMeant(w, field.options));
  const doubtful = meant.find((m) => m.couldBe.length > 1);
  if (doubtful)
    return {
      isUnderstood: false,
      why: `“${doubtful.word}” can be ${doubtful.couldBe.join(' or ')}: write one more letter.`,
    };
  return {
    isUnderstood: true,
    value: { type: 'words', words: [...new Set(meant.map((m) => m.couldBe[0] ?? m.word))] },
  };
}

/** Letters of which a shortened word has to have at least this many: two letters are a word of its own. */
const SHORTEST_PREFIX = 3;

function wordMeant(word: string, options: readonly string[]): { word: string; couldBe: readonly string[] } {
  const folded = word.toLowerCase();
  const exact = options.find((o) => o.toLowerCase() === folded);
  if (exact !== undefined) return { word, couldBe: [exact] };
  if (folded.length < SHORTEST_PREFIX) return { word, couldBe: [] };
  return { word, couldBe: options.filter((o) => o.toLowerCase().startsWith(folded)) };
}

function readYesNo(typed: string): Reading<SheetValue> {
  const yes = /^(?:y|yes|true|included|✓)$/iu.test(typed);
  if (yes || /^(?:n|no|none|false|not included|✗)$/iu.test(typed))
    return { isUnderstood: true, value: { type: 'yes-no', yes } };
  return { isUnderstood: false, why: `“${typed}” is neither; yes or no is taken.` };
}
