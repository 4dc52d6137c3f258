import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { SHIPPED_KIND_IDS } from '#core/gear/kinds';
import type { Criterion, Rubric } from '#core/rules/rubric';
import { protocolSchema } from './protocol';
import { rubricProblems, rubricSchema } from './rubric';

const SEED = join(import.meta.dirname, '../server/seed');
const seeded = (prefix: string) =>
  readdirSync(SEED)
    .filter((name) => name.startsWith(prefix))
    .map((name): unknown => JSON.parse(readFileSync(join(SEED, name), 'utf8')));
const PROTOCOLS = protocolSchema.array().parse(seeded('protocol-'));
const RUBRICS = rubricSchema.array().parse(seeded('rubric-'));

it('every kind ships with rules and a protocol, and no rule asks for what is not there', () => {
  for (const kind of SHIPPED_KIND_IDS) {
    expect(
      RUBRICS.some((r) => r.category === kind),
      kind,
    ).toBe(true);
    expect(
      PROTOCOLS.some((p) => p.category === kind),
      kind,
    ).toBe(true);
  }
  for (const rubric of RUBRICS) expect(rubricProblems(rubric, PROTOCOLS), rubric.name).toEqual([]);
});

describe('rules that cannot be', () => {
  const BASE = { id: 'c', name: 'C', meaning: 'm' };
  const of = (...criteria: Criterion[]): Rubric => ({
    id: 'r',
    version: 1,
    name: 'R',
    category: 'interface',
    criteria,
    weights: Object.fromEntries(criteria.map((c) => [c.id, 1])),
    stratumProbability: 0.9,
  });
  const why = (rubric: Rubric) => rubricProblems(rubric, PROTOCOLS).map((p) => `${p.field}: ${p.message}`);
  const cell = { protocol: 'input-stage', step: 'latency', row: '48 kHz', column: '64' };

  it.each<[string, Criterion, RegExp | null]>([
    ['a field of another kind', { ...BASE, kind: 'sheet-number', field: 'pattern', curve: [[0, 1]] }, /no field "pattern"/],
    ['words where numbers are asked', { ...BASE, kind: 'sheet-number', field: 'phantom', curve: [[0, 1]] }, /is no number/],
    ['numbers where words are asked', { ...BASE, kind: 'sheet-word', field: 'einA', points: {}, otherwise: 1 }, /holds no words/],
    ['words of a field that is not there', { ...BASE, kind: 'sheet-word', field: 'address', points: {}, otherwise: 1 }, /no field "address"/],
    ['a feature that is not there', { ...BASE, kind: 'features', features: [{ field: 'fur', is: null }], curve: [[0, 1]] }, /no field "fur"/],
    ['a cell that no table has', { ...BASE, kind: 'table', ...cell, column: '65', curve: [[0, 1]], repeatability: 0 }, /has this cell/],
    ['a cell', { ...BASE, kind: 'table', ...cell, curve: [[0, 1]], repeatability: 0 }, null],
    ['yes or no as a word', { ...BASE, kind: 'sheet-word', field: 'phantom', points: { yes: 5 }, otherwise: 1 }, null],
  ])('%s', (_, criterion, expected) => {
    const found = why(of(criterion));
    if (expected) expect(found.join()).toMatch(expected);
    else expect(found).toEqual([]);
  }); // prettier-ignore

  it('the rule of an upgrade agrees with itself, and with what the rules know of prices', () => {
    const price = { ...BASE, id: 'value', kind: 'price', currency: 'EUR', basis: ['street'], curve: [[10, 5]], limit: null } as const; // prettier-ignore
    const word = { ...BASE, kind: 'sheet-word', field: 'phantom', points: { yes: 5 }, otherwise: 1 } as const;
    const fields = (upgrade: NonNullable<Rubric['upgrade']>, ...criteria: Criterion[]) =>
      rubricProblems({ ...of(word), criteria, weights: Object.fromEntries(criteria.map((c) => [c.id, 1])), upgrade }, PROTOCOLS).map((p) => p.field); // prettier-ignore
    const rule = { clearly: 0.9, probably: 0.75, mostMore: null };
    expect(fields(rule, word)).toEqual([]);
    expect(fields({ ...rule, probably: 0.9 }, word)).toEqual([]);
    expect(fields({ ...rule, probably: 0.91 }, word)).toEqual(['upgrade.probably']);
    expect(fields({ ...rule, mostMore: 50 }, word)).toEqual(['upgrade.mostMore']);
    expect(fields({ ...rule, mostMore: 0 }, word, price)).toEqual([]);
    const takes = (upgrade: unknown) => rubricSchema.safeParse({ ...of(word), upgrade }).success;
    expect([rule, { ...rule, clearly: 1 }, { ...rule, probably: 0.5 }, { ...rule, mostMore: -1 }].map(takes)).toEqual([true, false, false, false]); // prettier-ignore
  });

  it('criteria and uses have names of their own, and something counts', () => {
    const one: Criterion = { ...BASE, kind: 'by-hand', repeatability: 0.2 };
    expect(why(of(one, one)).join()).toMatch(/criteria\[1\]\.id: "c" is there twice/);
    expect(why({ ...of(one), weights: { c: 0 } }).join()).toMatch(/at least one criterion has to count/);
    const use = { name: 'singing', weights: {} };
    expect(why({ ...of(one), uses: [use, use] }).join()).toMatch(/uses\[1\]\.name: "singing" is there twice/);
  });
});
