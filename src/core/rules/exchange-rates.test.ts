import { describe, expect, it } from 'vitest';
import { readRates } from '../text/read-rates';
import { ExchangeRates } from './exchange-rates';
import { pricePoints, withRates, type DatedPrice } from './price-rule';
import type { PriceCriterion } from './rubric';

const RATES = new ExchangeRates([
  { date: '2026-01-12', currency: 'USD', rate: 1.25 },
  { date: '2026-01-05', currency: 'USD', rate: 1 },
  { date: '2026-01-05', currency: 'USD', rate: 1.2 },
  { date: '2026-01-08', currency: 'GBP', rate: 0.8 },
]);

describe('rates of exchange', () => {
  // A table by hand: 120 USD at 1.2 are 100 EUR, at 1.25 they are 96; 0.8 GBP are 1 EUR.
  it.each([
    [120, 'USD', 'EUR', '2026-01-05', 100, '2026-01-05'],
    [120, 'USD', 'EUR', '2026-01-11', 100, '2026-01-05'],
    [120, 'USD', 'EUR', '2026-01-12', 96, '2026-01-12'],
    [120, 'USD', 'EUR', '2030-06-01', 96, '2026-01-12'],
    [96, 'EUR', 'USD', '2026-01-12', 120, '2026-01-12'],
    // Through the base, and the older of the two days is told.
    [120, 'USD', 'GBP', '2026-01-12', 76.8, '2026-01-08'],
    [7, 'EUR', 'EUR', '1990-01-01', 7, '1990-01-01'],
  ])('%f %s in %s on %s are %f', (amount, from, to, day, expected, rateOn) => {
    expect(RATES.change(amount, from, to, day)).toEqual({ amount: expected, rateOn });
  });

  it('look at no day that had not come: before the first rate there is none', () => {
    expect(RATES.change(100, 'USD', 'EUR', '2026-01-04')).toBeNull();
    expect(RATES.change(100, 'USD', 'GBP', '2026-01-07')).toBeNull();
    expect(RATES.change(100, 'JPY', 'EUR', '2026-01-12')).toBeNull();
    expect(new ExchangeRates([]).currencies).toEqual([]);
    expect(RATES.currencies).toEqual(['EUR', 'USD', 'GBP']);
  });
});

describe('a price in another currency', () => {
  const RULE: PriceCriterion = { id: 'v', name: 'V', meaning: 'm', kind: 'price', currency: 'EUR', basis: ['street'], curve: [[0, 5], [200, 0]], limit: { amount: 150, penalty: 1 } }; // prettier-ignore
  const price = (amount: number, currency: string, date: string, kind: DatedPrice['kind'] = 'street'): DatedPrice => ({ amount, currency, date, kind }); // prettier-ignore
  const verdict = (...prices: DatedPrice[]) => pricePoints({ prices: withRates(prices, RATES) }, RULE);

  it('counts by the rate of its day, and says so', () => {
    const usd = verdict(price(120, 'USD', '2026-01-10'));
    expect(usd).toMatchObject({ points: 2.5, price: { amount: 100, currency: 'EUR' } });
    expect(usd.why).toBe('street price 120 USD, 2026-01-10: 100 EUR by the rate of 2026-01-05');
    // The newest counts, whatever its currency.
    expect(verdict(price(120, 'USD', '2026-01-10'), price(40, 'EUR', '2026-01-09')).points).toBe(2.5);
    expect(verdict(price(120, 'USD', '2026-01-10'), price(40, 'EUR', '2026-01-11')).points).toBe(4);
  });

  it('without a rate is not counted, and not nothing either', () => {
    expect(verdict(price(120, 'USD', '2025-12-31'))).toEqual({
      points: null,
      why: 'not counted: price known only in USD, and no rate to EUR on its day or before',
    });
    expect(verdict()).toEqual({ points: null, why: 'no price noted' });
  });

  it('of a sale gives the point back as well', () => {
    const over = price(160, 'EUR', '2026-01-10');
    expect(verdict(over).points).toBe(0);
    expect(verdict(over, price(150, 'USD', '2026-01-12', 'sale')).points).toBe(1);
  });
});

describe('a file of rates', () => {
  it('is read with and without a head, in either way of parting and writing numbers', () => {
    const expected = [{ date: '2026-01-05', currency: 'USD', rate: 1.2 }];
    for (const text of [
      'date,currency,rate\n2026-01-05,USD,1.2\n',
      '5.1.2026;usd;1,2',
      '\uFEFF"2026-01-05"\t"USD"\t"1.2"\r\n\r\n',
    ])
      expect(readRates(text, '2026-02-01')).toEqual({ rates: expected, problems: [] });
  });
  it('names line, field and reason of everything that is wrong', () => {
    const { problems } = readRates('2026-01-05,USD,1.2\n3/4/2026,USD,1.2\n2026-01-06,dollars,none\n2026-01-07,USD\n,USD,1', '2026-02-01'); // prettier-ignore
    expect(problems.map((p) => [p.line, p.field])).toEqual([[2, 'date'], [3, 'currency'], [3, 'rate'], [4, 'line'], [5, 'line']]); // prettier-ignore
    expect(problems[0].why).toMatch(/3\/4\/2026/);
    expect(readRates('2026-01-05,USD,0', '2026-02-01').problems[0].why).toMatch(/outside/);
  });
});
