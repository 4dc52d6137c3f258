import { expect, it } from 'vitest';
import { readNumber } from '#core/text/read-number';
import { cellSheet } from './cell-sheet';

const read = (text: string, unit: string) => {
  const reading = readNumber(text, cellSheet({ unit }));
  return reading.isUnderstood ? reading.value : reading.why;
};

it.each([
  ['1.2 kΩ', 'Ω', 1200],
  ['47 kOhm', 'Ω', 47_000],
  ['32', 'Ω', 32],
  ['0.0131 s', 'ms', 13.1],
  ['250 µs', 'ms', 0.25],
  ['250 \u03bcs', 'ms', 0.25],
  ['1.2 k\u2126', 'Ω', 1200],
  ['775 mV', 'V', 0.775],
  ['1.5 h', 'min', 90],
  ['90 s', 'min', 1.5],
  ['−12 dBFS', 'dBFS', -12],
  ['3', '', 3],
])('%s in a table of %s is %d', (text, unit, value) => {
  expect(read(text, unit)).toBeCloseTo(value, 12);
});

it('refuses another unit, and says which it takes', () => {
  expect(read('3 dB', 'ms')).toMatch(/“dB” is not a unit of this field.*ms, s/);
  expect(read('3 dB', 'dBFS')).toMatch(/a number \(dBFS\) is taken/);
  expect(read('3 ms', '')).toMatch(/is not a unit/);
});
