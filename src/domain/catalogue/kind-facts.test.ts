import { describe, expect, it } from 'vitest';
import { ExchangeRates } from '#core/rules/exchange-rates';
import { protocolSchema } from '#contracts/protocol';
import { rubricSchema } from '#contracts/rubric';
import protocol from '../../server/seed/protocol-desk-voice-1.json' with { type: 'json' };
import document from '../../server/seed/rubric-microphone-1.json' with { type: 'json' };
import type { FactRow } from './fact';
import { KindFacts } from './kind-facts';
import { knownAgain, unlessChanged, type KnownUnit } from './known-unit';
import { UnitRows } from './unit-rows';

const { criteria } = rubricSchema.parse(document);
const PROTOCOLS = [protocolSchema.parse(protocol)];
const RATES = new ExchangeRates([]);
const HEARD = { logWorth: 0.4, se: 0.2, answers: 12 };

const fact = (id: string, value: number): FactRow => ({
  ...{ specimen_id: id, quantity: 'rearRejection', value, uncertainty: 0.5, bound: 'exact', not_measured: null },
  ...{ protocol: PROTOCOLS[0].id, protocol_version: 1, day: '2026-01-01', high_hz: null },
});
const known = (id: string, change: Partial<KnownUnit> = {}): KnownUnit => ({
  base: {
    ...{ id, maker: 'Oarlock', model: `M${id}`, label: 'A', category: 'microphone', on_desk: true },
    ...{ variant_of: null, configuration: '', varies: null, variants: 0, counts: true },
    ...{ first_tested: '2026-01-01', last_tested: '2026-01-01', review_id: null, published_on: null },
    ...{ takes: 3, failed: 0, waiting: 0 },
  },
  prices: [{ amount: 100, currency: 'EUR', kind: 'street', date: '2026-01-01' }],
  ...{ needs: [], points: [], sheet: [], tables: [], facts: [fact(id, 10 + Number(id))], bridging: [], repeated: [] },
  ...change,
});
const UNITS = ['1', '2', '3'].map((id) => known(id));
const of = (kind: KindFacts, units: readonly KnownUnit[], heard = new Map([['1', HEARD]]), rules: typeof criteria | null = criteria, rates = RATES) => kind.of(units, PROTOCOLS, heard, rules, rates); // prettier-ignore
const repeated = (value: number) => ({ quantity: 'rearRejection', group: 'g', value, uncertainty: 0.1 });

describe('facts of a kind', () => {
  it('are those of each unit, in the order in which they were given', () => {
    const { facts } = of(new KindFacts(), UNITS);
    expect(facts.map((f) => [f.id, f.figures.rearRejection?.value, f.reviewedOn, f.heard ?? null])).toEqual([
      ['1', 11, '2026-01-01', HEARD],
      ['2', 12, '2026-01-01', null],
      ['3', 13, '2026-01-01', null],
    ]);
  });

  it('are the same objects where nothing has changed, whatever the lists are', () => {
    const kind = new KindFacts();
    const before = of(kind, UNITS);
    const after = of(kind, [...UNITS], new Map([['1', { ...HEARD }]]));
    expect(after.facts.every((f, i) => f === before.facts[i])).toBe(true);
    expect(after.scatters).toBe(before.scatters);
  });

  const CHANGES: [string, Partial<KnownUnit>][] = [
    ['a figure', { facts: [fact('2', 20)] }],
    ['a price', { prices: [{ amount: 90, currency: 'EUR', kind: 'street', date: '2026-01-01' }] }],
    ['points', { points: [{ specimen_id: '2', criterion: 'build', value: 4, reason: null, date: '2026-01-01' }] }],
    ['a part', { needs: [{ name: 'booster', uses: [], prices: [], isTyped: true }] }],
    ['its sheet', { sheet: [{ field: 'weight', value: { type: 'number', value: 300, unit: 'g' } }] as never }],
    ['a table', { tables: [{ protocol: 'p', step: 's', cells: [{ row: 'r', column: 'c', value: 4 }] }] as never }],
    ['the day of the first test', { base: { ...UNITS[1].base, first_tested: '2025-01-01' } }],
  ];
  it.each(CHANGES)('after %s has changed are those of a beginning, and made anew for that unit alone', (_, change) => {
    const kind = new KindFacts();
    const before = of(kind, UNITS);
    const units = [UNITS[0], { ...UNITS[1], ...change }, UNITS[2]];
    const after = of(kind, units);
    expect(after).toEqual(of(new KindFacts(), units));
    expect(after.facts.map((f, i) => f === before.facts[i])).toEqual([true, false, true]);
  });

  it('follow answers, rules and rates; what readings differ by changes all of them', () => {
    const kind = new KindFacts();
    of(kind, UNITS);
    const answered = of(kind, UNITS, new Map([['1', { ...HEARD, answers: 13 }]]));
    expect(answered.facts[0].heard?.answers).toBe(13);
    const without = of(kind, UNITS, new Map(), null);
    expect(without).toEqual(of(new KindFacts(), UNITS, new Map(), null));
    const dollars = [known('1', { prices: [{ amount: 100, currency: 'USD', kind: 'street', date: '2026-01-01' }] })];
    const unknown = of(kind, dollars, new Map());
    const rates = new ExchangeRates([{ date: '2025-12-01', currency: 'USD', rate: 1.25 }]);
    const exchanged = of(kind, dollars, new Map(), criteria, rates);
    expect(exchanged).toEqual(of(new KindFacts(), dollars, new Map(), criteria, rates));
    expect(exchanged.facts[0].prices).not.toEqual(unknown.facts[0].prices);
    const scattered = [known('1', { repeated: [repeated(10), repeated(14)] }), ...UNITS.slice(1)];
    const after = of(kind, scattered);
    expect(after).toEqual(of(new KindFacts(), scattered));
    expect(after.facts[2].figures.rearRejection?.between).not.toBe(answered.facts[2].figures.rearRejection?.between);
  });

  it('are the same objects where only that of a unit has changed which facts are not made of', () => {
    const kind = new KindFacts();
    const before = of(kind, UNITS);
    const away = { ...UNITS[1], base: { ...UNITS[1].base, on_desk: false } };
    expect(of(kind, [UNITS[0], away, UNITS[2]]).facts.map((f, i) => f === before.facts[i])).toEqual([true, true, true]);
    const later = { ...away, points: [{ specimen_id: '2', criterion: 'build', value: 4, reason: null, date: '2026-01-01' }] }; // prettier-ignore
    expect(of(kind, [UNITS[0], later, UNITS[2]]).facts[1].byHand['build']?.value).toBe(4);
  });

  it('follow other versions of protocols, and what bridges them', () => {
    const [first] = PROTOCOLS;
    const steps = first.steps.map((s) => (s.role === 'rear' || s.id === 'rear' ? { ...s, distanceM: 0.3 } : s));
    const both = [first, { ...first, version: 2, steps }];
    const second = (id: string, value: number): FactRow => ({ ...fact(id, value), protocol_version: 2, day: '2026-02-01' }); // prettier-ignore
    const units = [UNITS[0], { ...UNITS[1], facts: [second('2', 9)] }, UNITS[2]];
    const rejection = (kind: KindFacts, of: readonly KnownUnit[], protocols = both) =>
      kind.of(of, protocols, new Map(), criteria, RATES).facts.map((f) => f.figures.rearRejection?.value ?? null);
    const kind = new KindFacts();
    expect(rejection(kind, units, [first, { ...first, version: 2 }])).toEqual([11, 9, 13]);
    expect(rejection(kind, units), 'the step was done otherwise').toEqual([null, 9, null]);
    const bridging = (id: string, before: number, after: number) => [second(id, after), fact(id, before)];
    const bridged = [
      { ...units[0], bridging: bridging('1', 12, 10) },
      units[1],
      { ...units[2], bridging: bridging('3', 16, 14) },
    ];
    expect(rejection(kind, bridged)).toEqual([9, 9, 11]);
    expect(rejection(kind, units), 'and back').toEqual([null, 9, null]);
  });

  it('follow what readings of one among them differ by', () => {
    const kind = new KindFacts();
    const between = (units: readonly KnownUnit[]) => of(kind, units).facts[2].figures.rearRejection?.between;
    const before = between(UNITS);
    const scattered = [{ ...UNITS[0], repeated: [repeated(10), repeated(14)] }, ...UNITS.slice(1)];
    expect(between(scattered)).not.toBe(before);
    expect(between(UNITS)).toBe(before);
  });

  it('of a unit that is gone are gone, and of one more are there', () => {
    const kind = new KindFacts();
    of(kind, UNITS);
    expect(of(kind, UNITS.slice(1)).facts.map((f) => f.id)).toEqual(['2', '3']);
    expect(of(kind, [...UNITS, known('4')]).facts.map((f) => f.id)).toEqual(['1', '2', '3', '4']);
    expect(of(kind, []).facts).toEqual([]);
    expect(of(kind, UNITS)).toEqual(of(new KindFacts(), UNITS));
  });

  it('of those that stay are the same objects as others come and go', () => {
    const kind = new KindFacts();
    const before = of(kind, UNITS);
    const two = of(kind, UNITS.slice(1)).facts;
    expect([two[0] === before.facts[1], two[1] === before.facts[2]]).toEqual([true, true]);
    const back = of(kind, UNITS).facts;
    // The one that came back is made anew, as it says the same.
    expect(back.map((f, i) => f === before.facts[i])).toEqual([false, true, true]);
    expect(back).toEqual(before.facts);
  });

  it('carry the price of parts by which it cannot be used', () => {
    const part = { name: 'booster', uses: ['desk'], prices: [{ amount: 60, currency: 'EUR', kind: 'street', date: '2026-01-01', id: '9' }], isTyped: false } as never; // prettier-ignore
    const [unit] = of(new KindFacts(), [known('1', { needs: [part] })]).facts;
    expect(unit.needs).toEqual([{ name: 'booster', uses: ['desk'], prices: [{ amount: 60, currency: 'EUR', kind: 'street', date: '2026-01-01' }], isTyped: false }]); // prettier-ignore
    expect(of(new KindFacts(), [known('1')]).facts[0]).not.toHaveProperty('needs');
  });
});

describe('what is known again', () => {
  it('stays the same object part by part, and as a whole where every part does', () => {
    const before = known('1');
    expect(knownAgain(before, known('1'))).toBe(before);
    expect(knownAgain(undefined, before)).toBe(before);
    const after = knownAgain(before, known('1', { prices: [] }));
    expect(after.prices).toEqual([]);
    expect(after.facts).toBe(before.facts);
    for (const part of [
      'base',
      'prices',
      'needs',
      'points',
      'sheet',
      'tables',
      'facts',
      'bridging',
      'repeated',
    ] as const) {
      const other = { ...known('1'), [part]: part === 'base' ? { ...before.base, takes: 4 } : [{ other: part }] }; // prettier-ignore
      expect(knownAgain(before, other)[part], part).toEqual(other[part]);
    }
  });

  it('is the former where it says the same', () => {
    const before = { a: [1, 2] };
    expect(unlessChanged(before, { a: [1, 2] })).toBe(before);
    expect(unlessChanged(before, { a: [1, 3] })).toEqual({ a: [1, 3] });
    expect(unlessChanged(undefined, before)).toBe(before);
  });
});

describe('rows of lists', () => {
  const { facts, scatters } = of(new KindFacts(), UNITS);
  const PLACED = { place: 2, stratum: 1, composite: 3.5 };

  it('are made once, and put in their place each time', () => {
    const rows = new UnitRows();
    const first = rows.of(UNITS[0], facts[0], PLACED, criteria, scatters);
    expect(first).toMatchObject({ id: '1', place: 2, stratum: 1, composite: 3.5 });
    const moved = rows.of(UNITS[0], facts[0], { ...PLACED, place: 5 }, criteria, scatters);
    expect(moved.place).toBe(5);
    const at = (change: Partial<typeof PLACED>) =>
      rows.of(UNITS[0], facts[0], { ...PLACED, ...change }, criteria, scatters);
    expect(at({ stratum: 2 }).stratum).toBe(2);
    expect(at({ stratum: 2, composite: 3.6 })).toMatchObject({ place: 2, stratum: 2, composite: 3.6 });
    expect(moved.figures).toBe(first.figures);
    expect(rows.of(UNITS[0], facts[0], undefined, criteria, scatters)).toMatchObject({ place: null, stratum: null, composite: null }); // prettier-ignore
  });

  it('follow their unit, its facts and the rules, each for itself', () => {
    const rows = new UnitRows();
    const [unit, own] = [UNITS[0], facts[0]];
    const first = rows.of(unit, own, PLACED, criteria, scatters);
    const back = () => rows.of(unit, own, PLACED, criteria, scatters);
    const away = { ...unit, base: { ...unit.base, on_desk: false } };
    expect(rows.of(away, own, PLACED, criteria, scatters).onDesk).toBe(false);
    expect(back()).toEqual(first);
    const dearer = { ...own, prices: [{ amount: 180, currency: 'EUR', kind: 'street', date: '2026-02-01' }] } as const;
    expect(rows.of(unit, dearer as never, PLACED, criteria, scatters).price?.amount).toBe(180);
    expect(back()).toEqual(first);
    expect(rows.of(unit, own, PLACED, null, scatters).hasRules).toBe(false);
    expect(back()).toEqual(first);
    const condenser = { ...unit, sheet: [{ field: 'transducer', value: { type: 'words', words: ['condenser'] } }] as const }; // prettier-ignore
    expect(rows.of(condenser, own, PLACED, criteria, scatters).classes).not.toEqual(first.classes);
    expect(back()).toEqual(first);
    const wide = of(new KindFacts(), [{ ...unit, repeated: [repeated(10), repeated(14)] }]).scatters;
    expect(rows.of(unit, own, PLACED, criteria, wide).figures).not.toEqual(first.figures);
    expect(back()).toEqual(first);
  });
});
