import { notedGain } from '#core/rules/take-gain';
import type { Change } from '#contracts/correction';
import { takeSettingsSchema, type TakeSettings } from '#contracts/session-plan';
import type { Take } from '#contracts/specimen';

/** Further settings that the form of a take has a field for. */
const FORM_KEYS = ['dial', 'pad', 'lowCut', 'pattern', 'phantom', 'voice', 'place', 'mount', 'processing'] as const;
type FormKey = (typeof FORM_KEYS)[number];

/** What is noted with a take of the archive, as the form of a take shows it. */
export function settingsOfTake({
  gainDb,
  distanceM,
  angleDeg,
  levelDbSpl,
  levelDbu,
  windSpeedMs,
  settings,
}: Take): TakeSettings {
  const text = (key: FormKey): string => {
    const value = settings[key];
    return value === undefined || typeof value === 'boolean' ? '' : String(value);
  };
  return takeSettingsSchema.parse({
    gainDb,
    distanceM,
    angleDeg,
    levelDbSpl,
    levelDbu,
    windSpeedMs,
    dial: text('dial'),
    pad: text('pad'),
    lowCut: text('lowCut'),
    pattern: text('pattern'),
    phantom: typeof settings['phantom'] === 'boolean' ? settings['phantom'] : null,
    voice: text('voice') || null,
    place: text('place') || null,
    mount: text('mount') || null,
    processing: text('processing'),
  });
}

/**
 * The correction that a filled-in form amounts to. Settings that the form has no field for stay as they are.
 *
 * @returns null where the gain was emptied: a take of the archive has one
 */
export function changeOfTake(take: Take, form: TakeSettings, note: string): Extract<Change, { kind: 'take' }> | null {
  if (notedGain(form) === null) return null;
  const others = Object.entries(take.settings).filter(([key]) => !FORM_KEYS.includes(key as FormKey));
  const own = FORM_KEYS.flatMap((key): [string, string | boolean][] => {
    const value = form[key];
    // Switched off where nobody had noted it is still not noted.
    const isNoted = value !== null && value !== '' && (value !== false || take.settings[key] !== undefined);
    return isNoted ? [[key, value]] : [];
  });
  return {
    kind: 'take',
    take: take.id,
    gainDb: form.gainDb,
    distanceM: form.distanceM,
    angleDeg: form.angleDeg,
    levelDbSpl: form.levelDbSpl,
    levelDbu: form.levelDbu,
    windSpeedMs: form.windSpeedMs,
    settings: Object.fromEntries([...others, ...own]),
    note: note.trim(),
  };
}
