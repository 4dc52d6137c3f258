import { describe, expect, it } from 'vitest';
import { scatterBetween } from '#core/measure/another-reading';
import type { UnitFacts } from '#core/rules/criterion-points';
import { rubricSchema } from '#contracts/rubric';
import document from '../../server/seed/rubric-microphone-1.json' with { type: 'json' };
import { bridgePairs } from './bridge-pairs';
import type { RankedFact } from './comparable-facts';
import type { SpecimenBase } from './specimen-base';
import { isTested, plainPrice, readingAgain, scattersOf, unitFacts, withScatter } from './unit-facts';

const { criteria } = rubricSchema.parse(document);
const fact = (quantity: string, value: number | null, change: Partial<RankedFact> = {}): RankedFact => ({
  ...{ specimen_id: '1', quantity, value, uncertainty: 0.4, bound: 'exact', not_measured: null },
  ...{ protocol: 'desk-voice', protocol_version: 1, day: '2026-02-01', high_hz: null, remark: null },
  ...change,
});

describe('facts of a unit', () => {
  it('are its figures by name, points with their reason, prices without what the archive knows them by', () => {
    const unit = unitFacts(
      '7',
      [fact('rearRejection', 14, { remark: 'of 2025' }), fact('noiseReSpeechA', null, { not_measured: 'no silence', uncertainty: null }), fact('gone', 3)], // prettier-ignore
      [{ specimen_id: '7', criterion: 'build', value: 4, reason: 'brass', date: '2026-01-01' }],
      [{ amount: 99, currency: 'EUR', kind: 'street', date: '2026-01-02', id: '12', note: 'x' } as never],
    );
    expect(unit).toEqual({
      id: '7',
      // A quantity that is no more is no figure.
      figures: {
        rearRejection: { value: 14, uncertainty: 0.4, bound: 'exact', notMeasured: null, remark: 'of 2025' },
        noiseReSpeechA: { value: null, uncertainty: null, bound: 'exact', notMeasured: 'no silence', remark: null },
      },
      byHand: { build: { value: 4, reason: 'brass' } },
      prices: [{ amount: 99, currency: 'EUR', kind: 'street', date: '2026-01-02' }],
    });
  });

  it('keep of a price what is said of it, and nothing that nobody said', () => {
    const price = { amount: 1, currency: 'EUR', kind: 'used', date: '2026-01-02' } as const;
    const said = { ...price, region: 'EU', tax: 'with', shop: 'a fair', also: { amount: 2, currency: 'USD' } };
    expect(plainPrice(said as never)).toEqual(said);
    expect(Object.keys(plainPrice(price))).toEqual(['amount', 'currency', 'kind', 'date']);
    expect(Object.keys(plainPrice({ ...price, shop: 'a fair' }))).toEqual([...Object.keys(price), 'shop']);
  });
});

describe('what readings differ by', () => {
  const reading = (group: string, value: number, quantity = 'rearRejection') => ({ quantity, group, value, uncertainty: 0.1 }); // prettier-ignore

  it('is pooled within groups of readings that differ in the day alone', () => {
    // Two groups of two, far from each other: 1² / 2 each, with one degree of freedom each.
    const scatter = scattersOf([reading('a', 10), reading('a', 11), reading('b', 20), reading('b', 21)]).get('rearRejection'); // prettier-ignore
    expect(scatter?.degrees).toBe(2);
    expect(scatter?.variance).toBeLessThan(0.5 + 1e-12);
    expect(scatter?.variance).toBeGreaterThan(0.4);
    const one = scattersOf([reading('a', 10), reading('a', 11), reading('a', 20), reading('a', 21)]).get('rearRejection'); // prettier-ignore
    expect(one?.variance).toBeGreaterThan(20);
    expect([...scattersOf([reading('a', 1, 'gone'), reading('a', 2, 'gone')]).keys()]).toEqual([]);
  });

  it('joins the uncertainty of an exact figure; of a limit, and of what was not measured, there is none', () => {
    const scatters = new Map([['rearRejection', { variance: 4, degrees: 1000 }]]);
    const again = (change: object) =>
      readingAgain({ quantity: 'rearRejection', value: 14, uncertainty: 1.5, bound: 'exact', ...change }, scatters);
    // √(1.5² + 2²) with so many repeats.
    expect(again({})).toBeCloseTo(2.5, 1);
    expect(again({ bound: 'at-least' })).toBeNull();
    expect(again({ value: null })).toBeNull();
    expect(again({ uncertainty: null })).toBeCloseTo(2, 1);
  });

  it('is what the rules expect of that figure, where there are no repeats', () => {
    const unit: UnitFacts = unitFacts('1', [fact('rearRejection', 14), fact('noiseReSpeechA', -60), fact('tilt', null)], [], []); // prettier-ignore
    const rule = criteria.find((c) => c.kind === 'measured' && c.quantity === 'rearRejection');
    if (rule?.kind !== 'measured') throw new Error('the rules have no such figure');
    const rules = criteria.filter((c) => c !== rule);
    const between = (list: typeof criteria, of: 'rearRejection' | 'noiseReSpeechA') =>
      withScatter(unit, list, new Map()).figures[of]?.between;
    const stated = { ...rule, repeatability: 3.5 };
    expect(between([...rules, stated], 'rearRejection')).toBeCloseTo(scatterBetween('rearRejection', 14, null, 3.5) ?? NaN, 12); // prettier-ignore
    expect(between([...rules, stated], 'rearRejection')).not.toBeCloseTo(between(rules, 'rearRejection') ?? NaN, 3);
    expect(between(rules, 'rearRejection')).toBe(scatterBetween('rearRejection', 14, null));
    // Of another figure the rule says nothing.
    expect(between([stated], 'noiseReSpeechA')).toBe(scatterBetween('noiseReSpeechA', -60, null));
    expect(withScatter(unit, criteria, new Map()).figures).toHaveProperty('rearRejection.value', 14);
  });
});

describe('a unit has been tested', () => {
  const BASE = { last_tested: '2026-02-01', takes: 3 } as SpecimenBase;
  const measured = unitFacts('1', [fact('rearRejection', 14)], [], []);
  const bare = unitFacts('1', [], [], []);
  const table = { kind: 'table', id: 't', name: 'T', meaning: '', protocol: 'desk-headphones', step: 's', row: 'r', column: 'c', curve: [{ at: 0, points: 0 }, { at: 10, points: 5 }], repeatability: 1 } as never; // prettier-ignore
  const hand = criteria.filter((c) => c.kind === 'by-hand');
  const price = criteria.filter((c) => c.kind === 'price');
  const given = unitFacts('1', [], [{ specimen_id: '1', criterion: hand[0].id, value: 3, reason: null, date: '2026-01-01' }], []); // prettier-ignore

  it('with its first run that gave a figure', () => {
    expect(isTested(BASE, measured, criteria)).toBe(true);
    expect(isTested({ ...BASE, last_tested: null }, measured, criteria)).toBe(false);
    expect(isTested(BASE, undefined, criteria)).toBe(false);
    expect(isTested(BASE, bare, criteria)).toBe(false);
  });

  it('not by points that somebody gave, where the rules count measurements', () => {
    expect(isTested({ ...BASE, takes: 0 }, given, criteria)).toBe(false);
    expect(isTested({ ...BASE, takes: 0 }, given, [table, ...hand])).toBe(false);
  });

  it('by anything but a price, where they count none', () => {
    expect(isTested({ ...BASE, takes: 0 }, given, [...hand, ...price])).toBe(true);
    const priced = unitFacts('1', [], [], [{ amount: 99, currency: 'EUR', kind: 'street', date: '2026-01-02' }]);
    expect(isTested({ ...BASE, takes: 0 }, priced, [...hand, ...price])).toBe(false);
  });
});

describe('units under two versions of a protocol', () => {
  const row = (unit: string, version: number, value: number | null, quantity = 'rearRejection') =>
    fact(quantity, value, { specimen_id: unit, protocol_version: version, uncertainty: value === null ? null : version / 10 }); // prettier-ignore

  it('make a pair each of their newest figures', () => {
    const facts = [row('1', 1, 10), row('1', 1, 99), row('1', 2, 12), row('2', 2, 8), row('3', 1, 7), row('1', 1, 5, 'tilt')]; // prettier-ignore
    expect(bridgePairs(facts, 'rearRejection', 1, 2)).toEqual([
      { unit: '1', pair: { before: 10, after: 12, beforeUncertainty: 0.1, afterUncertainty: 0.2 } },
    ]);
    expect(bridgePairs(facts, 'tilt', 1, 2)).toEqual([]);
  });

  it('pass over a newer run that does not have the figure', () => {
    const facts = [row('1', 1, null), row('1', 1, 10), row('1', 2, 12)];
    expect(bridgePairs(facts, 'rearRejection', 1, 2).map((b) => b.pair.before)).toEqual([10]);
    expect(bridgePairs([row('1', 1, 10), row('1', 2, null)], 'rearRejection', 1, 2)).toEqual([]);
  });
});
