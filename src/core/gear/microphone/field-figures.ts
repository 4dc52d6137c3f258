import { exceededTenth, usableWind, WIND_LIMIT_DB, type UsableWind } from '../../measure/field-noise';
import { formatNumber } from '../../measure/figure-text';
import { measured, notMeasured, type Bound, type Measurement } from '../../measure/measurement';
import { windNoise } from '../../measure/wind';
import { lastTake, type AnalysedTake, type WindAtSpeed } from '../run/analysed-take';
import { gained, isRefused, type GainedTake } from '../run/gained-take';
import { windAlone, type WindAlone } from '../run/wind-alone';

/** A step of loudness is 100 ms long. */
const STEPS_PER_MINUTE = 600;

/** What wind and clothing do beside the voice; figures of steps that the run does not have are left out. */
export function fieldFigures(takes: readonly AnalysedTake[], speech: AnalysedTake): Measurement[] {
  const rub = lastTake(takes, 'rub');
  return [...usableWindFigure(takes, speech), ...(rub ? rubFigures(rub, speech) : [])];
}

/** The wind of a take, held against the voice of the speech take at its gain. */
export const windOf = ([wind, speech]: readonly GainedTake[]): WindAlone<GainedTake> =>
  windAlone(wind, speech.aDbfs - speech.gainDb + wind.gainDb);

/** Wind noise of every take that notes its speed and can be held against the speech, in order. */
function windReadings(takes: readonly AnalysedTake[], speech: AnalysedTake) {
  return takes.flatMap((wind) => {
    if (wind.role !== 'wind' || wind.windSpeedMs === null) return [];
    const both = gained(wind, speech);
    if (isRefused(both)) return [];
    const [low, a] = windNoise(windOf(both), speech.loudness.integratedLufs, both[1].gainDb);
    return [{ speedMs: wind.windSpeedMs, low, a }];
  });
}

/** Wind noise at every speed that was noted, of one speed the last take; null for fewer than two speeds. */
export function windBySpeed(takes: readonly AnalysedTake[], speech: AnalysedTake): WindAtSpeed[] | null {
  const bySpeed = new Map<number, WindAtSpeed>();
  for (const { speedMs, low, a } of windReadings(takes, speech))
    bySpeed.set(speedMs, { speedMs, lowDb: low.value, aDb: a.value, bound: a.bound });
  return bySpeed.size < 2 ? null : [...bySpeed.values()].sort((x, y) => x.speedMs - y.speedMs);
}

/** Highest usable speed; of takes at one speed alone nothing is told that the figure at that speed does not tell. */
function usableWindFigure(takes: readonly AnalysedTake[], speech: AnalysedTake): Measurement[] {
  const winds = takes.filter((t) => t.role === 'wind' && t.windSpeedMs !== null);
  if (new Set(winds.map((t) => t.windSpeedMs)).size < 2) return [];
  const condition = `A-weighted wind noise at ${formatNumber(WIND_LIMIT_DB, 0)} dB re speech, from ${[...new Set(winds.map((t) => t.windSpeedMs))].sort((a, b) => (a ?? 0) - (b ?? 0)).join(', ')} m/s`; // prettier-ignore
  const readings = windReadings(takes, speech).flatMap(({ speedMs, a }) =>
    a.value === null ? [] : [{ speedMs, aDb: a.value, bound: a.bound }],
  );
  const found = usableWind(readings);
  return [
    found
      ? measured('windUsable', found.speedMs, condition, { bound: usableBound(found, readings) })
      : notMeasured('windUsable', condition, 'No take in the wind can be held against the speech.'),
  ];
}

/** Wind that is a limit may be less: between it and a quieter one more is usable than the line between them says. */
function usableBound(
  { bound, speedMs }: UsableWind,
  readings: readonly { readonly speedMs: number; readonly bound: Bound }[],
): Bound {
  const above = readings.filter((r) => r.speedMs >= speedMs);
  if (bound === 'exact') return above.some((r) => r.bound === 'at-most') ? 'at-least' : 'exact';
  return bound;
}

function rubFigures(rub: AnalysedTake, speech: AnalysedTake): Measurement[] {
  const condition = 're gated speech loudness, equal gain';
  const both = gained(rub, speech);
  const level = speech.loudness.integratedLufs;
  const reason = isRefused(both) ? both.refused : Number.isFinite(level) ? null : 'The speech take is silent.';
  if (reason !== null || isRefused(both))
    return (['rubLoudest', 'rubTenth'] as const).map((id) => notMeasured(id, condition, reason ?? ''));
  const re = (db: number): number => db - both[0].gainDb - (level - both[1].gainDb);
  return [
    measured('rubLoudest', re(rub.loudest.aDbfs), `loudest third of a second, ${condition}`),
    measured('rubTenth', re(exceededTenth(rub.stepPowers)), `exceeded a tenth of the time, ${condition}`),
  ];
}

/** Drop-outs of the range walk by its length. */
export function linkFigures(walk: AnalysedTake | undefined): Measurement[] {
  const found = walk?.clip.find((m) => m.quantity === 'dropOuts');
  if (!walk || !found || found.value === null) return [];
  const minutes = walk.stepPowers.length / STEPS_PER_MINUTE;
  return minutes === 0
    ? []
    : [
        measured(
          'linkDropOuts',
          found.value / minutes,
          `${found.value} in ${minutes.toFixed(1)} min, ${found.condition}`,
          {
            settings: found.settings,
          },
        ),
      ];
}
