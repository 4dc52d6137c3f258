import { describe, expect, it } from 'vitest';
import { compareVersions, gainText, isDoneAlike, playKindOf, textOf } from './compare-versions';
import { comparableBetween, comparableFigure, type NamedProtocol } from './comparability';
import { plainStep } from '../testing/steps';
import type { StepSheet } from './step-sheet';

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
      plainStep(),
      plainStep({ title: 'Front', purpose: 'x', instruction: 'y', lengthS: { least: 1, most: 9 } }),
    );
    expect(change).toMatchObject({ kind: 'reworded', comparable: 'yes' });
    expect(change.fields.map((f) => f.field)).toEqual(['title', 'purpose', 'instruction', 'length']);
    expect(verdict(plainStep(), plainStep())).toMatchObject({ kind: 'same', comparable: 'yes', fields: [] });
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
    const found = verdict(plainStep(), plainStep(change));
    expect(found).toMatchObject({ kind: 'reshaped', comparable: 'open' });
    expect(found.fields.filter((f) => f.shapes).map((f) => f.field)).toContain(field);
  });

  it('takes a decision with its reason', () => {
    const moved = plainStep({ distanceM: 0.16, comparable: { withPrevious: true, reason: 'half a decibel' } });
    expect(verdict(plainStep(), moved)).toMatchObject({ comparable: 'yes', reason: 'half a decibel' });
    const far = plainStep({ distanceM: 1, comparable: { withPrevious: false, reason: 'far' } });
    expect(verdict(plainStep(), far)).toMatchObject({ comparable: 'no', reason: 'far' });
  });

  it('sees that the passage or the sweep of the whole protocol shapes the steps that use it, and no others', () => {
    const silence = plainStep({ id: 'silence', role: 'silence' });
    const sweep = plainStep({ id: 'sweep-0', role: 'sweep' });
    const before = protocol(1, [plainStep(), silence, sweep]);
    const after = protocol(2, [plainStep(), silence, sweep], { text: 'Another.', sweep: { lowHz: 10 } });
    expect(compareVersions(before, after).map((c) => c.comparable)).toEqual(['open', 'yes', 'open']);
  });

  it('lists steps that are new and gone', () => {
    const changes = compareVersions(
      protocol(1, [plainStep(), plainStep({ id: 'a' })]),
      protocol(2, [plainStep(), plainStep({ id: 'b' })]),
    );
    expect(changes.map((c) => [c.step, c.kind])).toEqual([
      ['speech', 'same'],
      ['b', 'new'],
      ['a', 'gone'],
    ]);
  });

  it('reads old versions by their roles', () => {
    expect(playKindOf(plainStep({ role: undefined, id: 'rear' }))).toBe('text');
    expect(playKindOf(plainStep({ role: 'calibration' }))).toBe('tone');
    expect(textOf(plainStep(), { text: 'T' })).toBe('T');
    expect(textOf(plainStep({ role: 'silence', id: 'silence' }), { text: 'T' })).toBeNull();
    expect(
      isDoneAlike(plainStep({ play: { kind: 'text', text: null } }), protocol(1, []), plainStep(), protocol(2, [])),
    ).toBe(true);
  });

  it('puts gain rules into words', () => {
    expect(gainText({ rule: 'peaks', lowDbfs: -12, highDbfs: -9 })).toBe('peaks at −12 to −9 dBFS');
    expect(gainText({ rule: 'as-step', step: 'speech', byDb: -6 })).toBe('as at speech, 6 dB less');
    expect(gainText({ rule: 'dial', position: 'noon' })).toBe('dial at noon');
    expect(gainText(null)).toBe('as the instruction says');
  });
});

describe('comparability over several versions', () => {
  const far = plainStep({ distanceM: 0.3, comparable: { withPrevious: false, reason: 'twice as far' } });
  const versions = [
    protocol(1, [plainStep()]),
    protocol(2, [plainStep({ title: 'Front' })]),
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
    const open = [protocol(1, [plainStep()]), protocol(2, [plainStep({ distanceM: 1 })])];
    expect(comparableBetween(open, 'speech', 1, 2).reason).toMatch(/nobody has decided/);
  });

  it('asks every step that feeds a figure, and other protocols for doing it exactly alike', () => {
    const silence = plainStep({ id: 'silence', role: 'silence', title: 'Silence' });
    const a = protocol(1, [plainStep(), silence]);
    const b = protocol(2, [plainStep({ distanceM: 1, comparable: { withPrevious: false, reason: 'far' } }), silence]);
    const feeds = (roles: string[]) => (s: StepSheet) => roles.includes(s.role ?? '');
    expect(comparableFigure([a, b], a, b, feeds(['silence'])).comparable).toBe(true);
    expect(comparableFigure([a, b], a, b, feeds(['speech', 'silence']))).toMatchObject({
      comparable: false,
      reason: expect.stringContaining('Spoken passage') as string,
    });
    const elsewhere = protocol(1, [plainStep({ id: 'voice' })], { id: 'field', name: 'Field' });
    expect(comparableFigure([a, elsewhere], elsewhere, a, feeds(['speech'])).comparable).toBe(true);
    const louder = protocol(1, [plainStep({ distanceM: 0.3 })], { id: 'field', name: 'Field' });
    expect(comparableFigure([a, louder], louder, a, feeds(['speech'])).reason).toContain('"Field" does this otherwise');
  });
});

describe('what changed, in words', () => {
  it.each<[string, Partial<StepSheet>, string, string]>([
    ['purpose', { purpose: 'tone' }, '—', 'tone'],
    ['distance', { distanceM: null }, '0.15 m', '—'],
    ['angle', { angleDeg: null }, '0°', '—'],
    ['height', { heightM: 0.1 }, '—', '0.1 m'],
    ['address', { address: 'side' }, '—', 'side'],
    ['calibrator', { levelDbSpl: 94 }, '—', '94 dB SPL'],
    ['tone at the input', { levelDbu: -20 }, '—', '-20 dBu'],
    ['voices', { voices: ['low', 'high'] }, '—', 'low, high'],
    ['accessories', { accessories: ['filter'] }, '—', 'filter'],
    ['pair', { pair: { step: 'plain', varies: 'booster' } }, '—', 'booster, with plain'],
    ['length', { lengthS: { least: 1, most: 9 } }, '—', '1 to 9 s'],
    ['figures', { measures: ['rms'] }, '—', 'rms'],
  ])('%s', (field, change, before, after) => {
    expect(verdict(plainStep(), plainStep(change)).fields.find((f) => f.field === field)).toMatchObject({
      before,
      after,
    });
  });

  it('checks are named with their limits', () => {
    const checks = [
      { check: 'clipping', limit: null },
      { check: 'peak', limit: -6 },
    ] as unknown as StepSheet['checks'];
    expect(verdict(plainStep(), plainStep({ checks })).fields).toEqual([
      { field: 'checks', before: 'the usual ones', after: 'clipping, peak -6', shapes: false },
    ]);
  });

  it('gains say what is done', () => {
    expect(gainText({ rule: 'fixed', gainDb: -10 })).toBe('−10 dB');
    expect(gainText({ rule: 'maximum' })).toBe('maximum');
    expect(gainText({ rule: 'as-step', step: 'speech', byDb: 6 })).toBe('as at speech, 6 dB more');
    expect(gainText({ rule: 'as-step', step: 'speech', byDb: 0 })).toBe('as at speech');
  });

  it('what plays nothing that is known plays what its role says', () => {
    expect(playKindOf({ play: null, role: 'fireworks', id: 'x' })).toBe('fireworks');
  });
});

describe('over several versions', () => {
  const far = { distanceM: 0.3 };
  const decided = (withPrevious: boolean, reason: string, change: Partial<StepSheet> = {}) =>
    plainStep({ ...far, ...change, comparable: { withPrevious, reason } });
  // In no order; another step is there as well.
  const versions = (...sheets: readonly (StepSheet | null)[]) =>
    sheets.map((s, i) => protocol(i + 1, [...(s ? [s] : []), plainStep({ id: 'other' })])).reverse();
  const between = (list: readonly NamedProtocol[], from: number, to: number) => comparableBetween(list, 'speech', from, to); // prettier-ignore

  it('says why they may be compared all the same, each time', () => {
    const list = versions(plainStep(), decided(true, 'A foot is a foot.'), plainStep(far), decided(true, 'Measured both.', { angleDeg: 5 })); // prettier-ignore
    expect(between(list, 1, 4)).toEqual({ comparable: true, reason: 'Version 2: A foot is a foot. Version 4: Measured both.' }); // prettier-ignore
    expect(between(list, 4, 1)).toEqual(between(list, 1, 4));
    expect(between(list, 2, 3)).toEqual({ comparable: true, reason: 'Nothing that shapes the result has changed.' });
    expect(between(list, 2, 2).comparable).toBe(true);
  });

  it('one break is enough, and is named with what it changed', () => {
    const refused = versions(plainStep(), decided(false, 'The room answers.'), plainStep(far));
    expect(between(refused, 1, 3)).toEqual({ comparable: false, reason: 'Version 2 changed distance: The room answers.' }); // prettier-ignore
    expect(between(refused, 2, 3).comparable).toBe(true);
    const open = versions(plainStep(), plainStep({ ...far, title: 'Far' }));
    expect(between(open, 1, 2)).toEqual({ comparable: false, reason: 'Version 2 changed distance; nobody has decided yet.' }); // prettier-ignore
    const missing = versions(plainStep(), null, plainStep());
    expect(between(missing, 1, 3)).toEqual({ comparable: false, reason: 'Version 2 and the one before do not both have this step.' }); // prettier-ignore
  });

  it('versions of other protocols say nothing of one', () => {
    const own = [protocol(1, [plainStep()]), protocol(2, [plainStep()])];
    const other = protocol(2, [plainStep(far)], { id: 'field', name: 'Field' });
    expect(comparableFigure([...own, other], own[0], own[1], () => true).comparable).toBe(true);
    expect(comparableFigure([...own, other], own[0], other, () => true)).toEqual({ comparable: false, reason: 'Spoken passage: "Desk" does this otherwise than "Field".' }); // prettier-ignore
  });
});
