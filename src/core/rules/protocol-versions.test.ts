import { describe, expect, it } from 'vitest';
import { compareVersions, gainText, isDoneAlike, playKindOf, textOf } from './compare-versions';
import { comparableBetween, comparableFigure, type NamedProtocol } from './comparability';
import type { StepSheet } from './step-sheet';

const step = (change: Partial<StepSheet> = {}): StepSheet => ({
  id: 'speech',
  role: 'speech',
  title: 'Spoken passage',
  purpose: '',
  instruction: 'Read it.',
  play: null,
  distanceM: 0.15,
  angleDeg: 0,
  heightM: null,
  address: null,
  levelDbSpl: null,
  levelDbu: null,
  gain: null,
  lengthS: null,
  repeats: 1,
  voices: [],
  accessories: [],
  pair: null,
  checks: [],
  measures: [],
  table: null,
  comparable: null,
  ...change,
});
const protocol = (
  version: number,
  steps: readonly StepSheet[],
  change: Partial<NamedProtocol> = {},
): NamedProtocol => ({
  id: 'desk',
  name: 'Desk',
  version,
  text: 'The tide turned.',
  sweep: { lowHz: 20, highHz: 20_000, seconds: 3 },
  steps,
  ...change,
});
const verdict = (before: StepSheet, after: StepSheet) =>
  compareVersions(protocol(1, [before]), protocol(2, [after]))[0];

describe('comparing versions', () => {
  it('leaves what is only worded otherwise comparable, without asking', () => {
    const change = verdict(
      step(),
      step({ title: 'Front', purpose: 'x', instruction: 'y', lengthS: { least: 1, most: 9 } }),
    );
    expect(change).toMatchObject({ kind: 'reworded', comparable: 'yes' });
    expect(change.fields.map((f) => f.field)).toEqual(['title', 'purpose', 'instruction', 'length']);
    expect(verdict(step(), step())).toMatchObject({ kind: 'same', comparable: 'yes', fields: [] });
  });

  it.each<[string, Partial<StepSheet>]>([
    ['distance', { distanceM: 0.1 }],
    ['angle', { angleDeg: 45 }],
    ['height', { heightM: 0.1 }],
    ['address', { address: 'side' }],
    ['gain', { gain: { rule: 'maximum' } }],
    ['repeats', { repeats: 3 }],
    ['accessories', { accessories: ['pop filter'] }],
    ['voices', { voices: ['low'] }],
    ['text', { play: { kind: 'text', text: 'Other words.' } }],
    ['what is played', { play: { kind: 'silence', text: null } }],
    ['calibrator', { levelDbSpl: 94 }],
    ['pair', { pair: { step: 'x', varies: 'booster' } }],
  ])('asks where the %s changed', (field, change) => {
    const found = verdict(step(), step(change));
    expect(found).toMatchObject({ kind: 'reshaped', comparable: 'open' });
    expect(found.fields.filter((f) => f.shapes).map((f) => f.field)).toContain(field);
  });

  it('takes a decision with its reason', () => {
    const moved = step({ distanceM: 0.16, comparable: { withPrevious: true, reason: 'half a decibel' } });
    expect(verdict(step(), moved)).toMatchObject({ comparable: 'yes', reason: 'half a decibel' });
    const far = step({ distanceM: 1, comparable: { withPrevious: false, reason: 'far' } });
    expect(verdict(step(), far)).toMatchObject({ comparable: 'no', reason: 'far' });
  });

  it('sees that the passage or the sweep of the whole protocol shapes the steps that use it, and no others', () => {
    const silence = step({ id: 'silence', role: 'silence' });
    const sweep = step({ id: 'sweep-0', role: 'sweep' });
    const before = protocol(1, [step(), silence, sweep]);
    const after = protocol(2, [step(), silence, sweep], { text: 'Another.', sweep: { lowHz: 10 } });
    expect(compareVersions(before, after).map((c) => c.comparable)).toEqual(['open', 'yes', 'open']);
  });

  it('lists steps that are new and gone', () => {
    const changes = compareVersions(protocol(1, [step(), step({ id: 'a' })]), protocol(2, [step(), step({ id: 'b' })]));
    expect(changes.map((c) => [c.step, c.kind])).toEqual([
      ['speech', 'same'],
      ['b', 'new'],
      ['a', 'gone'],
    ]);
  });

  it('reads old versions by their roles', () => {
    expect(playKindOf(step({ role: undefined, id: 'rear' }))).toBe('text');
    expect(playKindOf(step({ role: 'calibration' }))).toBe('tone');
    expect(textOf(step(), { text: 'T' })).toBe('T');
    expect(textOf(step({ role: 'silence', id: 'silence' }), { text: 'T' })).toBeNull();
    expect(isDoneAlike(step({ play: { kind: 'text', text: null } }), protocol(1, []), step(), protocol(2, []))).toBe(
      true,
    );
  });

  it('puts gain rules into words', () => {
    expect(gainText({ rule: 'peaks', lowDbfs: -12, highDbfs: -9 })).toBe('peaks at −12 to −9 dBFS');
    expect(gainText({ rule: 'as-step', step: 'speech', byDb: -6 })).toBe('as at speech, 6 dB less');
    expect(gainText({ rule: 'dial', position: 'noon' })).toBe('dial at noon');
    expect(gainText(null)).toBe('as the instruction says');
  });
});

describe('comparability over several versions', () => {
  const far = step({ distanceM: 0.3, comparable: { withPrevious: false, reason: 'twice as far' } });
  const versions = [
    protocol(1, [step()]),
    protocol(2, [step({ title: 'Front' })]),
    protocol(3, [far]),
    protocol(4, [far]),
  ];

  it('breaks once and stays broken, in both directions', () => {
    const between = (a: number, b: number): boolean => comparableBetween(versions, 'speech', a, b).comparable;
    expect([between(1, 2), between(3, 4), between(2, 3), between(1, 4), between(4, 1)]).toEqual([
      true,
      // Version 4 says of itself what version 3 said, but nothing changed in it.
      true,
      false,
      false,
      false,
    ]);
    expect(comparableBetween(versions, 'speech', 1, 4).reason).toMatch(/Version 3 changed distance: twice as far/);
  });

  it('is not there for a step that one of them does not have, nor while nobody has decided', () => {
    expect(comparableBetween(versions, 'close', 1, 2).comparable).toBe(false);
    const open = [protocol(1, [step()]), protocol(2, [step({ distanceM: 1 })])];
    expect(comparableBetween(open, 'speech', 1, 2).reason).toMatch(/nobody has decided/);
  });

  it('asks every step that feeds a figure, and other protocols for doing it exactly alike', () => {
    const silence = step({ id: 'silence', role: 'silence', title: 'Silence' });
    const a = protocol(1, [step(), silence]);
    const b = protocol(2, [step({ distanceM: 1, comparable: { withPrevious: false, reason: 'far' } }), silence]);
    const feeds = (roles: string[]) => (s: StepSheet) => roles.includes(s.role ?? '');
    expect(comparableFigure([a, b], a, b, feeds(['silence'])).comparable).toBe(true);
    expect(comparableFigure([a, b], a, b, feeds(['speech', 'silence']))).toMatchObject({
      comparable: false,
      reason: expect.stringContaining('Spoken passage') as string,
    });
    const elsewhere = protocol(1, [step({ id: 'voice' })], { id: 'field', name: 'Field' });
    expect(comparableFigure([a, elsewhere], elsewhere, a, feeds(['speech'])).comparable).toBe(true);
    const louder = protocol(1, [step({ distanceM: 0.3 })], { id: 'field', name: 'Field' });
    expect(comparableFigure([a, louder], louder, a, feeds(['speech'])).reason).toContain('"Field" does this otherwise');
  });
});
