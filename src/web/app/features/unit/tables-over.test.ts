import { expect, it } from 'vitest';
import { curvesSchema } from '#contracts/curves';
import { tablesOver } from './tables-over';

const curves = (change: object) => curvesSchema.parse(change);

it('a run without such curves has no such tables', () => {
  expect(tablesOver(curves({}))).toEqual([]);
});

it('what was varied stands above each figure, with unit, limit and spread', () => {
  const [level] = tablesOver(curves({ distortionByLevel: [
    { levelDbfs: -40, thdPlusNoiseDb: -60.2, thdPlusNoiseU: 0.1, thdDb: -80, thdU: null, thdBound: 'at-most' },
    { levelDbfs: -1, thdPlusNoiseDb: -95, thdPlusNoiseU: 0.1, thdDb: -99, thdU: 0.2, thdBound: 'exact' },
  ] })); // prettier-ignore
  expect(level.columns).toEqual(['−40.0 dBFS', '−1.0 dBFS']);
  expect(level.rows[1]).toMatchObject({ quantity: 'thdTone', cells: [{ value: -80, bound: 'at-most' }, { value: -99, uncertainty: 0.2, bound: 'exact' }] }); // prettier-ignore
  const [wind] = tablesOver(curves({ windBySpeed: [{ speedMs: 4.5, lowDb: null, aDb: -12, bound: 'at-most' }] }));
  expect([wind.columns, wind.rows[1].cells]).toEqual([['4.5 m/s'], [{ value: null, bound: 'at-most' }]]);
});

it('stretches of a walk are named from where to where', () => {
  const [link] = tablesOver(curves({ holesByDistance: [{ fromM: 0, toM: 10, count: 0, lostMs: 0 }, { fromM: 10, toM: 75, count: 3, lostMs: 60 }] })); // prettier-ignore
  expect([link.columns, link.rows[0].cells]).toEqual([
    ['0–10 m', '10–75 m'],
    [{ value: 0 }, { value: 3 }],
  ]);
});

it('a row of which nothing was recorded is not there', () => {
  const point = (hz: number, balanceDb: number | null) => ({
    hz,
    crosstalkDb: -90,
    crosstalkBound: 'exact',
    balanceDb,
  });
  const rows = (...points: object[]) => tablesOver(curves({ channelsByFrequency: points }))[0].rows.map((r) => r.name); // prettier-ignore
  expect(rows(point(100, null), point(1000, null))).toEqual(['Crosstalk']);
  expect(rows(point(100, null), point(1000, 0.1))).toEqual(['Crosstalk', 'Second channel re the first']);
  expect(tablesOver(curves({ channelsByFrequency: [point(100, 0), point(10_000, 0)] }))[0].columns).toEqual(['100 Hz', '10.0 kHz']); // prettier-ignore
});
