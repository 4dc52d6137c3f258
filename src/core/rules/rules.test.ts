import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { evenly } from '../testing/evenly';
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
      fc.property(evenly(-200, 200), evenly(0, 50), (x, step) => {
        const a = pointsOnCurve(knots, x);
        expect(a).toBeGreaterThanOrEqual(0);
        expect(a).toBeLessThanOrEqual(5);
        expect(pointsOnCurve(knots, x + step)).toBeLessThanOrEqual(a + 1e-12);
      }),
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
    const prices = [price(300, 'street', '2024-01-01'), price(200, 'street', '2025-01-01'), price(100, 'list', '2026-01-01')]; // prettier-ignore
    const verdict = pricePoints({ prices }, rule);
    expect(verdict).toMatchObject({ points: 4, overLimit: false, price: { amount: 200 }, total: 200, parts: [] });
    expect(pricePoints({ prices: [price(100, 'list', '2026-01-01')] }, rule).points).toBe(4.5);
  });

  it('takes a point above the limit, and a sale at or below it gives it back', () => {
    const street = price(500, 'street', '2025-03-01');
    expect(pricePoints({ prices: [street] }, rule)).toMatchObject({ points: 1.5, overLimit: true });
    expect(pricePoints({ prices: [street, price(400, 'sale', '2025-04-01')] }, rule)).toMatchObject({
      points: 2.5,
      overLimit: false,
    });
    // On the day of the street price it gives back; the day before it does not.
    expect(pricePoints({ prices: [street, price(400, 'sale', '2025-03-01')] }, rule).points).toBe(2.5);
    expect(pricePoints({ prices: [street, price(400, 'sale', '2025-02-28')] }, rule).points).toBe(1.5);
    expect(pricePoints({ prices: [street, price(450, 'sale', '2025-04-01')] }, rule).points).toBe(1.5);
    expect(pricePoints({ prices: [street, price(350, 'sale', '2024-11-01')] }, rule).points).toBe(1.5);
    expect(pricePoints({ prices: [price(400, 'street', '2025-03-01')] }, rule)).toMatchObject({
      points: 3,
      overLimit: false,
    });
    expect(pricePoints({ prices: [price(990, 'street', '2025-03-01')] }, rule).points).toBe(0);
  });

  it('takes the price of the day of the first test, and says so where there was none by then', () => {
    const prices = [price(300, 'street', '2024-01-01'), price(260, 'street', '2024-06-01'), price(200, 'street', '2025-01-01')]; // prettier-ignore
    const atReview = { ...rule, moment: 'at-review' } as const;
    expect(pricePoints({ prices, reviewedOn: '2024-06-01' }, atReview)).toMatchObject({ price: { amount: 260 } });
    expect(pricePoints({ prices, reviewedOn: '2024-05-31' }, atReview)).toMatchObject({ price: { amount: 300 } });
    expect(pricePoints({ prices, reviewedOn: '2023-05-31' }, atReview).why).toBe(
      'no street or list price noted by 2023-05-31, the day of its first test',
    );
    expect(pricePoints({ prices, reviewedOn: null }, atReview).why).toBe('not tested yet, so no price of that day');
  });

  it('takes the cheapest of those that are of one time with the newest, of the kinds that count', () => {
    const prices = [
      price(150, 'street', '2024-09-01'),
      price(210, 'list', '2024-10-04'),
      price(230, 'street', '2025-01-01'),
      price(90, 'used', '2025-01-01'),
    ];
    const cheapest = { ...rule, moment: 'cheapest' } as const;
    // 2024-10-04 is 89 days before the newest, 2024-09-01 is 122.
    expect(pricePoints({ prices }, cheapest)).toMatchObject({ price: { amount: 210 } });
    expect(pricePoints({ prices: prices.slice(0, 1) }, cheapest)).toMatchObject({ price: { amount: 150 } });
    expect(pricePoints({ prices: prices.slice(3) }, cheapest).why).toBe('no street or list price noted');
  });

  it('adds the parts of every use and of the one that is meant, and the limit is for all of it', () => {
    const part = (name: string, amount: number, uses: string[] = []) => ({ name, uses, prices: [price(amount, 'street', '2025-01-01')], isTyped: false }); // prettier-ignore
    const unit = {
      prices: [price(300, 'street', '2025-01-01')],
      needs: [part('stand', 50), part('camera mount', 60, ['On a camera']), part('boom arm', 90, ['Desk'])],
    };
    const counted = (use: string | null) => pricePoints(unit, { ...rule, parts: { use } });
    expect(pricePoints(unit, rule)).toMatchObject({ total: 300, parts: [] });
    expect(counted(null)).toMatchObject({ total: 350, points: 3.25, overLimit: false });
    expect(counted('On a camera')).toMatchObject({ total: 410, overLimit: true, price: { amount: 300 } });
    expect(counted('On a camera').why).toBe(
      'street price 300 EUR, 2025-01-01 + stand 50 + camera mount 60 = 410 EUR; over the limit of 400 EUR: −1',
    );
    expect(counted('Desk')).toMatchObject({ total: 440, parts: [{ name: 'stand' }, { name: 'boom arm' }] });
    // A sale of the unit brings all of it below the limit.
    const onSale = { ...unit, prices: [...unit.prices, price(290, 'sale', '2025-01-02')] };
    expect(pricePoints(onSale, { ...rule, parts: { use: 'On a camera' } })).toMatchObject({ overLimit: false });
  });

  it('does not count a unit whose part has no price; one that was typed counts whatever its kind', () => {
    const unit = (part: DatedPrice[], isTyped: boolean) => ({ prices: [price(300, 'street', '2025-01-01')], needs: [{ name: 'a shock mount', uses: [], prices: part, isTyped }] }); // prettier-ignore
    const withParts = { ...rule, parts: { use: null } } as const;
    expect(pricePoints(unit([], false), withParts).why).toBe('not counted: it needs a shock mount, and of that no price noted'); // prettier-ignore
    expect(pricePoints(unit([price(20, 'paid', '2025-01-01')], false), withParts).points).toBeNull();
    expect(pricePoints(unit([price(20, 'paid', '2025-01-01')], true), withParts)).toMatchObject({ total: 320 });
  });

  it('says why there are no points: no price, another currency, another kind', () => {
    expect(pricePoints({ prices: [] }, rule)).toEqual({ points: null, why: 'no price noted' });
    expect(pricePoints({ prices: [price(100, 'street', '2025-01-01', 'USD')] }, rule).why).toBe(
      'not counted: price known only in USD, and no rate to EUR on its day or before',
    );
    expect(pricePoints({ prices: [price(100, 'used', '2025-01-01')] }, rule).why).toBe('no street or list price noted');
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
  it('lets the longer hint win; a second file of one name is another take of it', () => {
    expect(stepsOf(['speech back.wav', 'back.wav'])).toEqual(['speech', 'rear']);
    expect(stepsOf(['speech1.wav', 'speech2.wav'])).toEqual(['speech', 'speech']);
    // A step that has a file already is given away by a name alone, not by the order of names.
    const given = matchFiles(['speech.wav', 'x.wav'], steps, new Set(['speech']));
    expect(given.map((m) => [m.step, m.reason])).toEqual([['speech', expect.stringContaining('another take of it')], [steps[1].id, 'by the order of the names']]); // prettier-ignore
    expect(stepsOf(['a.wav', 'b.wav', 'c.wav', 'd.wav'])).toEqual(['speech', 'silence', 'rear', null]);
    expect(stepsOf([])).toEqual([]);
  });
});
