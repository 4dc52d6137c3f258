import { describe, expect, it } from 'vitest';
import type { DatedPrice } from '#core/rules/price-rule';
import { pictureCurrency, priceHistory } from './price-history-geometry';

const price = (amount: number, date: string, kind: DatedPrice['kind'] = 'street', currency = 'EUR'): DatedPrice => ({ amount, date, kind, currency }); // prettier-ignore

describe('prices over time', () => {
  it('are a line for each kind, level until the next, from the first day to today', () => {
    const prices = [price(100, '2026-01-11'), price(200, '2026-01-01'), price(150, '2026-01-01', 'used')];
    const picture = priceHistory(prices, 'EUR', '2026-01-21', 200, 130);
    // 100 to 200 with 15 % room on each side over 130 pixels: a pixel each.
    const rounded = picture?.lines.map((l) => ({ ...l, dots: l.dots.map((d) => ({ ...d, y: Math.round(d.y) })) }));
    expect(rounded).toEqual([
      {
        kind: 'street',
        isLevel: true,
        path: 'M0.0 15.0H100.0V115.0H200',
        dots: [
          { day: '2026-01-01', amount: 200, x: 0, y: 15 },
          { day: '2026-01-11', amount: 100, x: 100, y: 115 },
        ],
      },
      { kind: 'used', isLevel: false, path: 'M0.0 65.0H200', dots: [{ day: '2026-01-01', amount: 150, x: 0, y: 65 }] },
    ]);
    expect(picture?.amounts.map((a) => a.label)).toEqual(['200', '100']);
  });

  it('are shown in one currency by their rates; what has none is counted, not drawn', () => {
    const dollars = {
      ...price(110, '2026-01-02', 'street', 'USD'),
      also: { EUR: { amount: 100, rateOn: '2026-01-01' } },
    };
    const picture = priceHistory([price(90, '2026-01-01'), dollars, price(9, '2026-01-03', 'street', 'SEK')], 'EUR', '2026-01-03', 100, 100); // prettier-ignore
    expect(picture?.lines[0].dots.map((d) => d.amount)).toEqual([90, 100]);
    expect(picture?.notShown).toBe(1);
    expect(priceHistory([price(9, '2026-01-03', 'street', 'SEK')], 'EUR', '2026-01-03', 100, 100)).toBeNull();
  });

  it('mark the years between, and reach a price of a day that has not come', () => {
    const picture = priceHistory([price(90, '2024-07-01'), price(80, '2026-07-01')], 'EUR', '2026-06-01', 730, 100);
    expect(picture?.years.map((y) => [y.label, Math.round(y.at)])).toEqual([['2025', 184], ['2026', 549]]); // prettier-ignore
    expect(picture?.lines[0].dots.at(-1)?.x).toBe(730);
  });

  it('are in the currency of the rules, else in that of the newest price', () => {
    expect(pictureCurrency([price(1, '2026-01-01', 'street', 'SEK')], 'EUR')).toBe('EUR');
    expect(pictureCurrency([price(1, '2026-01-01', 'street', 'SEK')], null)).toBe('SEK');
    expect(pictureCurrency([], null)).toBeNull();
  });
});
