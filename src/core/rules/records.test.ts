import { expect, it } from 'vitest';
import type { UnitFacts } from './criterion-points';
import { recordsOf } from './records';

const unit = (
  id: string,
  noise: number | null,
  rejection?: number,
  bound: 'exact' | 'at-least' = 'exact',
): UnitFacts => ({
  id,
  byHand: {},
  prices: [],
  figures: {
    noiseReSpeechA: { value: noise, uncertainty: 0.3, between: 0.4, bound: 'exact', notMeasured: null },
    ...(rejection === undefined ? {} : { rearRejection: { value: rejection, uncertainty: 0.5, bound, notMeasured: null } }), // prettier-ignore
    // No way is better, so there is no record.
    sensitivity: { value: 10, uncertainty: 0.1, bound: 'exact', notMeasured: null },
  },
});
const DAYS = new Map([['d', '2022-01-01'], ['a', '2019-01-01'], ['b', '2020-01-01'], ['c', '2021-01-01'], ['e', '2023-01-01']]); // prettier-ignore

// By hand: −60, then −65 (a record), −64.5 (none), −66 (by 1 dB: within 2·√(0.5² + 0.5²) = 1.41), none measured.
it('goes by the day of the first test; a record within the uncertainty of both is one with doubt', () => {
  const units = [
    unit('d', -66, 20, 'at-least'),
    unit('b', -65, 8),
    unit('e', null, 12),
    unit('a', -60),
    unit('c', -64.5),
  ];
  const [noise, rejection, ...others] = recordsOf([...units, unit('undated', -99)], DAYS);
  expect(others).toEqual([]);
  expect(noise.quantity).toBe('noiseReSpeechA');
  expect(noise.steps.map((s) => [s.unit, s.day, s.value, s.isBeyondDoubt])).toEqual([
    ['a', '2019-01-01', -60, true],
    ['b', '2020-01-01', -65, true],
    ['d', '2022-01-01', -66, false],
  ]);
  expect(noise.steps[0].spread).toBeCloseTo(0.5, 12);
  // 1 dB behind is a tie, 1.5 is not.
  expect(noise.ties).toEqual(['b']);
  // Higher is better; a limit holds no record.
  expect(rejection.steps.map((s) => s.unit)).toEqual(['b', 'e']);
});

it('has none where nothing was measured', () => {
  expect(recordsOf([], DAYS)).toEqual([]);
});
