import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { evenly } from '../../testing/evenly';
import { rangeWalk } from './range-walk';

const drop = (startS: number, lengthS = 0.02) => ({ kind: 'gap', startS, lengthS }) as const;
const table = (...cells: [row: string, value: number][]) => ({ cells: cells.map(([row, value]) => ({ row, column: 'passed at', value })) }); // prettier-ignore
const WALK = table(['10 m', 10], ['30 m', 25], ['60 m', 55], ['100 m', 95]);
const figure = (id: string, drops: Parameters<typeof rangeWalk>[0], of = WALK) => rangeWalk(drops, of).measurements.find((m) => m.quantity === id); // prettier-ignore

describe('a walk away from the receiver', () => {
  it('the first hole lies between two marks, by the pace between them', () => {
    // 20 m in 15 s from 10 m on: 8 s after that mark it is 10 + 8 · 4/3.
    const first = figure('linkFirst', [drop(18), drop(60)]);
    expect(first?.value).toBeCloseTo(10 + (8 * 20) / 15, 9);
    // A distance is noted to a second: so far one walks in one.
    expect(first?.uncertainty).toBeCloseTo(20 / 15, 9);
    expect(first?.condition).toBe('walked away to 100 m in 95 s, first hole of 5 ms or more');
    // Before the first mark one walks from the receiver, which is 0 m.
    expect(figure('linkFirst', [drop(5)])?.value).toBeCloseTo(5, 9);
  });

  it('it is lost where half a second is missing within five: not with a hole here and there', () => {
    const here = [10, 20, 30, 40, 50, 60].map((s) => drop(s, 0.1));
    expect(figure('linkLost', here)).toMatchObject({ value: 100, bound: 'at-least' });
    const dense = [...here, ...[62, 63, 64, 65].map((s) => drop(s, 0.1))].sort((a, b) => a.startS - b.startS);
    // 60, 62, 63, 64 and, within five seconds of 60, 65 is out: five tenths are reached at 64 with 0.4 and at 65 with 62–65 alone.
    expect(figure('linkLost', dense)?.bound).toBe('at-least');
    const lost = [...dense, drop(65.5, 0.1)];
    // 62, 63, 64, 65 and 65.5: half a second at 65.5 s, that is 60 m and 10.5 s of one metre each.
    expect(figure('linkLost', lost)?.value).toBeCloseTo(70.5, 9);
    expect(figure('linkLost', [drop(20, 0.6)])?.value).toBeCloseTo(10 + (10 * 20) / 15, 9);
  });

  it('without a hole the farthest mark is a limit; what happens on the way back is not counted', () => {
    for (const id of ['linkFirst', 'linkLost']) expect(figure(id, [drop(96, 2)])).toMatchObject({ value: 100, bound: 'at-least', uncertainty: null }); // prettier-ignore
  });

  it('holes are counted from mark to mark, none twice and none between', () => {
    fc.assert(
      fc.property(fc.array(evenly(0.1, 95), { maxLength: 30 }), (at) => {
        const drops = [...at].sort((a, b) => a - b).map((s) => drop(s));
        const { holes } = rangeWalk(drops, WALK);
        expect(holes?.map((h) => [h.fromM, h.toM])).toEqual([[0, 10], [10, 30], [30, 60], [60, 100]]); // prettier-ignore
        expect(holes?.reduce((sum, h) => sum + h.count, 0)).toBe(drops.length);
        expect(holes?.reduce((sum, h) => sum + h.lostMs, 0)).toBeCloseTo(20 * drops.length, 6);
      }),
    );
  });

  it('a beginning that is noted is where it begins, in whatever order the rows are', () => {
    const late = table(['20 m', 30], ['0 m', 10]);
    expect(figure('linkFirst', [drop(20)], late)?.value).toBeCloseTo(10, 9);
    expect(figure('linkFirst', [drop(5), drop(20)], late)?.value).toBeCloseTo(10, 9);
  });

  it('a table that does not go out is told, and one that says nothing gives nothing', () => {
    expect(figure('linkFirst', [drop(5)], table(['10 m', 10], ['20 m', 8]))?.notMeasured).toBe('20 m is noted at 8 s, not after 10 m: the table is of the way out.'); // prettier-ignore
    expect(figure('linkLost', [], table(['0 m', 0]))?.notMeasured).toMatch(/Only the beginning/);
    expect(rangeWalk([drop(1)], table())).toEqual({ measurements: [], holes: null });
    expect(rangeWalk([drop(1)], table(['far away', 3]))).toEqual({ measurements: [], holes: null });
  });
});
