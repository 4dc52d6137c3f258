import { expect, it } from 'vitest';
import { cellFacts, sheetFacts, unitClasses, type SheetRow } from './sheet-facts';

const ROWS: readonly SheetRow[] = [
  { field: 'mostInput', value: { type: 'number', value: 0, unit: 'dBV', condition: '' } },
  { field: 'phantom', value: { type: 'yes-no', yes: false } },
  { field: 'connection', value: { type: 'words', words: ['USB-C'] } },
  { field: 'origin', value: { type: 'text', text: 'a harbour town' } },
  { field: 'sensitivity', value: { type: 'number', value: 4, unit: 'mV/Pa', condition: '' } },
];

it('a sheet is compared in the units of its fields; texts, and fields of another kind, compare with nothing', () => {
  const facts = sheetFacts('interface', ROWS);
  expect(facts['mostInput']).toBeCloseTo(2.2185, 3);
  expect(Object.keys(facts)).toEqual(['mostInput', 'phantom', 'connection']);
  expect(facts).toMatchObject({ phantom: false, connection: ['USB-C'] });
  // In a unit that its field does not know, a number is none.
  expect(sheetFacts('interface', [{ field: 'mostInput', value: { type: 'number', value: 3, unit: 'furlongs', condition: '' } }])).toEqual({}); // prettier-ignore
});

it('classes are those of the fields that divide the kind', () => {
  expect(unitClasses('interface', ROWS)).toEqual({ connection: ['USB-C'], phantom: ['no'] });
});

it('of a cell that several tables have, the newest counts', () => {
  const cell = (value: number) => ({ row: '48 kHz', column: '64', value, source: 'typed' as const, clip: null });
  const table = (...cells: ReturnType<typeof cell>[]) => ({ protocol: 'input-stage', step: 'latency', cells });
  expect(cellFacts([table(cell(7)), table(cell(9), { ...cell(3), column: '32' })])).toEqual({
    'input-stage/latency/48 kHz/64': 7,
    'input-stage/latency/48 kHz/32': 3,
  });
});
