import { describe, expect, it } from 'vitest';
import { takeSettingsSchema, type Slot } from '#contracts/session-plan';
import { differences, settingsLine, startingSettings } from './take-defaults';
import { SPEECH, SILENCE, CLOSE, take, slot } from '../../testing/session-in-small';

describe('settings of a take', () => {
  it('come from the take itself, else from the one before with the ruled gain, else from the last session', () => {
    const s = slot([take(1, SPEECH, 'kept')]);
    expect(startingSettings(s, SPEECH).gainDb).toBe(36);
    expect(startingSettings(s, CLOSE)).toMatchObject({ gainDb: null, pad: '−10' });
    const before = slot([], {
      lastSettings: [{ step: 'speech', day: '2026-01-01', settings: { gainDb: 41, voice: 'low' } }],
    });
    expect(startingSettings(before, SPEECH)).toMatchObject({ gainDb: 41, voice: 'low', distanceM: 0.15, angleDeg: 0 });
    expect(startingSettings(slot([]), SPEECH).gainDb).toBeNull();
  });

  it('say in what they differ from the last session, and not what nobody noted then', () => {
    const s = slot([], {
      lastSettings: [
        { step: 'speech', day: '2026-01-01', settings: { gainDb: 41, pad: '', phantom: true, distanceM: 0.15 } },
      ],
    });
    const now = takeSettingsSchema.parse({ gainDb: 36, pad: '−10', phantom: null, distanceM: 0.15 });
    expect(differences(s, SPEECH, now)).toEqual({
      day: '2026-01-01',
      texts: ['gain 41.0 dB then, 36.0 dB now', 'phantom power on then, not noted now'],
    });
    expect(differences(s, SILENCE, now)).toBeNull();
  });
});
describe('settings of a take', () => {
  it('stand in one line, and a gain that is missing is said', () => {
    const noted = takeSettingsSchema.parse({ gainDb: 36, distanceM: 0.15, angleDeg: 0, pad: '−10', phantom: true, voice: 'high' }); // prettier-ignore
    expect(settingsLine(noted)).toBe('36.0 dB gain · 15.0 cm · 0° · pad −10 · phantom power on · voice high');
    expect(settingsLine(takeSettingsSchema.parse({ phantom: false }))).toBe('gain not noted');
  });

  it('differ in an angle only where the step has one', () => {
    const bare: Slot = {
      ...slot([]),
      lastSettings: [{ step: SILENCE.id, day: '2026-04-01', settings: { gainDb: 36, angleDeg: 0 } }],
    };
    const now = takeSettingsSchema.parse({ gainDb: 36 });
    expect(differences(bare, SILENCE, now)?.texts).toEqual([]);
    const turned = { ...bare, lastSettings: [{ ...bare.lastSettings[0], step: SPEECH.id }] };
    expect(differences(turned, SPEECH, { ...now, angleDeg: 45 })?.texts).toEqual(['angle 0° then, 45° now']);
  });

  it('of the next take begin with those of the newest one, whatever became of it', () => {
    const turn = slot([
      take(1, SPEECH, 'kept', { settings: takeSettingsSchema.parse({ gainDb: 30 }) }),
      take(2, SPEECH, 'retaken', { settings: takeSettingsSchema.parse({ gainDb: 26 }) }),
    ]);
    expect(startingSettings(turn, SPEECH).gainDb).toBe(26);
  });
});
