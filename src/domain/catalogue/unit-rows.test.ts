import { expect, it } from 'vitest';
import type { UnitFacts } from '#core/rules/criterion-points';
import type { SpecimenBase } from './specimen-base';
import { UnitRows } from './unit-rows';

const base = {
  ...{ id: '7', maker: 'Oarlock', model: 'Purser', label: 'A', category: 'microphone' as const },
  ...{ variant_of: null, configuration: '', varies: null, counts: true, variants: 0, on_desk: true },
  ...{ first_tested: '2026-01-01', last_tested: '2026-01-01', review_id: null, published_on: null },
  ...{ takes: 3, failed: 0, waiting: 0 },
} satisfies SpecimenBase;
const facts: UnitFacts = { id: '7', figures: {}, byHand: {}, prices: [], reviewedOn: null, heard: null };
const known = { base, sheet: [] };
const at = (place: number) => ({ place, stratum: 1, composite: 3.5 });

it('a row that stands where it stood is the same object, and its place is never the last one’s', () => {
  const rows = new UnitRows();
  const scatters = new Map();
  const row = (placed?: ReturnType<typeof at>, unit = facts) => rows.of(known, unit, placed, null, scatters);
  const first = row(at(4));
  expect(first).toMatchObject({ id: '7', place: 4, stratum: 1, composite: 3.5 });
  expect(row(at(4))).toBe(first);
  const moved = row(at(5));
  expect(moved).not.toBe(first);
  expect(moved).toEqual({ ...first, place: 5 });
  expect(first.place).toBe(4);
  expect(row()).toMatchObject({ place: null, stratum: null, composite: null });
  expect(row(at(4))).toEqual(first);
});

it('a row of other facts is made anew, where it stands or not', () => {
  const rows = new UnitRows();
  const scatters = new Map();
  const first = rows.of(known, facts, at(1), null, scatters);
  const away = rows.of({ ...known, base: { ...base, on_desk: false } }, facts, at(1), null, scatters);
  expect([first.onDesk, away.onDesk]).toEqual([true, false]);
  expect(rows.of(known, facts, at(1), null, scatters)).toEqual(first);
});
