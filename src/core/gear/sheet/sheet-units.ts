import { DBU_VOLTS } from '../../measure/self-noise';

/** Brings a number in one unit to the unit that a field is kept and compared in. */
export type Conversion = (value: number) => number;

/** What is given in the unit that it is kept in already. */
export const asItIs: Conversion = (value) => value;
const times =
  (factor: number): Conversion =>
  (value) =>
    value * factor;
/** Level of a voltage or of a ratio of voltages: 20·log10 (IEC 60027-3). */
const level =
  (reference: number): Conversion =>
  (value) =>
    20 * Math.log10(value / reference);

/** 0 dBV in dBu: 1 V re √0.6 V (IEC 60268-3), 2.218 dB. */
const DBV_IN_DBU = -20 * Math.log10(DBU_VOLTS);
const KILO = 1000;
/** An inch, exact since 1959. */
const MM_PER_INCH = 25.4;
const G_PER_OUNCE = 28.349523125;
const G_PER_POUND = 453.59237;
const MONTHS_PER_YEAR = 12;
const PER_CENT = 100;

/**
 * Units that a field of a data sheet can be kept in, each with all that may be typed instead of it and what makes one of
 * the other. The first is the unit itself.
 */
export const SHEET_UNITS = {
  '': { '': asItIs },
  dB: { dB: asItIs },
  // Distortion and noise re the signal: 0.001 % is −100 dB.
  'dB re signal': { dB: asItIs, '%': level(PER_CENT), ppm: level(KILO * KILO) },
  'dB SPL': { 'dB SPL': asItIs, dB: asItIs },
  'dB SPL/mW': { 'dB SPL/mW': asItIs, 'dB/mW': asItIs },
  'dB SPL/V': { 'dB SPL/V': asItIs, 'dB/V': asItIs },
  dBu: {
    dBu: asItIs,
    dBV: (value) => value + DBV_IN_DBU,
    V: level(DBU_VOLTS),
    mV: level(KILO * DBU_VOLTS),
  },
  // 0 dB re 1 V/Pa is 1000 mV/Pa (IEC 60268-4).
  'mV/Pa': { 'mV/Pa': asItIs, 'V/Pa': times(KILO), 'dBV/Pa': (value) => KILO * 10 ** (value / 20) },
  Ω: { Ω: asItIs, kΩ: times(KILO), MΩ: times(KILO * KILO) },
  Hz: { Hz: asItIs, kHz: times(KILO) },
  V: { V: asItIs, mV: times(1 / KILO) },
  mA: { mA: asItIs, A: times(KILO) },
  mW: { mW: asItIs, W: times(KILO) },
  g: { g: asItIs, kg: times(KILO), oz: times(G_PER_OUNCE), lb: times(G_PER_POUND) },
  mm: { mm: asItIs, cm: times(10), m: times(KILO), in: times(MM_PER_INCH) },
  m: { m: asItIs, cm: times(0.01), km: times(KILO) },
  h: { h: asItIs, min: times(1 / 60) },
  ms: { ms: asItIs, s: times(KILO), µs: times(1 / KILO) },
  bit: { bit: asItIs },
  N: { N: asItIs },
  months: { months: asItIs, years: times(MONTHS_PER_YEAR) },
} as const satisfies Readonly<Record<string, Readonly<Record<string, Conversion>>>>;

export type SheetUnit = keyof typeof SHEET_UNITS;

/** Other ways in which people write a unit. */
const WRITTEN: Readonly<Record<string, string>> = {
  ohm: 'Ω',
  ohms: 'Ω',
  Ohm: 'Ω',
  Ohms: 'Ω',
  '\u2126': 'Ω',
  kohm: 'kΩ',
  kohms: 'kΩ',
  kOhm: 'kΩ',
  Mohm: 'MΩ',
  MOhm: 'MΩ',
  hz: 'Hz',
  khz: 'kHz',
  KHz: 'kHz',
  'dB re 1 V/Pa': 'dBV/Pa',
  'dB re 1V/Pa': 'dBV/Pa',
  'dBV re 1 Pa': 'dBV/Pa',
  'dB SPL / mW': 'dB SPL/mW',
  'dB SPL / V': 'dB SPL/V',
  dBSPL: 'dB SPL',
  'db spl': 'dB SPL',
  db: 'dB',
  dbu: 'dBu',
  dbv: 'dBV',
  'mV / Pa': 'mV/Pa',
  mv: 'mV',
  '″': 'in',
  '"': 'in',
  inch: 'in',
  inches: 'in',
  hours: 'h',
  hour: 'h',
  hrs: 'h',
  minutes: 'min',
  us: 'µs',
  μs: 'µs',
  bits: 'bit',
  month: 'months',
  year: 'years',
  gram: 'g',
  grams: 'g',
  metres: 'm',
  meters: 'm',
};

/** Units that may be typed into a field that is kept in `unit`. */
export const unitsOf = (unit: SheetUnit): readonly string[] => Object.keys(SHEET_UNITS[unit]);

/** What brings a number in `typed` to the unit of the field; undefined where nothing does. */
export const conversionTo = (unit: SheetUnit, typed: string): Conversion | undefined =>
  (SHEET_UNITS[unit] as Readonly<Record<string, Conversion>>)[typed];

/**
 * Takes the unit off the beginning of what stands behind a number.
 *
 * @param rest - as typed
 * @param unit - of the field
 * @returns the unit as it is kept, and what is left; null where it begins with none of the field's
 *
 * @example
 *   unitAtStart('kOhm, balanced', 'Ω'); // => { unit: 'kΩ', rest: ', balanced' }
 */
export function unitAtStart(rest: string, unit: SheetUnit): { unit: string; rest: string } | null {
  const written = [
    ...unitsOf(unit).map((u) => [u, u] as const),
    ...Object.entries(WRITTEN).filter(([, u]) => conversionTo(unit, u) !== undefined),
    // A bare k stands for thousand of whatever the field takes.
    ...(conversionTo(unit, 'kΩ') ? [['k', 'kΩ'] as const] : conversionTo(unit, 'kHz') ? [['k', 'kHz'] as const] : []),
  ]
    .filter(([text]) => text !== '')
    .sort((a, b) => b[0].length - a[0].length);
  for (const [text, as] of written)
    if (rest.startsWith(text) && !/^[\p{L}\d/]/u.test(rest.slice(text.length)))
      return { unit: as, rest: rest.slice(text.length) };
  return null;
}
