import type { NumberSheet } from '#core/text/read-number';
import type { StepTable } from './step-table';

/** How people write the units of tables otherwise, each as how many of the table's own one of it is. */
const FURTHER: Readonly<Record<string, Readonly<Record<string, number>>>> = {
  Ω: { ohm: 1, kΩ: 1000, kohm: 1000 },
  V: { mV: 0.001 },
  ms: { s: 1000, µs: 0.001, us: 0.001 },
  s: { ms: 0.001, min: 60 },
  min: { s: 1 / 60, h: 60 },
};

/**
 * What a cell of a table takes, whether it is typed, pasted or read from a file: a number, with its unit or without.
 *
 * @param table - of a step
 */
export function cellSheet({ unit }: Pick<StepTable, 'unit'>): NumberSheet {
  // Shown as a bare number: the unit stands above the table.
  return { unit: '', units: unit === '' ? {} : { [unit]: 1, ...FURTHER[unit] } };
}
