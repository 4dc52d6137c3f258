import { expect, it } from 'vitest';
import { gearKind } from '../kinds';
import { readDataSheet } from './read-data-sheet';
import { sheetValueText } from './sheet-value';

const read = (text: string, kind: 'microphone' | 'interface' = 'microphone') => {
  const { read: lines, left } = readDataSheet(text, gearKind(kind).sheet);
  return { found: Object.fromEntries(lines.map((l) => [l.field.id, sheetValueText(l.value)])), left };
};

it('reads what it knows, and keeps the rest as text', () => {
  const { found, left } = read(`
    The sound of a thousand harbours.
    • Polar pattern: Cardioid
    Transducer type:\tCondenser
    Frequency response: 40 Hz – 18 kHz (±3 dB)
    Sensitivity: 22 mV/Pa
    Self-noise: 14 dB SPL (A)
    Maximum SPL: 132 dB SPL (1 % THD)
    Impedance  200 ohms
    Weight: 0,42 kg
    Warranty: 3 years
    Colour: grey
  `);
  expect(found).toEqual({
    pattern: 'cardioid',
    transducer: 'condenser',
    responseLow3: '40 Hz, ±3 dB',
    responseHigh3: '18 kHz, ±3 dB',
    sensitivity: '22 mV/Pa',
    selfNoise: '14 dB SPL, A-weighted',
    maximumLevel: '132 dB SPL, 1 % THD',
    outputImpedance: '200 Ω',
    weight: '0.42 kg',
    warranty: '3 years',
  });
  expect(left).toEqual([
    { line: 'The sound of a thousand harbours.', why: '' },
    { line: 'Colour: grey', why: '' },
  ]);
});

it.each(['20–20000 Hz', '20 Hz - 20 kHz', '20 to 20,000 Hz', '20…20 000 Hz, ±1 dB'])(
  'reads both ends of %s',
  (range) => {
    const { found } = read(`Frequency range: ${range}`);
    expect(found['responseLow3']).toMatch(/^20 Hz/);
    expect(found['responseHigh3']).toMatch(/^(?:20000 Hz|20 kHz)/);
  },
);

it('takes no range that is empty: a point before three digits may be one for thousands', () => {
  const { found, left } = read('Frequency range: 20 – 20.000 Hz');
  expect(found).toEqual({});
  expect(left[0].why).toMatch(/^20 Hz is outside; a number from 1000 to 200000 Hz/);
  expect(read('Frequency range: 1 kHz – 1 kHz').left[0].why).toBe(
    'the upper end of this range is not above its lower one',
  );
});

it('puts a noise figure where its weighting says, and nowhere where it does not', () => {
  expect(read('EIN: -128 dBu A-weighted, 150 Ω', 'interface').found).toEqual({ einA: '−128 dBu, A-weighted, 150 Ω' });
  expect(read('E.I.N.: −125 dBu (unweighted)', 'interface').left[0].why).toBe('');
  expect(read('Equivalent input noise: −125 dBu (unweighted)', 'interface').found).toEqual({
    einZ: '−125 dBu, unweighted',
  });
  const unsaid = read('EIN: -128 dBu', 'interface');
  expect(unsaid.found).toEqual({});
  expect(unsaid.left[0].why).toMatch(/weighting is not said/);
});

it('says why a line was not understood whose field is known, and takes the first of two', () => {
  const { found, left } = read('Weight: heavy\nSensitivity: 10 mV/Pa\nSensitivity: 12 mV/Pa');
  expect(found).toEqual({ sensitivity: '10 mV/Pa' });
  expect(left.map((l) => l.why)).toEqual([
    expect.stringMatching(/begins with no number/),
    'this field has been read already',
  ]);
});

it('sensitivities of headphones go to the field of their unit', () => {
  const { read: lines } = readDataSheet('Sensitivity: 101 dB SPL/V\nImpedance: 32 Ω', gearKind('headphones').sheet);
  expect(lines.map((l) => l.field.id)).toEqual(['sensitivityPerVoltage', 'impedance']);
});
