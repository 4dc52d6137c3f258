import { describe, expect, it } from 'vitest';
import { protocolSchema } from '#contracts/protocol';
import type { ProtocolVersion } from '#contracts/protocol-page';
import {
  copyOf,
  draftOf,
  emptyProtocol,
  gainRule,
  moved,
  newStep,
  openDecisions,
  withCheck,
  withLength,
} from './protocol-draft';
import { rowsOf } from './protocols';
import { conditionsOf, playWords } from './step-words';
import { PROTOCOL, SPEECH, SILENCE, LATENCY } from '../../testing/session-in-small';

describe('writing a protocol', () => {
  const version = (isFrozen: boolean): ProtocolVersion => ({
    protocol: PROTOCOL,
    runs: 0,
    isFrozen,
    firstUsed: null,
    lastUsed: null,
  });

  it('changes an unused version itself, and makes the next one of a used one', () => {
    expect(draftOf(version(false), 4).version).toBe(1);
    expect(draftOf(version(true), 4)).toMatchObject({ version: 5, changes: '' });
  });
  it('gives new steps names of their own, and moves them without losing any', () => {
    const steps = [...PROTOCOL.steps, newStep(PROTOCOL.steps)];
    expect(new Set([...steps, newStep(steps)].map((s) => s.id)).size).toBe(6);
    expect(moved(['a', 'b', 'c'], 1, -1)).toEqual(['b', 'a', 'c']);
    expect(moved(['a', 'b'], 0, -1)).toEqual(['a', 'b']);
    expect(protocolSchema.safeParse(emptyProtocol()).success).toBe(true);
  });
  it('asks only for what shapes the result', () => {
    const draft = { ...PROTOCOL, version: 2, steps: PROTOCOL.steps.map((s) => ({ ...s, title: `${s.title}!` })) };
    expect(openDecisions(PROTOCOL, draft)).toEqual([]);
    draft.steps[0] = { ...draft.steps[0], distanceM: 0.2 };
    expect(openDecisions(PROTOCOL, draft).map((c) => c.step)).toEqual(['speech']);
    expect(openDecisions(undefined, draft)).toEqual([]);
  });
  it('starts a gain rule with numbers that make sense', () => {
    expect(gainRule('peaks', [])).toEqual({ rule: 'peaks', lowDbfs: -12, highDbfs: -9 });
    expect([gainRule('as-step', []), gainRule('none', []), gainRule('as-step', [SPEECH])]).toEqual([
      null,
      null,
      { rule: 'as-step', step: 'speech', byDb: 0 },
    ]);
  });
  it('puts a step into words, and sums up what a version changed', () => {
    expect(playWords(SPEECH)).toBe('read the passage');
    expect(conditionsOf(LATENCY).map((c) => c.name)).toEqual(['Gain', 'Table']);
    const next = { ...PROTOCOL, version: 2, steps: [{ ...SPEECH, distanceM: 0.2 }, SILENCE] };
    const [row] = rowsOf([
      { ...version(true), runs: 2, firstUsed: '2025-01-01', lastUsed: '2025-02-01' },
      { ...version(false), protocol: next },
    ]);
    expect(row).toMatchObject({
      used: '2 runs, 2025-01-01 to 2025-02-01',
      change: '1 comparable, 1 to be decided, 2 gone',
    });
  });
});
describe('a protocol that is being written', () => {
  it('is copied as a first version of its own, under a name that is free', () => {
    const step = { ...emptyProtocol().steps[0], comparable: { withPrevious: false, reason: 'another room' } };
    const model = { ...emptyProtocol(), id: 'desk', version: 4, changes: 'new mic stand', steps: [step] };
    expect(copyOf(model, ['desk'])).toMatchObject({ id: 'desk-copy', version: 1, changes: '' });
    expect(copyOf(model, ['desk', 'desk-copy', 'desk-copy-2']).id).toBe('desk-copy-3');
    expect(copyOf(model, []).steps[0].comparable).toBeNull();
  });

  it('takes an emptied length as no limit, and brings nothing back that was emptied', () => {
    const now = { least: 5, most: 40 };
    expect(withLength(now, { least: 8 })).toEqual({ least: 8, most: 40 });
    expect(withLength(now, { least: null })).toEqual({ least: 0, most: 40 });
    expect(withLength(now, { most: null })).toEqual({ least: 5, most: 36_000 });
    expect(withLength({ least: 0, most: 40 }, { most: null })).toBeNull();
    expect(withLength(null, { least: 5 })).toEqual({ least: 5, most: 36_000 });
  });

  it('has one limit per check, and the usual one again once it is emptied', () => {
    const one = withCheck([], 'unit', 4);
    expect(withCheck(one, 'unit', 5)).toEqual([{ check: 'unit', limit: 5 }]);
    expect(withCheck(withCheck(one, 'hum', 9), 'unit', null)).toEqual([{ check: 'hum', limit: 9 }]);
  });
});
