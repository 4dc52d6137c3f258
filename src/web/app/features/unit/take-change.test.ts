import { describe, expect, it } from 'vitest';
import type { Take } from '#contracts/specimen';
import { changeOfTake, settingsOfTake } from './take-change';

describe('correcting a take of the archive', () => {
  const take = {
    id: '9',
    gainDb: 36,
    distanceM: 0.15,
    angleDeg: 0,
    levelDbSpl: null,
    levelDbu: -20,
    windSpeedMs: null,
    settings: { pad: '−10', phantom: true, recorder: 'small one' },
    note: '',
  } as unknown as Take;

  it('starts from what is noted, and keeps what the form has no field for', () => {
    const form = settingsOfTake(take);
    expect(form).toMatchObject({ gainDb: 36, pad: '−10', phantom: true, voice: null, dial: '' });
    expect(changeOfTake(take, form, '')).toEqual({
      kind: 'take',
      take: '9',
      gainDb: 36,
      distanceM: 0.15,
      angleDeg: 0,
      levelDbSpl: null,
      levelDbu: -20,
      windSpeedMs: null,
      settings: { recorder: 'small one', pad: '−10', phantom: true },
      note: '',
    });
  });

  it('tells what was switched off from what nobody noted, and refuses to lose the gain', () => {
    const off = changeOfTake(take, { ...settingsOfTake(take), phantom: false, pad: '' }, ' moved ');
    expect(off?.settings).toEqual({ recorder: 'small one', phantom: false });
    expect(off?.note).toBe('moved');
    const bare = { ...take, settings: {} };
    expect(changeOfTake(bare, { ...settingsOfTake(bare), phantom: false }, '')?.settings).toEqual({});
    expect(changeOfTake(take, { ...settingsOfTake(take), gainDb: null }, '')).toBeNull();
  });
});
