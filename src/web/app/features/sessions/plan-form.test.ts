import { describe, expect, it } from 'vitest';
import type { ProtocolVersion } from '#contracts/protocol-page';
import { controlOf, emptyPlan, minutesText, newestOf, onDay, tooLate } from './plan-form';
import { PROTOCOL } from '../../testing/session-in-small';
import { rigDocumentSchema, type Rig } from '#contracts/rig';

describe('planning', () => {
  const of = (id: string, v: number, runs: number): ProtocolVersion => ({
    protocol: { ...PROTOCOL, id, version: v },
    runs,
    isFrozen: runs > 0,
    firstUsed: null,
    lastUsed: null,
  });

  it('starts with the newest version of the protocol that is used most', () => {
    const versions = [of('a', 1, 3), of('a', 2, 0), of('b', 1, 1)];
    expect(newestOf(versions, 'microphone')?.protocol).toMatchObject({ id: 'a', version: 2 });
    expect(newestOf(versions, 'booster')).toBeUndefined();
    expect(emptyPlan('2026-05-02', versions, [], 'microphone')).toMatchObject({
      protocol: 'a',
      protocolVersion: 2,
      rig: null,
    });
  });
  it('starts with the one that asks for most, before any was used', () => {
    const long = of('b', 1, 0);
    const steps = [...long.protocol.steps, { ...long.protocol.steps[0], id: 'more' }];
    const versions = [of('a', 1, 0), { ...long, protocol: { ...long.protocol, steps } }];
    expect(newestOf(versions, 'microphone')?.protocol.id).toBe('b');
    expect(newestOf([of('a', 1, 1), versions[1]], 'microphone')?.protocol.id).toBe('a');
  });
  it('on another day is called by it, unless somebody has called it otherwise', () => {
    const plan = { title: 'Session of 2026-03-01', day: '2026-03-01' };
    expect(onDay(plan, '2026-04-02')).toEqual({ title: 'Session of 2026-04-02', day: '2026-04-02' });
    expect(onDay({ ...plan, title: 'Shields' }, '2026-04-02')).toEqual({ title: 'Shields', day: '2026-04-02' });
  });

  it('sees loans that are gone by then', () => {
    const plan = emptyPlan('2026-05-02', [], [], 'microphone');
    const unit = { ...plan.units[0], maker: 'X' };
    const units = ['2026-05-01', '2026-05-02', '2026-05-03', null].map((dueBack) => ({ ...unit, dueBack }));
    expect(tooLate({ ...plan, units })).toHaveLength(2);
  });
  it.each([
    [45, '45 min'],
    [60, '1 h'],
    [95, '1 h 35 min'],
  ])('%i minutes are %s', (minutes, text) => expect(minutesText(minutes)).toBe(text));
});
describe('the control unit of a plan', () => {
  const rig = (since: string, controlUnit: string | null): Rig => ({
    id: since,
    document: rigDocumentSchema.parse({ name: 'Desk', since, controlUnit }),
    runs: 0,
    calibrations: [],
  });
  const unit = { id: '7', maker: 'Oarlock', model: 'Purser', label: 'A', category: 'microphone' } as const;
  const plan = { rig: 'Desk', day: '2026-05-02', category: 'microphone' } as const;

  it('is that of the rig as it stood on the day', () => {
    const rigs = [rig('2026-06-01', null), rig('2026-01-01', '7')];
    expect(controlOf(plan, rigs, [unit])).toEqual({ name: 'Oarlock Purser · A' });
    expect(controlOf({ ...plan, day: '2026-06-02' }, rigs, [unit])).toMatchObject({
      reason: expect.stringMatching(/has no control unit/) as string,
    });
  });

  it('is not there for a reason that is said, never dropped without a word', () => {
    const reason = (change: Partial<Parameters<typeof controlOf>[0]>, rigs = [rig('2026-01-01', '7')]): string => {
      const found = controlOf({ ...plan, ...change }, rigs, [unit]);
      return 'reason' in found ? found.reason : '';
    };
    expect(reason({ rig: null })).toMatch(/no rig is chosen/);
    expect(reason({ day: '2025-12-31' })).toMatch(/not noted yet/);
    expect(reason({ category: 'interface' })).toMatch(/another kind/);
  });
});
