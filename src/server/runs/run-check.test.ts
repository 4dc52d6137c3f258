import { describe, expect, it } from 'vitest';
import { protocolSchema } from '#contracts/protocol';
import { checkRunDocument } from './run-check';

const table = { rowName: 'Rate', rows: ['48 kHz', '96 kHz'], columnName: 'Buffer', columns: ['64'], cell: 'round trip', unit: 'ms' }; // prettier-ignore
const protocol = protocolSchema.parse({
  ...{ id: 'inputs', version: 1, name: 'Inputs', category: 'interface' },
  steps: [
    { id: 'speech', title: 'Speech', instruction: 'Speak.' },
    { id: 'latency', title: 'Latency', instruction: 'Type it in.', play: { kind: 'table' }, table },
  ],
});
const cell = (row: string, column = '64') => ({ row, column, value: 5, source: 'typed' });
const check = (tables: unknown[], further: object = {}) =>
  checkRunDocument(
    {
      format: 'sediment-run/1',
      specimen: { maker: 'Oarlock', model: 'Sluice', label: 'A', category: 'interface' },
      ...{ date: '2026-05-02', protocol: 'inputs', protocolVersion: 1, source: 'own', takes: [], tables, ...further },
    },
    { protocols: [protocol], rubricOf: () => null },
  );

describe('tables of a run', () => {
  it('are taken where the protocol has them', () => {
    const { document, problems } = check([{ step: 'latency', cells: [cell('48 kHz'), cell('96 kHz')] }]);
    expect(problems).toEqual([]);
    expect(document?.tables[0].cells).toHaveLength(2);
  });

  it('are refused cell by cell where it has no such cell', () => {
    const { document, problems } = check([{ step: 'latency', cells: [cell('48 kHz'), cell('8 kHz'), cell('48 kHz')] }]);
    expect(document).toBeNull();
    expect(problems.map((p) => p.field)).toEqual(['tables[0].cells[1]', 'tables[0].cells[2]']);
    expect(problems[0].message).toContain('no row “8 kHz”; its rows: 48 kHz, 96 kHz');
  });

  it('are refused at a step that is recorded, at one that is not there, and twice', () => {
    const recorded = check([{ step: 'speech', cells: [] }]).problems;
    expect(recorded).toEqual([
      { file: 'run.json', field: 'tables[0].step', message: '"speech" is no step with a table; those are: latency' },
    ]);
    expect(check([{ step: 'nowhere', cells: [] }]).problems[0].field).toBe('tables[0].step');
    const twice = check([
      { step: 'latency', cells: [cell('48 kHz')] },
      { step: 'latency', cells: [] },
    ]).problems;
    expect(twice.map((p) => [p.field, p.message])).toEqual([['tables[1].step', '"latency" is named twice']]);
  });

  it('say nothing of their own where the protocol is not known', () => {
    const { problems } = check([{ step: 'latency', cells: [cell('8 kHz')] }], { protocolVersion: 2 });
    expect(problems.map((p) => p.field)).toEqual(['protocolVersion']);
  });
});
