import { takeSettingsSchema, type Slot, type TakeSettings } from '#contracts/session-plan';
import { levelsAsked, type Step, type TakeLevel } from '#contracts/protocol';
import { gainWords, notedGain, type NotedGain, type TakeGain } from '#core/rules/take-gain';
import { formatNumber } from '../../ui/format';
import { ruledGain } from '../sessions/session-progress';

/**
 * Settings that the next take of a step begins with: those of its newest take today; else what stands from the step before, with the gain
 * that the rule gives; else those of the unit's last session.
 */
export function startingSettings(slot: Slot, step: Step): TakeSettings {
  const own = slot.takes.findLast((t) => t.step === step.id);
  if (own) return own.settings;
  const before = slot.takes.at(-1)?.settings;
  const last = slot.lastSettings.find((l) => l.step === step.id)?.settings;
  const base = before ?? last ?? {};
  return takeSettingsSchema.parse({
    ...base,
    ...(ruledGain(slot, step) ?? noted(before ?? last)),
    distanceM: step.distanceM,
    angleDeg: step.angleDeg,
    ...levelsOf(step, before ?? last),
  });
}

/** A level or a speed goes on to the next step that asks for one; to others it is of no account. */
const levelsOf = (step: Step, of: Partial<TakeSettings> | undefined): Pick<TakeSettings, TakeLevel> => {
  const asked = levelsAsked(step);
  const kept = (level: TakeLevel): number | null => (asked.includes(level) ? (of?.[level] ?? null) : null);
  return { levelDbSpl: kept('levelDbSpl'), levelDbu: kept('levelDbu'), windSpeedMs: kept('windSpeedMs') };
};

const noted = (of: Partial<TakeSettings> | undefined): NotedGain => ({
  gainDb: of?.gainDb ?? null,
  dial: of?.dial ?? '',
});

const NAMES: Readonly<Record<keyof TakeSettings, string>> = {
  gainDb: 'gain',
  dial: 'dial',
  distanceM: 'distance',
  angleDeg: 'angle',
  pad: 'pad',
  lowCut: 'low-cut',
  pattern: 'pattern',
  phantom: 'phantom power',
  voice: 'voice',
  place: 'place',
  mount: 'mount',
  processing: 'processed:',
  levelDbSpl: 'calibrator',
  levelDbu: 'level at the input',
  windSpeedMs: 'wind',
};

function textOf(key: keyof TakeSettings, value: TakeSettings[keyof TakeSettings] | undefined): string {
  if (value === null || value === undefined || value === '') return 'not noted';
  if (typeof value === 'boolean') return value ? 'on' : 'off';
  if (typeof value === 'string') return value;
  if (key === 'gainDb') return `${formatNumber(value, 1)} dB`;
  if (key === 'levelDbSpl') return `${formatNumber(value, 1)} dB SPL`;
  if (key === 'levelDbu') return `${formatNumber(value, 1)} dBu`;
  if (key === 'windSpeedMs') return `${formatNumber(value, 1)} m/s`;
  if (key === 'distanceM') return `${formatNumber(100 * value, 1)} cm`;
  return `${formatNumber(value, 0)}°`;
}

const gainText = (gain: TakeGain | null): string =>
  gain === null ? 'gain not noted' : gain.kind === 'dB' ? `${formatNumber(gain.db, 1)} dB gain` : gainWords(gain);

/** A take's settings in one line, those that were noted. */
export function settingsLine(settings: TakeSettings): string {
  return (Object.keys(NAMES) as (keyof TakeSettings)[])
    .flatMap((key) => {
      const value = settings[key];
      if (key === 'gainDb') return gainText(notedGain(settings));
      if (key === 'dial' && settings.gainDb === null) return [];
      if (value === null || value === '' || value === false) return [];
      if (key === 'distanceM' || key === 'angleDeg') return textOf(key, value);
      return `${NAMES[key]} ${textOf(key, value)}`;
    })
    .join(' · ');
}

/** In what today's settings differ from those of the unit's last session at this step; empty where nothing does. */
export function differences(slot: Slot, step: Step, now: TakeSettings): { day: string; texts: string[] } | null {
  const last = slot.lastSettings.find((l) => l.step === step.id);
  if (!last) return null;
  const texts = (Object.keys(NAMES) as (keyof TakeSettings)[]).flatMap((key) => {
    const before = last.settings[key];
    // What nobody noted then says nothing of then.
    if (before === undefined || before === null || before === '' || before === now[key]) return [];
    // The step gives the angle; where it gives none, none can be noted.
    if (key === 'angleDeg' && step.angleDeg === null) return [];
    return [`${NAMES[key]} ${textOf(key, before)} then, ${textOf(key, now[key])} now`];
  });
  return { day: last.day, texts };
}
