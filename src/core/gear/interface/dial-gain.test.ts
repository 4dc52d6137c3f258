import { describe, expect, it } from 'vitest';
import type { AnalysedTake } from '../run/analysed-take';
import { gainDifferenceU, GAIN_UNCERTAINTY_DB } from '../run/gained-take';
import { dialTravel, gainAtDial, withDialGains } from './dial-gain';

// A taper as the trade knows it: even over most of its travel, 20 dB in the last 15 % (common practice, no source).
const TABLE = { cells: [['0 %', 10], ['50 %', 30], ['85 %', 44], ['100 %', 64]].map(([row, value]) => ({ row: String(row), column: 'dB', value: Number(value) })) }; // prettier-ignore
const take = (gainDb: number | null, dial: string | null): AnalysedTake => ({ role: 'terminated', gainDb, dial }) as AnalysedTake; // prettier-ignore

describe('a dial that was measured', () => {
  it.each([
    ['50 %', 50],
    ['noon', 50],
    ['3 o’clock', 80],
    ["7 o'clock", 0],
    ['7 of 10', 70],
    ['max', 100],
    ['7', null],
    ['120 %', null],
    ['a lot', null],
  ])('%s stands at %s per cent', (place, travel) => expect(dialTravel(place)).toBe(travel));

  it('gives decibels between places on the line, and is unsure by its slope there', () => {
    expect(gainAtDial(TABLE, '25 %')).toEqual({ db: 20, u: 2 * 0.4 });
    // 20 dB in 15 %: two per cent off are 2.7 dB.
    expect(gainAtDial(TABLE, '90 %')?.db).toBeCloseTo(44 + 20 / 3, 12);
    expect(gainAtDial(TABLE, '90 %')?.u).toBeCloseTo(8 / 3, 12);
    expect(gainAtDial(TABLE, 'max')).toEqual({ db: 64, u: 2 * (20 / 15) });
    // The steeper side counts, whichever it is.
    const steepBefore = { cells: [['0 %', 10], ['50 %', 60], ['100 %', 65]].map(([row, value]) => ({ row: String(row), column: 'dB', value: Number(value) })) }; // prettier-ignore
    expect(gainAtDial(steepBefore, '50 %')).toEqual({ db: 60, u: 2 });
    expect(gainAtDial(TABLE, '7')).toBeNull();
    expect(gainAtDial({ cells: TABLE.cells.slice(1) }, '10 %')).toBeNull();
  });

  it('ties its table to decibels that were noted beside a place, and is left alone where nothing ties them', () => {
    const gains = (...takes: AnalysedTake[]) => withDialGains(takes, TABLE).map((t) => t.gainDb);
    expect(gains(take(null, '50 %'), take(null, 'max'))).toEqual([30, 64]);
    expect(gains(take(20, '50 %'), take(null, 'max'))).toEqual([20, 54]);
    expect(gains(take(20, null), take(null, 'max'))).toEqual([20, null]);
    expect(gains(take(null, 'automatic'), take(null, 'noon'))).toEqual([null, 30]);
    expect(withDialGains([take(null, 'noon')], undefined)[0].gainDb).toBeNull();
  });

  it('makes differences as unsure as its places are', () => {
    const [noon, most] = withDialGains([take(null, '50 %'), take(null, 'max')], TABLE);
    expect(gainDifferenceU(noon, most)).toBeCloseTo(Math.hypot(GAIN_UNCERTAINTY_DB, 0.8, 8 / 3), 12);
    expect(gainDifferenceU(noon, noon)).toBe(0);
  });
});
