import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { matchFiles } from './match-files';
import { pointsOnCurve, type Knot } from './points-curve';
import { pricePoints, type DatedPrice } from './price-rule';
import type { PriceCriterion } from './rubric';

describe('pointsOnCurve', () => {
  const knots: Knot[] = [
    [-80, 5],
    [-65, 3],
    [-40, 0],
  ];
  it.each([
    [-90, 5],
    [-80, 5],
    [-72.5, 4],
    [-65, 3],
    [-52.5, 1.5],
    [-40, 0],
    [0, 0],
  ])('at %f gives %f', (x, points) => {
    expect(pointsOnCurve(knots, x)).toBeCloseTo(points, 12);
  });

  it('never leaves the range of its knots, and follows their direction', () => {
    fc.assert(
      fc.property(
        fc.double({ noNaN: true, min: -200, max: 200 }),
        fc.double({ noNaN: true, min: 0, max: 50 }),
        (x, step) => {
          const a = pointsOnCurve(knots, x);
          expect(a).toBeGreaterThanOrEqual(0);
          expect(a).toBeLessThanOrEqual(5);
          expect(pointsOnCurve(knots, x + step)).toBeLessThanOrEqual(a + 1e-12);
        },
      ),
    );
  });

  it('knows its edges', () => {
    expect(pointsOnCurve([[0, 2]], 7)).toBe(2);
    expect(pointsOnCurve(knots, Infinity)).toBe(0);
  });
});

describe('pricePoints', () => {
  const rule: PriceCriterion = {
    id: 'value',
    name: 'Value',
    meaning: '…',
    kind: 'price',
    currency: 'EUR',
    basis: ['street', 'list'],
    curve: [
      [0, 5],
      [1000, 0],
    ],
    limit: { amount: 400, penalty: 1 },
  };
  const price = (amount: number, kind: DatedPrice['kind'], date: string, currency = 'EUR'): DatedPrice => ({
    amount,
    kind,
    date,
    currency,
  });

  it('takes the latest price of the first kind that is known', () => {
    const verdict = pricePoints(
      [price(300, 'street', '2024-01-01'), price(200, 'street', '2025-01-01'), price(100, 'list', '2026-01-01')],
      rule,
    );
    expect(verdict).toMatchObject({ points: 4, overLimit: false, price: { amount: 200 } });
    expect(pricePoints([price(100, 'list', '2026-01-01')], rule).points).toBe(4.5);
  });

  it('takes a point above the limit, and a sale at or below it gives it back', () => {
    const street = price(500, 'street', '2025-03-01');
    expect(pricePoints([street], rule)).toMatchObject({ points: 1.5, overLimit: true });
    expect(pricePoints([street, price(400, 'sale', '2025-04-01')], rule)).toMatchObject({
      points: 2.5,
      overLimit: false,
    });
    // On the day of the street price it gives back; the day before it does not.
    expect(pricePoints([street, price(400, 'sale', '2025-03-01')], rule).points).toBe(2.5);
    expect(pricePoints([street, price(400, 'sale', '2025-02-28')], rule).points).toBe(1.5);
    expect(pricePoints([street, price(450, 'sale', '2025-04-01')], rule).points).toBe(1.5);
    expect(pricePoints([street, price(350, 'sale', '2024-11-01')], rule).points).toBe(1.5);
    expect(pricePoints([price(400, 'street', '2025-03-01')], rule)).toMatchObject({ points: 3, overLimit: false });
    expect(pricePoints([price(990, 'street', '2025-03-01')], rule).points).toBe(0);
  });

  it('says why there are no points: no price, another currency, another kind', () => {
    expect(pricePoints([], rule)).toEqual({ points: null, why: 'no price noted' });
    expect(pricePoints([price(100, 'street', '2025-01-01', 'USD')], rule).why).toBe(
      'not counted: price known only in USD, and no rate to EUR on its day or before',
    );
    expect(pricePoints([price(100, 'used', '2025-01-01')], rule).why).toBe('no street or list price noted');
  });
});

describe('matchFiles', () => {
  const steps = [
    { id: 'speech', title: 'Speech', fileHints: ['speech', 'voice', 'front'] },
    { id: 'silence', title: 'Silence', fileHints: ['silence', 'noise'] },
    { id: 'rear', title: 'Rear', fileHints: ['rear', 'back'] },
  ];
  const stepsOf = (files: readonly string[]) => matchFiles(files, steps).map((m) => m.step);

  it('goes by names first, whatever the order', () => {
    expect(stepsOf(['REAR take.wav', 'room_noise.flac', 'Speech-01.wav'])).toEqual(['rear', 'silence', 'speech']);
  });
  it('then by the order of the names, numbers as numbers', () => {
    expect(stepsOf(['take10.wav', 'take9.wav', 'take2.wav'])).toEqual(['rear', 'silence', 'speech']);
    expect(stepsOf(['b.wav', 'silence.wav', 'a.wav'])).toEqual(['rear', 'silence', 'speech']);
  });
  it('lets the longer hint win, and gives no step away twice', () => {
    expect(stepsOf(['speech back.wav', 'back.wav'])).toEqual(['speech', 'rear']);
    expect(stepsOf(['speech1.wav', 'speech2.wav'])).toEqual(['speech', null]);
    expect(stepsOf(['a.wav', 'b.wav', 'c.wav', 'd.wav'])).toEqual(['speech', 'silence', 'rear', null]);
    expect(stepsOf([])).toEqual([]);
  });
});
