import { describe, expect, it } from 'vitest';
import { directLatency, latencyBuffers, latencyCells, latencyFigure, outputLatency } from './latency-figures';

const cell = (row: string, column: string, value: number) => ({ row, column, value });
const table = (row: string, byColumn: Record<string, number>) => ({ cells: Object.entries(byColumn).map(([column, value]) => cell(row, column, value)) }); // prettier-ignore

describe('latency beyond the buffers', () => {
  // Facts of the trade (common practice, no source): two devices at 48 kHz with 64, 128 and 256 samples.
  it.each([
    [{ '64': 13, '128': 15.5, '256': 21 }, 10.2],
    [{ '64': 9, '128': 11.5, '256': 17 }, 6.3],
  ])('is the same for every buffer of a published table, within 0.4 ms: %o', (byBuffer, fixed) => {
    const cells = latencyCells(table('48 kHz', byBuffer), 2);
    for (const c of cells) expect(Math.abs(c.restMs - fixed)).toBeLessThan(0.4);
    expect(cells.some((c) => c.isOdd)).toBe(false);
    const [found] = latencyFigure(table('48 kHz', byBuffer), 'latency');
    expect(Math.abs((found.value ?? NaN) - fixed)).toBeLessThan(0.2);
    expect(found.uncertainty).toBeGreaterThan(0);
  });

  it('marks the cell that does not fit, and leaves it out', () => {
    const odd = table('48 kHz', { '64': 5, '128': 7.7, '256': 22, '512': 23.7 });
    expect(latencyCells(odd, 2).map((c) => c.isOdd)).toEqual([false, false, true, false]);
    expect(latencyFigure(odd, 'latency')[0].condition).toContain('left out as implausible: 256');
    expect(latencyFigure(odd, 'latency')[0].value).toBeCloseTo(5 - 128 / 48, 1);
  });

  it('reads rates in kHz and in Hz, and takes the rate with most cells', () => {
    const cells = [
      ...table('96000', { '64': 3, '128': 4.33 }).cells,
      ...table('44.1 kHz', { '64': 6, '128': 8.9, '256': 14.7 }).cells,
    ];
    expect(latencyCells({ cells }, 2)[0].restMs).toBeCloseTo(3 - 128 / 96, 6);
    expect(latencyFigure({ cells }, 'latency')[0].condition).toMatch(/at 44\.1 kHz, median of 3 buffers/);
  });

  it('is refused where the table cannot be round trips', () => {
    expect(latencyFigure(table('48 kHz', { '512': 11, '1024': 22 }), 'latency')[0].notMeasured).toMatch(
      /shorter than its buffers/,
    );
    expect(
      latencyFigure(table('48 kHz', { '64': 9, '128': 30, '256': 17, '512': 90 }), 'latency')[0].notMeasured,
    ).toMatch(/go together/);
    expect(latencyFigure(table('fast', { '64': 3 }), 'latency')).toEqual([]);
  });
});

describe('latency of the output beyond its buffer', () => {
  // Facts of the trade (common practice, no source): outputs of the same two devices.
  const [first, second] = [
    { '64': 2.5, '128': 3.7, '256': 6.5 },
    { '64': 4.5, '128': 5.7, '256': 8.5 },
  ];

  it.each([
    [first, 1.1],
    [second, 3.1],
  ])('is the same for every buffer of a published table, within 0.2 ms: %o', (byBuffer, fixed) => {
    for (const c of latencyCells(table('48 kHz', byBuffer), 1)) expect(Math.abs(c.restMs - fixed)).toBeLessThan(0.2);
    const [found] = outputLatency(table('48 kHz', byBuffer), undefined);
    expect(found.quantity).toBe('latencyOutput');
    expect(Math.abs((found.value ?? NaN) - fixed)).toBeLessThan(0.15);
    expect(found.condition).toContain('output minus one buffer at 48 kHz, median of 3 buffers');
  });

  it('goes with the round trips that it is a part of, and is refused where it is longer', () => {
    const [plain] = outputLatency(table('48 kHz', second), undefined);
    expect(outputLatency(table('48 kHz', second), table('48 kHz', { '64': 9, '128': 11.5, '256': 17 }))).toEqual([
      plain,
    ]);
    const [refused] = outputLatency(table('48 kHz', second), table('48 kHz', { '64': 9, '128': 5.6, '256': 8.5 }));
    expect(refused.value).toBeNull();
    expect(refused.notMeasured).toContain('longer than the round trip that it is a part of: 48 kHz / 128.');
    // Of other rates nothing is known.
    expect(outputLatency(table('48 kHz', second), table('96 kHz', { '128': 1 }))).toEqual([plain]);
  });

  it('is refused where it would come before its buffer, or grows otherwise', () => {
    expect(outputLatency(table('48 kHz', { '512': 5, '1024': 11 }), undefined)[0].notMeasured).toContain(
      'before its buffer',
    );
    const uneven = table('48 kHz', { '64': 3, '128': 12, '256': 8, '512': 40 });
    expect(outputLatency(uneven, undefined)[0].notMeasured).toContain('grows by one buffer');
  });
});

it('tables of latencies are known by the role of their step', () => {
  expect(['latency', 'latency-output', 'latency-direct', 'dial'].map(latencyBuffers)).toEqual([2, 1, null, null]);
  expect(latencyFigure(table('48 kHz', { '64': 9 }), 'dial')).toEqual([]);
});

it('the direct monitor has one latency, which cannot be less than none', () => {
  expect(directLatency({ cells: [] })).toEqual([]);
  expect(directLatency({ cells: [cell('analogue', 'delay', 0)] })[0]).toMatchObject({
    quantity: 'latencyDirect',
    value: 0,
  });
  const [through] = directLatency({ cells: [cell('through its mixer', 'delay', 1.4)] });
  expect(through).toMatchObject({ value: 1.4, condition: 'from the input to the headphones, through its mixer' });
  expect(directLatency({ cells: [cell('analogue', 'delay', -1)] })[0].notMeasured).toContain('before it is sung');
  const both = directLatency({ cells: [cell('analogue', 'delay', 0.1), cell('through its mixer', 'delay', 1.4)] });
  expect(both.map((m) => [m.value, m.condition])).toEqual([
    [1.4, 'from the input to the headphones, through its mixer; the longest of 2'],
  ]);
});
