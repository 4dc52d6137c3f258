import { describe, expect, it } from 'vitest';
import { stepSchema } from '#contracts/protocol';
import { documentOf, emptyDraft, isUnderWay, whatIsMissing } from './draft';
import { cellsAt, filledWords, sortedTables, tableSteps, withTable } from './draft-tables';

const table = { rowName: 'Rate', rows: ['48 kHz', '96 kHz'], columnName: 'Buffer', columns: ['64', '128'], cell: 'round trip', unit: 'ms' }; // prettier-ignore
const steps = [
  stepSchema.parse({ id: 'speech', title: 'Speech', instruction: 'Speak.' }),
  stepSchema.parse({ id: 'latency', title: 'Latency', instruction: 'Type it in.', table }),
];
const cell = (row: string, column = '64', value = 5) => ({ row, column, value, source: 'typed' as const, clip: null });
const named = {
  ...emptyDraft(),
  maker: 'Oarlock',
  model: 'Sluice',
  label: 'A',
  protocol: 'inputs',
  protocolVersion: 1,
};

describe('tables of a draft', () => {
  it('are those of the steps that are filled in', () => {
    expect(tableSteps(steps).map((t) => t.step.id)).toEqual(['latency']);
  });

  it('hold what was typed last, each its own; an empty one is none', () => {
    const one = withTable([], 'latency', [cell('48 kHz')]);
    const two = withTable(one, 'dial', [cell('50 %')]);
    expect(cellsAt(two, 'latency')).toEqual([cell('48 kHz')]);
    expect(cellsAt(two, 'level')).toEqual([]);
    expect(withTable(two, 'dial', []).map((t) => t.step)).toEqual(['latency']);
    expect(cellsAt(withTable(two, 'latency', [cell('96 kHz')]), 'latency')).toEqual([cell('96 kHz')]);
  });

  it('say how far they are filled in', () => {
    const [{ table: asked }] = tableSteps(steps);
    expect(filledWords(asked, [])).toBe('not filled in');
    expect(filledWords(asked, [cell('48 kHz')])).toBe('1 of 4 cells filled in');
    const all = ['48 kHz', '96 kHz'].flatMap((row) => ['64', '128'].map((column) => cell(row, column)));
    expect(filledWords(asked, all)).toBe('all of 4 cells filled in');
  });

  it('that the protocol does not have wait for their own', () => {
    const tables = [
      { step: 'latency', cells: [cell('48 kHz')] },
      { step: 'impedance', cells: [cell('1 kHz')] },
    ];
    expect(sortedTables(tables, steps)).toEqual({ fitting: [tables[0]], strange: ['impedance'] });
    const otherCells = [{ step: 'latency', cells: [cell('48 kHz'), cell('8 kHz')] }];
    expect(sortedTables(otherCells, steps)).toEqual({ fitting: [], strange: ['latency'] });
  });

  it('make a run without recordings, once one of them holds something that the protocol asks for', () => {
    expect(whatIsMissing(named, steps)).toEqual(['at least one file with its step, or a table']);
    const filled = { ...named, tables: withTable([], 'latency', [cell('48 kHz')]) };
    expect(whatIsMissing(filled, steps)).toEqual([]);
    expect(whatIsMissing({ ...named, tables: withTable([], 'dial', [cell('50 %')]) }, steps)).not.toEqual([]);
    expect(documentOf(filled)).toMatchObject({ takes: [], tables: [{ step: 'latency', cells: [cell('48 kHz')] }] });
  });
});

it('a run is under way with files, with tables, or once somebody begins one without recordings', () => {
  const none = { files: [], tables: [], isBegun: false };
  expect(isUnderWay(none)).toBe(false);
  expect(isUnderWay({ ...none, isBegun: true })).toBe(true);
  expect(isUnderWay({ ...none, tables: [{ step: 'latency', cells: [cell('48 kHz')] }] })).toBe(true);
});
