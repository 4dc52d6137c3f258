import type { Reading } from './reading';

/** What a field takes. */
export interface NumberSheet {
  /** Unit in which the number is kept and shown; '' for a bare number. */
  readonly unit: string;
  /** Further units that may be typed, each as how many of `unit` one of it is: { Hz: 0.001 } where kHz are kept. */
  readonly units?: Readonly<Record<string, number>>;
  readonly least?: number;
  readonly most?: number;
  /** Whole numbers only. */
  readonly isWhole?: boolean;
  /** Most decimals there can be, where more would be another number: two of a price. */
  readonly decimals?: number;
}

const NUMBER = /^([+\-−–]?)\s*((?:\d[\d\s.,'’\u00a0\u202f\u2009]*)|[.,]\d+)\s*(.*)$/u;
const GROUP_SIGNS = /[\s'’\u00a0\u202f\u2009]/gu;

/**
 * Reads a number as a person types it: either decimal sign, groups of three, a true minus sign, and a unit. Nothing is
 * rounded, cut or brought into the range: what cannot be understood in one way only is refused with words that say what
 * would be accepted.
 *
 * @param text - as typed
 * @param sheet - unit, range and decimals of the field
 * @returns the value in the unit of the sheet, null for an empty text, or why it is refused
 *
 * @example
 *   readNumber('1,5 kHz', { unit: 'Hz', units: { kHz: 1000 } }); // => { isUnderstood: true, value: 1500 }
 */
export function readNumber(text: string, sheet: NumberSheet): Reading<number> {
  const typed = text.trim();
  if (typed === '') return { isUnderstood: true, value: null };
  const parts = NUMBER.exec(typed);
  if (!parts) return refused(`“${typed}” is no number`, sheet);
  const [, sign, digits, word] = parts;
  const factor = factorOf(word.trim(), sheet);
  if (factor === null) return refused(`“${word.trim()}” is not a unit of this field`, sheet);
  const readings = readingsOf(digits.trim(), sheet.decimals);
  if (readings.length === 0) return refused(`“${typed}” is no number`, sheet);
  const values = [...new Set(readings.map((r) => tidy((sign === '' || sign === '+' ? 1 : -1) * r * factor)))];
  const fitting = values.filter((v) => isWithin(v, sheet));
  if (fitting.length > 1) {
    return {
      isUnderstood: false,
      why: `“${typed}” can be ${fitting.map((v) => plain(v)).join(' or ')}: write the one that is meant without a sign for thousands, and with other than three decimals.`,
    };
  }
  if (fitting.length === 1) return { isUnderstood: true, value: fitting[0] };
  if (sheet.isWhole && values.every((v) => !Number.isInteger(v)))
    return refused(`${plain(values[0])} is no whole number`, sheet);
  const other = word.trim() === '' ? unitThatFits(values, sheet) : null;
  return refused(
    `${numberText(values[0], sheet)} is outside`,
    sheet,
    other === null ? '' : ` Write ${plain(values[0])} ${other} if that is meant.`,
  );
}

/**
 * A value of a field as it is shown: all its digits, a true minus sign, its unit.
 *
 * @example
 *   numberText(-12, { unit: 'dB' }); // => '−12 dB'
 */
export function numberText(value: number, sheet: Pick<NumberSheet, 'unit'>): string {
  const gap = sheet.unit === '' || sheet.unit === '°' ? '' : ' ';
  return `${plain(value)}${gap}${sheet.unit}`;
}

/**
 * What a field accepts, in words.
 *
 * @example
 *   acceptedText({ unit: 'dB', least: -40, most: 120 }); // => 'a number from −40 to 120 dB'
 */
export function acceptedText(sheet: NumberSheet): string {
  const what = sheet.isWhole ? 'a whole number' : 'a number';
  const names = [sheet.unit, ...Object.keys(sheet.units ?? {})].filter((u) => u !== '');
  const { least, most } = sheet;
  const range =
    least !== undefined && most !== undefined
      ? ` from ${plain(least)} to ${numberText(most, sheet)}`
      : least !== undefined
        ? ` of at least ${numberText(least, sheet)}`
        : most !== undefined
          ? ` of at most ${numberText(most, sheet)}`
          : '';
  return `${what}${range}${names.length > 1 || sheet.unit === '' ? inBrackets(names) : ''}`;
}

const inBrackets = (names: readonly string[]): string => (names.length === 0 ? '' : ` (${names.join(', ')})`);

const refused = (what: string, sheet: NumberSheet, further = ''): Reading<number> => ({
  isUnderstood: false,
  why: `${what}; ${acceptedText(sheet)} is taken.${further}`,
});

/** Ten digits are more than anybody types; what binary fractions leave behind them is not theirs. */
const tidy = (value: number): number => Number(value.toPrecision(12));
const plain = (value: number): string => String(tidy(value)).replace('-', '−');

const isWithin = (value: number, { least, most, isWhole }: NumberSheet): boolean =>
  value >= (least ?? -Infinity) && value <= (most ?? Infinity) && (!isWhole || Number.isInteger(value));

function factorOf(word: string, { unit, units }: NumberSheet): number | null {
  if (word === '') return 1;
  const known: [string, number][] = [[unit, 1], ...Object.entries(units ?? {})];
  const exact = known.find(([name]) => name === word) ?? known.find(([name]) => fold(name) === fold(word));
  return exact?.[1] ?? null;
}

/** Ohm and micro have two signs each that look alike. */
const fold = (unit: string): string => unit.normalize('NFKC').toLowerCase().replace(/\s/gu, '');

const unitThatFits = (values: readonly number[], sheet: NumberSheet): string | null =>
  Object.entries(sheet.units ?? {}).find(([, factor]) => values.some((v) => isWithin(tidy(v * factor), sheet)))?.[0] ??
  null;

/** Every number that digits with points, commas and group signs can stand for. */
function readingsOf(text: string, decimals: number | undefined): number[] {
  const bare = text.replace(GROUP_SIGNS, (sign, at: number) => (isGroup(text, at) ? '' : sign));
  if (/[^\d.,]/u.test(bare)) return [];
  const signs = bare.match(/[.,]/gu) ?? [];
  if (signs.length === 0) return [Number(bare)];
  const last = signs.at(-1) as string;
  const kinds = new Set(signs);
  const [whole, fraction] = [bare.slice(0, bare.lastIndexOf(last)), bare.slice(bare.lastIndexOf(last) + 1)];
  if (kinds.size === 2) {
    // The last one is the decimal sign, so it stands there once, and what comes before are groups of three.
    const groups = whole.split(last === ',' ? '.' : ',');
    return whole.includes(last) || !areGroups(groups) ? [] : decimalReading(groups.join(''), fraction, decimals);
  }
  if (signs.length > 1) return areGroups(bare.split(last)) ? [Number(bare.split(last).join(''))] : [];
  const asDecimal = decimalReading(whole, fraction, decimals);
  const asGroups = areGroups([whole, fraction]) ? [Number(whole + fraction)] : [];
  // A point before three digits is a decimal sign wherever there can be three decimals.
  return last === '.' && asDecimal.length > 0 ? asDecimal : [...asDecimal, ...asGroups];
}

const decimalReading = (whole: string, fraction: string, decimals: number | undefined): number[] =>
  fraction === '' || fraction.length > (decimals ?? Infinity)
    ? []
    : [Number(`${whole === '' ? '0' : whole}.${fraction}`)];

const areGroups = ([first, ...others]: readonly string[]): boolean =>
  /^[1-9]\d{0,2}$/u.test(first) && others.every((g) => /^\d{3}$/u.test(g));

/** Whether a space or an apostrophe stands between digits in groups of three. */
const isGroup = (text: string, at: number): boolean =>
  /\d$/u.test(text.slice(0, at)) && /^\d{3}(?!\d)/u.test(text.slice(at + 1));
