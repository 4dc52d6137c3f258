import { expect, it } from 'vitest';
import { cellKey, criterionPoints, type UnitFacts } from './criterion-points';
import type { Criterion } from './rubric';

const unit = (change: Partial<UnitFacts>): UnitFacts => ({ id: '1', figures: {}, byHand: {}, prices: [], ...change });
const BASE = { id: 'c', name: 'C', meaning: 'm' } as const;

it('a number of the sheet goes through the curve', () => {
  const weight: Criterion = { ...BASE, kind: 'sheet-number', field: 'weight', curve: [[100, 5], [300, 3]] }; // prettier-ignore
  expect(criterionPoints(weight, unit({ sheet: { weight: 200 } }))).toMatchObject({
    points: 4,
    scatter: { kind: 'none' },
  });
  expect(criterionPoints(weight, unit({ sheet: { weight: ['heavy'] } })).points).toBeNull();
  expect(criterionPoints(weight, unit({})).why).toBe('not noted in the sheet');
});

it('of several words the best counts; yes and no are words as well', () => {
  const by: Criterion = { ...BASE, kind: 'sheet-word', field: 'connection', points: { XLR: 4, USB: 3, no: 1 }, otherwise: 2 }; // prettier-ignore
  const of = (connection: boolean | readonly string[]) => criterionPoints(by, unit({ sheet: { connection } }));
  expect(of(['USB', 'XLR'])).toMatchObject({ points: 4, why: 'XLR, by the data sheet' });
  expect(of(['semaphore']).points).toBe(2);
  expect(of(false).points).toBe(1);
  expect(criterionPoints(by, unit({ sheet: { connection: 3 } })).points).toBeNull();
});

it('features are counted; what the sheet does not say makes the count less sure', () => {
  const features: Criterion = {
    ...BASE,
    kind: 'features',
    features: [
      { field: 'loopback', is: null },
      { field: 'instrumentInputs', is: null },
      { field: 'rates', is: '192 kHz' },
    ],
    curve: [[0, 1], [3, 4]], // prettier-ignore
  };
  const of = (sheet: UnitFacts['sheet']) => criterionPoints(features, unit({ sheet }));
  expect(of({ loopback: true, instrumentInputs: 2, rates: ['48 kHz', '192 kHz'] })).toMatchObject({ points: 4, why: '3 of 3', scatter: { kind: 'none' } }); // prettier-ignore
  expect(of({ loopback: false, instrumentInputs: 0, rates: ['48 kHz'] })).toMatchObject({ points: 1, why: '0 of 3' });
  // One is there, two may be: 2, 3 or 4 points, each as likely.
  const unsure = of({ loopback: true });
  expect(unsure.points).toBeCloseTo(3, 12);
  expect(unsure.why).toBe('1 of 3, 2 not noted');
  expect(unsure.scatter).toEqual({ kind: 'points', sd: Math.sqrt(2 / 3) });
  expect(of({ weight: 3 }).points).toBeNull();
});

it('a cell of a table goes through the curve, with what filling in again differs by', () => {
  const at = { protocol: 'input-stage', step: 'latency', row: '48 kHz', column: '64' };
  const wait: Criterion = { ...BASE, kind: 'table', ...at, curve: [[4, 5], [8, 3]], repeatability: 0.2 }; // prettier-ignore
  expect(cellKey(at)).toBe('input-stage/latency/48 kHz/64');
  expect(criterionPoints(wait, unit({ cells: { [cellKey(at)]: 6 } }))).toMatchObject({
    points: 4,
    scatter: { kind: 'figure', value: 6, sd: 0.2 },
  });
  expect(criterionPoints(wait, unit({ cells: { [cellKey({ ...at, column: '128' })]: 6 } })).points).toBeNull();
});
