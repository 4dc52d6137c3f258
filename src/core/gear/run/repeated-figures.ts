import type { Measurement } from '../../measure/measurement';
import type { QuantityId } from '../../measure/registry';
import { mean, standardDeviation } from '../../stats/moments';
import type { TakeSettingsNoted } from '../../rules/take-conditions';
import type { AnalysedTake } from './analysed-take';

/** A take with the step and the settings that it was noted with. */
export interface NotedTake {
  readonly step: string;
  readonly settings: TakeSettingsNoted;
  readonly analysed: AnalysedTake;
}

/** Figures that are read from all takes of a run together: a repeat adds to them, and is none. */
const OVER_ALL_TAKES: readonly QuantityId[] = ['dropOuts', 'sideLevel', 'sideDifference', 'sealSpread', 'seatSpread'];
/** Repeats beyond these make no figure surer that anybody would notice. */
const MOST_REPEATS = 12;

/** What of a take makes another one a repeat of it: everything that was noted, and which steady tone it holds. */
function sameness({ step, settings, analysed: t }: NotedTake): string {
  const noted = Object.entries(settings)
    .map(([name, value]) => [name, String(value).trim().toLowerCase()])
    .filter(([, value]) => value !== '')
    .sort(([a], [b]) => (a < b ? -1 : 1));
  return JSON.stringify([
    step,
    t.gainDb,
    t.distanceM,
    t.angleDeg,
    t.levelDbu,
    t.levelDbSpl,
    t.windSpeedMs,
    toneKey(t),
    noted,
  ]);
}

/** Tones that differ by more than a decibel or by a fiftieth of their frequency are none of each other's repeats. */
const toneKey = ({ tone }: AnalysedTake): readonly number[] | null =>
  tone ? [Math.round(tone.distortion.levelDbfs), Math.round(Math.log(tone.distortion.hz) / Math.log(1.02))] : null;

/**
 * The takes of a run once for every repeat: of each thing that was recorded several times one, of what was recorded
 * less often its last.
 *
 * @param takes - in order
 * @returns one selection where nothing was repeated
 */
export function repeatsOf<T extends NotedTake>(takes: readonly T[]): T[][] {
  const groups = new Map<string, T[]>();
  for (const take of takes) {
    const key = sameness(take);
    groups.set(key, [...(groups.get(key) ?? []), take]);
  }
  const most = Math.min(MOST_REPEATS, Math.max(1, ...[...groups.values()].map((g) => g.length)));
  return Array.from({ length: most }, (_, i) => {
    const chosen = new Set([...groups.values()].map((g) => g[Math.min(i, g.length - 1)]));
    return takes.filter((t) => chosen.has(t));
  });
}

/** Readings of one figure from repeats that differ: what does not depend on a repeated take gives one. */
export function distinctReadings(passes: readonly (readonly Measurement[])[], id: QuantityId): Measurement[] {
  const readings: Measurement[] = [];
  for (const pass of passes) {
    const found = pass.find((m) => m.quantity === id);
    if (found && found.value !== null && found.bound === 'exact' && !readings.some((r) => r.value === found.value))
      readings.push(found);
  }
  return readings;
}

/**
 * Figures of a run with what its repeats say: their mean, their scatter, and the uncertainty of that mean
 * (√(u² + s²/n): what one take does not know of itself is taken to be the same in all, JCGM 100:2008 4.2.3).
 *
 * @param figures - as the last take of each step gives them
 * @param passes - the same figures, once for every repeat
 */
export function withRepeats(
  figures: readonly Measurement[],
  passes: readonly (readonly Measurement[])[],
): Measurement[] {
  if (passes.length < 2) return [...figures];
  return figures.map((figure) => {
    if (figure.value === null || OVER_ALL_TAKES.includes(figure.quantity)) return figure;
    const readings = distinctReadings(passes, figure.quantity);
    if (readings.length < 2) return figure;
    const values = readings.map((r) => r.value as number);
    const [count, sd] = [values.length, standardDeviation(values)];
    const own = mean(readings.map((r) => (r.uncertainty ?? 0) ** 2));
    return {
      ...figure,
      value: mean(values),
      bound: 'exact',
      condition: `${figure.condition}, mean of ${count} repeats`,
      spread: { sd, count, of: 'repeats' },
      uncertainty: Math.sqrt(own + sd ** 2 / count),
      settings: { ...figure.settings, repeats: count },
    };
  });
}
