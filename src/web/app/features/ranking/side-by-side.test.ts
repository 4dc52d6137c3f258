import { describe, expect, it } from 'vitest';
import { protocolSchema } from '#contracts/protocol';
import inputStage from '../../../../server/seed/protocol-input-stage-5.json' with { type: 'json' };
import { readTables, sideBySide } from './side-by-side';

const protocol = protocolSchema.parse(inputStage);
const latency = (cells: Readonly<Record<string, number>>) => Object.fromEntries(Object.entries(cells).map(([at, ms]) => [`input-stage/latency/${at}`, ms])); // prettier-ignore
const named = (id: string): string => `unit ${id}`;

describe('tables side by side', () => {
  // 48 kHz: two buffers of 64 take 2.67 ms, of 128 5.33 ms, of 256 10.67 ms.
  const quick = { id: '1', cells: latency({ '48 kHz/64': 7.7, '48 kHz/128': 10.3, '48 kHz/256': 15.7 }) };
  const slow = { id: '2', cells: latency({ '48 kHz/64': 13, '48 kHz/128': 15.6, '48 kHz/256': 25, '48 kHz/512': 31.6 }) }; // prettier-ignore
  const none = { id: '3', cells: {} };

  it('are those that any unit has, with the words of their newest protocol, in the order of its steps', () => {
    expect(readTables([none], [protocol])).toEqual([]);
    const dial = { id: '4', cells: { 'input-stage/dial/85 %/level': -40 } };
    const older = { ...protocol, version: 1, steps: protocol.steps.map((s) => (s.id === 'latency' ? { ...s, title: 'Old' } : s)) }; // prettier-ignore
    expect(readTables([quick, dial], [protocol, older])).toEqual([
      { key: 'input-stage/dial', title: 'Gain by dial position', unit: 'dBFS', role: 'dial' },
      { key: 'input-stage/latency', title: 'Latency by rate and buffer', unit: 'ms', role: 'latency' },
    ]);
  });

  it('put units beside each other cell by cell; what was not read is missing, and a unit without it is not there', () => {
    const [table] = readTables([quick], [protocol]);
    const side = sideBySide(table, [none, slow, quick], named);
    expect(side.units.map((u) => u.name)).toEqual(['unit 2', 'unit 1']);
    expect(side.rows.map((r) => [r.label, ...r.cells.map((c) => c.value)])).toEqual([
      ['48 kHz, 64', 13, 7.7],
      ['48 kHz, 128', 15.6, 10.3],
      ['48 kHz, 256', 25, 15.7],
      ['48 kHz, 512', 31.6, null],
    ]);
  });

  it('mark a latency that does not grow by two buffers, and say what lies beyond them', () => {
    const [table] = readTables([quick], [protocol]);
    const side = sideBySide(table, [slow, quick], named);
    expect(side.rows.flatMap((r) => r.cells.map((c, i) => (c.isOdd ? `${r.label} of ${i}` : []))).flat()).toEqual(['48 kHz, 256 of 0']); // prettier-ignore
    expect(side.beyondBuffers?.map((m) => m?.value?.toFixed(1))).toEqual(['10.3', '5.0']);
    const dial = sideBySide({ ...table, key: 'input-stage/dial', role: 'dial' }, [{ id: '4', cells: { 'input-stage/dial/85 %/level': -40 } }], named); // prettier-ignore
    expect([dial.beyondBuffers, dial.rows[0].label, dial.decimals]).toEqual([null, '85 %', 0]);
    expect(side.decimals).toBe(1);
  });
});
