import { describe, expect, it } from 'vitest';
import type { UnitFacts } from '#core/rules/criterion-points';
import type { Rubric } from '#core/rules/rubric';
import { billsOf } from './bills-of';

const rubric: Rubric = {
  id: 'r', version: 1, name: 'R', category: 'microphone', weights: { value: 1 }, stratumProbability: 0.9,
  criteria: [{ kind: 'price', id: 'value', name: 'Value', meaning: 'm', currency: 'EUR', basis: ['street'], curve: [[0, 5]], limit: { amount: 120, penalty: 1 } }],
}; // prettier-ignore
const street = (amount: number) => [{ amount, currency: 'EUR', kind: 'street' as const, date: '2026-01-01' }];
const part = (name: string, amount: number | null, uses: string[] = []) => ({ name, uses, prices: amount === null ? [] : street(amount), isTyped: false }); // prettier-ignore
const unit = (needs: UnitFacts['needs']): UnitFacts => ({
  id: '1',
  figures: {},
  byHand: {},
  prices: street(100),
  needs,
});

describe('what a unit costs until it can be used', () => {
  it('is nothing to tell of a unit that needs nothing, or where no price counts', () => {
    expect(billsOf(unit([]), rubric)).toEqual([]);
    expect(billsOf({ ...unit([]), needs: undefined }, rubric)).toEqual([]);
    expect(billsOf(unit([part('stand', 20)]), { ...rubric, criteria: [] })).toEqual([]);
  });

  it('is told use by use, with what is needed anyway in each', () => {
    const bills = billsOf(unit([part('stand', 20), part('mount', 30.1, ['On a camera'])]), rubric);
    expect(bills.map((b) => [b.use, b.total, b.lines.map((l) => [l.name, l.amount])])).toEqual([
      [null, 120, [['the unit', 100], ['stand', 20]]],
      ['On a camera', 150.1, [['the unit', 100], ['stand', 20], ['mount', 30.1]]],
    ]); // prettier-ignore
    // The limit of the rule is no business of a bill.
    expect(bills[1].lines[0].why).toBe('street price 100 EUR, 2026-01-01');
  });

  it('says why it cannot be told', () => {
    const [bill] = billsOf(unit([part('stand', null, ['Desk'])]), rubric);
    expect(bill).toMatchObject({ use: 'Desk', why: 'not counted: it needs stand, and of that no price noted' });
  });
});
