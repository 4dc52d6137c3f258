import { describe, expect, it } from 'vitest';
import { SHIPPED_KIND_IDS, gearKind, sheetField } from '../kinds';
import { readSheetValue } from './read-sheet-value';
import type { SheetField, SheetValue } from './sheet-field';
import { convertedText, misfit, sheetNumber, sheetValueText } from './sheet-value';
import { SHEET_UNITS, unitsOf, type SheetUnit } from './sheet-units';

const field = (kind: Parameters<typeof sheetField>[0], id: string): SheetField => {
  const found = sheetField(kind, id);
  if (!found) throw new Error(`no field ${id}`);
  return found;
};
const read = (text: string, of: SheetField): SheetValue => {
  const reading = readSheetValue(text, of);
  if (!reading.isUnderstood || reading.value === null) throw new Error(`refused: ${text}`);
  return reading.value;
};
const refusal = (text: string, of: SheetField): string => {
  const reading = readSheetValue(text, of);
  return reading.isUnderstood ? '' : reading.why;
};
const EIN_A = field('interface', 'einA');
const EIN_Z = field('interface', 'einZ');
const SENSITIVITY = field('microphone', 'sensitivity');

describe('a number of a data sheet', () => {
  it.each([
    ['26 mV/Pa', SENSITIVITY, 26, 'mV/Pa', ''],
    ['−32 dBV/Pa', SENSITIVITY, -32, 'dBV/Pa', ''],
    ['-38 dB re 1 V/Pa at 1 kHz', SENSITIVITY, -38, 'dBV/Pa', 'at 1 kHz'],
    ['26', SENSITIVITY, 26, 'mV/Pa', ''],
    ['26 (±1 dB)', SENSITIVITY, 26, 'mV/Pa', '±1 dB'],
    ['-128 dBu A', EIN_A, -128, 'dBu', 'A-weighted'],
    ['-128 dBu(A)', EIN_A, -128, 'dBu', 'A-weighted'],
    ['−128 dBu, A-weighted, 150 Ω', EIN_A, -128, 'dBu', 'A-weighted, 150 Ω'],
    // The name of the field says the weighting; so does what is kept.
    ['- 128 dBu, 150 Ω', EIN_A, -128, 'dBu', 'A-weighted, 150 Ω'],
    ['-125,5 dBu unweighted', EIN_Z, -125.5, 'dBu', 'unweighted'],
    ['<0,001 %', field('interface', 'distortion'), 0.001, '%', 'less than'],
    ['3.6k', field('interface', 'inputImpedance'), 3.6, 'kΩ', ''],
    ['20 000 Hz', field('microphone', 'responseHigh3'), 20_000, 'Hz', ''],
    // The lower end of no response lies there: thousands are meant.
    ['20,000 Hz', field('microphone', 'responseHigh3'), 20_000, 'Hz', ''],
    ['130 dB SPL at 0.5 % THD', field('microphone', 'maximumLevel'), 130, 'dB SPL', 'at 0.5 % THD'],
    ['2 years', field('microphone', 'warranty'), 2, 'years', ''],
    ['1.5 lb', field('microphone', 'weight'), 1.5, 'lb', ''],
  ])('%s', (text, of, value, unit, condition) => {
    expect(read(text, of)).toEqual({ type: 'number', value, unit, condition });
  });

  it('is shown as it was typed, and can be typed again', () => {
    for (const [text, of] of [
      ['-128 dBu A, 150 Ω', EIN_A],
      ['<0.001 %', field('interface', 'distortion')],
    ] as const) {
      const value = read(text, of);
      const shown = sheetValueText(value);
      if (!shown.includes('less than')) expect(read(shown, of)).toEqual(value);
    }
    expect(sheetValueText(read('-128 dBu A', EIN_A))).toBe('−128 dBu, A-weighted');
  });

  it.each([
    ['128 dBu', EIN_A, /^128 dBu is outside; a number from −150 to −60 dBu is taken/],
    [
      '-125 dBu unweighted',
      EIN_A,
      /^EIN, A-weighted is A-weighted; what is unweighted belongs into the field beside it/,
    ],
    ['-125 dBu A', EIN_Z, /A-weighted belongs into the field beside it/],
    ['48 V', field('microphone', 'phantomCurrent'), /“V” begins with no unit of this field; .* in mA, A is taken/],
    ['about 26', SENSITIVITY, /begins with no number/],
    ['0 V', field('interface', 'mostInput'), /is no value of it/],
    [`26 mV/Pa, ${'x'.repeat(300)}`, SENSITIVITY, /longer than 200 characters/],
  ])('%s is refused in words', (text, of, why) => {
    expect(refusal(text, of)).toMatch(why);
  });

  it('takes no half of a unit: 5 mVx is none', () => {
    expect(refusal('5 mVx', field('interface', 'mostInput'))).toMatch(/“mVx” begins with no unit/);
  });
});

// Published formulas: IEC 60268-4 (sensitivity level re 1 V/Pa), IEC 60268-3 (0 dBu = √0.6 V), the inch of 1959 and the
// avoirdupois pound of 1959 (NIST Handbook 44, Appendix C, from memory).
describe('conversions', () => {
  const inUnit = (text: string, of: SheetField) => sheetNumber(of, read(text, of));
  it.each([
    ['-60 dBV/Pa', SENSITIVITY, 1],
    ['-40 dB re 1 V/Pa', SENSITIVITY, 10],
    ['0.02 V/Pa', SENSITIVITY, 20],
    ['0 dBV', field('interface', 'mostInput'), 2.2185],
    ['0.7746 V', field('interface', 'mostInput'), 0],
    ['0.001 %', field('interface', 'distortion'), -100],
    ['10 ppm', field('interface', 'distortion'), -100],
    ['-105 dB', field('interface', 'distortion'), -105],
    ['1 lb', field('microphone', 'weight'), 453.592],
    ['2 in', field('microphone', 'length'), 50.8],
    ['90 min', field('field-microphone', 'batteryLife'), 1.5],
    ['3 years', field('microphone', 'warranty'), 36],
  ])('%s', (text, of, expected) => {
    // Four digits are what a data sheet gives.
    expect(Math.abs((inUnit(text, of) ?? NaN) - expected)).toBeLessThan(5e-4 * Math.max(1, Math.abs(expected)));
  });

  it('says what another unit comes to, and nothing where it is the field’s own', () => {
    expect(convertedText(SENSITIVITY, read('-40 dBV/Pa', SENSITIVITY))).toBe('10 mV/Pa');
    expect(convertedText(SENSITIVITY, read('10 mV/Pa', SENSITIVITY))).toBe('');
    const mostInput = field('interface', 'mostInput');
    expect(convertedText(mostInput, read('0.775 V', mostInput))).toBe('0 dBu');
    expect(convertedText(field('microphone', 'weight'), read('2 oz', field('microphone', 'weight')))).toBe('56.7 g');
    // A prefix is read by everybody.
    expect(convertedText(field('microphone', 'weight'), read('1.6 kg', field('microphone', 'weight')))).toBe('');
    expect(
      convertedText(field('interface', 'inputImpedance'), read('2.6 kΩ', field('interface', 'inputImpedance'))),
    ).toBe('');
    // The same level under another name.
    expect(convertedText(field('microphone', 'selfNoise'), read('14 dB', field('microphone', 'selfNoise')))).toBe('');
  });

  it('are the same there and back, unit by unit: one of the unit itself is one', () => {
    for (const unit of Object.keys(SHEET_UNITS) as SheetUnit[]) {
      const [own] = unitsOf(unit);
      expect((SHEET_UNITS[unit] as Record<string, (v: number) => number>)[own](1)).toBe(1);
    }
  });
});

describe('words', () => {
  const pattern = field('microphone', 'pattern');
  const transducer = field('microphone', 'transducer');
  it('may be shortened while one only is meant', () => {
    expect(read('card, OMNI', pattern)).toEqual({ type: 'words', words: ['cardioid', 'omni'] });
    expect(read('ribbon', transducer)).toEqual({ type: 'words', words: ['ribbon'] });
    expect(refusal('mov', { ...transducer, options: ['moving coil', 'moving iron'] } as SheetField)).toMatch(
      /“mov” can be moving coil or moving iron/,
    );
  });
  it('of one’s own are taken as they are, each once', () => {
    expect(read('carbon  granule', transducer)).toEqual({ type: 'words', words: ['carbon granule'] });
    expect(read('own, own; 48', pattern)).toEqual({ type: 'words', words: ['own', '48'] });
    // A full word that begins another one is that word.
    expect(read('omni', { ...pattern, options: ['omni', 'omni wide'] } as SheetField)).toMatchObject({
      words: ['omni'],
    });
    expect(refusal('x'.repeat(81), transducer)).toMatch(/longer than 80/);
  });
  it('yes and no are nothing else', () => {
    const phantom = field('interface', 'phantom');
    expect(['y', 'Yes', 'included', 'no', 'None'].map((t) => read(t, phantom))).toEqual(
      [true, true, true, false, false].map((yes) => ({ type: 'yes-no', yes })),
    );
    expect(refusal('maybe', phantom)).toMatch(/yes or no is taken/);
  });
  it('nothing typed is nothing', () => {
    expect(readSheetValue('  ', pattern)).toEqual({ isUnderstood: true, value: null });
    expect(readSheetValue(' , ', pattern)).toEqual({ isUnderstood: true, value: null });
  });
});

describe('what comes in by files', () => {
  it('has to be what the field takes', () => {
    expect(misfit(EIN_A, { type: 'number', value: -128, unit: 'dBu', condition: '' })).toBeNull();
    expect(misfit(EIN_A, { type: 'number', value: -128, unit: 'Ω', condition: '' })).toMatch(
      /in dBu, dBV, V, mV, not in “Ω”/,
    );
    expect(misfit(EIN_A, { type: 'number', value: 5, unit: 'dBu', condition: '' })).toMatch(
      /from −150 dBu up to −60 dBu/,
    );
    expect(misfit(EIN_A, { type: 'yes-no', yes: true })).toBe('takes a number');
    expect(misfit(field('interface', 'phantom'), { type: 'text', text: 'yes' })).toBe('takes yes or no');
    expect(misfit(field('microphone', 'address'), { type: 'words', words: ['end', 'side'] })).toBe('takes one word');
  });
});

describe('sheets of all kinds', () => {
  it.each(SHIPPED_KIND_IDS)('%s: names are told apart, ranges are not empty', (id) => {
    const { sheet } = gearKind(id);
    expect(new Set(sheet.map((f) => f.id)).size).toBe(sheet.length);
    expect(new Set(sheet.map((f) => f.name)).size).toBe(sheet.length);
    for (const f of sheet) {
      expect(f.id, f.id).toMatch(/^[a-z][A-Za-z0-9]*$/);
      if (f.type === 'number') expect(f.least ?? -1e9).toBeLessThan(f.most ?? 1e9);
      for (const name of f.alsoCalled ?? []) expect(name).toBe(name.toLowerCase());
    }
  });
});
