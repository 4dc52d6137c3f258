import { expect, it } from 'vitest';
import type { UnitFacts } from './criterion-points';
import { priceFrontier } from './price-frontier';
import type { Rubric } from './rubric';

const RUBRIC: Rubric = {
  id: 'r',
  version: 1,
  name: 'R',
  category: 'microphone',
  criteria: [
    { id: 'sound', name: 'Sound', meaning: 'm', kind: 'by-hand', repeatability: 0.1 },
    { id: 'value', name: 'Value', meaning: 'm', kind: 'price', currency: 'EUR', basis: ['street'], curve: [[10, 5], [1000, 0]], limit: null }, // prettier-ignore
  ],
  weights: { sound: 1, value: 5 },
  stratumProbability: 0.9,
};
const unit = (id: string, sound: number, amount: number | null): UnitFacts => ({
  id,
  figures: {},
  byHand: { sound: { value: sound, reason: null } },
  prices: amount === null ? [] : [{ amount, currency: 'EUR', kind: 'street', date: '2026-01-01' }],
});

// By hand: cheap 2 points at 50, plain 2 at 80 (equalled by a cheaper one), good 4 at 100, dear 3 at 200 (beaten),
// best 4.5 at 300, twin 4.5 at 300 (equal at one price: both stand), unpriced none.
const UNITS = [
  unit('dear', 3, 200),
  unit('best', 4.5, 300),
  unit('cheap', 2, 50),
  unit('twin', 4.5, 300),
  unit('good', 4, 100),
  unit('plain', 2, 80),
  unit('unpriced', 5, null),
];

it('has the units that no cheaper one equals, the price itself not counted again', () => {
  const rows = priceFrontier(UNITS, RUBRIC);
  expect(rows.map((r) => [r.id, r.price, r.composite, r.isOnFrontier])).toEqual([
    ['cheap', 50, 2, true],
    ['plain', 80, 2, false],
    ['good', 100, 4, true],
    ['dear', 200, 3, false],
    ['best', 300, 4.5, true],
    ['twin', 300, 4.5, true],
  ]);
});

it('says how sure that is', () => {
  const by = new Map(priceFrontier(UNITS, RUBRIC, { draws: 4000 }).map((r) => [r.id, r.probability]));
  expect(by.get('cheap')).toBe(1);
  expect(by.get('dear')).toBe(0);
  // Two normal scatters alike: as likely above as below; 4,000 draws leave 0.8 %.
  expect(Math.abs((by.get('plain') ?? 0) - 0.5)).toBeLessThan(0.03);
  expect(Math.abs((by.get('best') ?? 0) - 0.5)).toBeLessThan(0.03);
  // 4.5 against 4 with scatters of 0.1: Φ(0.5 / (0.1·√2)) = 0.9998, and its twin.
  expect((by.get('best') ?? 0) + (by.get('twin') ?? 0)).toBeGreaterThan(0.99);
});

it('has nobody where no price counts', () => {
  expect(priceFrontier([unit('a', 3, null)], RUBRIC)).toEqual([]);
  const criteria = RUBRIC.criteria.filter((c) => c.kind !== 'price');
  expect(priceFrontier(UNITS, { ...RUBRIC, criteria })).toEqual([]);
});
