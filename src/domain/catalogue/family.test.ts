import { expect, it } from 'vitest';
import { FamilyFacts, familyOf } from './family';
import type { KnownUnit } from './known-unit';

const price = (amount: number) => ({ amount, currency: 'EUR', kind: 'street' as const, date: '2026-05-01' });
const points = (criterion: string, value: number) => ({ specimen_id: '1', criterion, value, reason: null, date: '2026-05-01' }); // prettier-ignore
const text = (field: string, words: string) => ({ field, value: { type: 'text' as const, value: words } });

function unit(id: string, of: string | null, change: object = {}): KnownUnit {
  const base = {
    ...{ id, maker: 'Oarlock', model: 'Purser', label: id, category: 'microphone', on_desk: of === null },
    ...{ variant_of: of, configuration: of === null ? '' : 'USB', varies: of === null ? null : 'connection' },
    ...{ variants: 0, counts: of === null },
  };
  const nothing = { prices: [], needs: [], points: [], sheet: [], tables: [], facts: [], bridging: [], repeated: [] };
  return { base, ...nothing, ...change } as unknown as KnownUnit;
}
const MAIN = unit('1', null, {
  prices: [price(90)],
  needs: [{ name: 'stand' }],
  points: [points('build', 3), points('features', 2)],
  sheet: [text('origin', 'here'), text('body', 'brass')],
  tables: [{ step: 'latency' }],
  facts: [{ quantity: 'rms' }],
});

it('a configuration has what its unit has, but for its figures, and its own where it has some', () => {
  const [, plain] = new FamilyFacts().of([MAIN, unit('2', '1')]);
  expect([plain.prices, plain.needs, plain.points, plain.sheet]).toEqual([MAIN.prices, MAIN.needs, MAIN.points, MAIN.sheet]); // prettier-ignore
  expect([plain.tables, plain.facts, plain.base.on_desk]).toEqual([[], [], true]);
  const own = unit('2', '1', {
    prices: [price(120)],
    needs: [{ name: 'cable' }],
    points: [points('build', 5)],
    sheet: [text('body', 'tin')],
  });
  const [fitted] = new FamilyFacts().of([own, MAIN]);
  expect([fitted.prices, fitted.needs]).toEqual([[price(120)], [{ name: 'cable' }]]);
  expect(fitted.points.map((p) => [p.criterion, p.value])).toEqual([['build', 5], ['features', 2]]); // prettier-ignore
  expect(fitted.sheet).toEqual([text('body', 'tin'), text('origin', 'here')]);
});

it('leaves alone what is no configuration, and one whose unit is not there', () => {
  const alone = unit('2', '7');
  expect(new FamilyFacts().of([MAIN, alone])).toEqual([MAIN, alone]);
});

it('gives the same object while nothing has changed, and another one when either has', () => {
  const facts = new FamilyFacts();
  const variant = unit('2', '1');
  const [, first] = facts.of([MAIN, variant]);
  expect(facts.of([MAIN, variant])[1]).toBe(first);
  const dearer = { ...MAIN, prices: [price(95)] };
  const [, second] = facts.of([dearer, variant]);
  expect(second.prices).toEqual([price(95)]);
  expect(facts.of([dearer, { ...variant }])[1]).not.toBe(second);
});

it('lists name the family of a unit that has one', () => {
  const base = { id: '1', variant_of: null, configuration: '', varies: null, counts: true, variants: 0 };
  expect(familyOf(base)).toBeNull();
  expect(familyOf({ ...base, variants: 2 })).toEqual({ main: '1', configuration: '', varies: null, counts: true });
  expect(familyOf({ ...base, id: '2', variant_of: '1', configuration: 'USB', varies: 'connection', counts: false })).toEqual({ main: '1', configuration: 'USB', varies: 'connection', counts: false }); // prettier-ignore
});
