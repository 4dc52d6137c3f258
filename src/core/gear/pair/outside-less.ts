import { measured, notMeasured, type Measurement } from '../../measure/measurement';
import { outsideChange, type Attenuation } from '../../measure/outside-noise';
import type { QuantityId } from '../../measure/registry';
import { amplitudeRemoved, energyRemoved, type RemovedBand } from '../../measure/removed-by-band';
import type { AnalysedTake } from '../run/analysed-take';
import { GAIN_UNCERTAINTY_DB, gained, isRefused } from '../run/gained-take';
import { windAlone } from '../run/wind-alone';
import type { TakePair } from './take-pair';

/** What stands so near to the device's own noise is only a lower limit of what was taken away. */
const NEAR_OWN_NOISE_DB = 3;

/** A share of what was there, in words that keep energy and amplitude apart. */
function shareText(db: number): string {
  const percent = (share: number): string => `${Math.round(100 * Math.abs(share))} %`;
  return db >= 0
    ? `${percent(energyRemoved(db))} of the energy, ${percent(amplitudeRemoved(db))} of the amplitude`
    : `${percent(energyRemoved(db))} more energy, ${percent(amplitudeRemoved(db))} more amplitude`;
}

function attenuationFigure(
  id: QuantityId,
  found: Attenuation,
  condition: string,
  gainBetween: number,
  bound: Measurement['bound'] = 'exact',
): Measurement {
  return measured(id, found.db, `${condition}: ${shareText(found.db)}`, {
    bound,
    uncertainty: found.u === null ? null : Math.hypot(found.u, gainBetween === 0 ? 0 : GAIN_UNCERTAINTY_DB),
    settings: { gainBetweenDb: gainBetween },
  });
}

/** What is taken away of a steady noise, by third octaves as well. */
export function outsideLess(
  { fitted, without }: TakePair,
  silence: TakePair | undefined,
): { readonly figures: readonly Measurement[]; readonly bands: readonly RemovedBand[] | null } {
  const ids = ['outsideLessZ', 'outsideLessA'] as const;
  const missing = (reason: string) => ({
    figures: ids.map((id) => notMeasured(id, 'equal gain', reason)),
    bands: null,
  });
  const both = gained(fitted, without);
  if (isRefused(both)) return missing(both.refused);
  const change = outsideChange(both[1], both[0]);
  if (!change) return missing('One of the two takes is digital silence.');
  const between = both[0].gainDb - both[1].gainDb;
  const own = silence && ownNoise(silence.fitted, fitted);
  const bound = own !== undefined && own !== null && fitted.aDbfs - own < NEAR_OWN_NOISE_DB ? 'at-least' : 'exact';
  return {
    figures: [
      attenuationFigure('outsideLessZ', change.z, 'unweighted, equal gain', between, bound),
      attenuationFigure('outsideLessA', change.a, 'A-weighted, equal gain', between, bound),
    ],
    bands: change.bands,
  };
}

/** A-weighted noise of the silent take at the gain of another one; null where that is not known. */
function ownNoise(silence: AnalysedTake, take: AnalysedTake): number | null {
  const both = gained(silence, take);
  return isRefused(both) || !silence.noise ? null : silence.noise.a.levelDbfs + both[1].gainDb - both[0].gainDb;
}

/** What is taken away of the wind, at one speed of it; words that were spoken into it are no wind. */
export function windLess({ fitted, without }: TakePair): Measurement[] {
  const ids = ['windLessLow', 'windLessA'] as const;
  const missing = (reason: string): Measurement[] => ids.map((id) => notMeasured(id, 'equal gain', reason));
  if (fitted.windSpeedMs !== without.windSpeedMs)
    return missing('The two takes were made at different speeds of the wind, or only one of them was noted.');
  const both = gained(fitted, without);
  if (isRefused(both)) return missing(both.refused);
  // Where the screen lets words be found, they were spoken into the bare take as well, and are in its level.
  const words = both.map((t) => (t.speechS > 0 ? t.aDbfs - t.gainDb : -Infinity));
  const [shielded, bare] = both.map((t) => windAlone(t, Math.max(...words) + t.gainDb));
  const change = outsideChange(bare, shielded);
  if (!change) return missing('One of the two takes is digital silence.');
  const between = both[0].gainDb - both[1].gainDb;
  const speed = fitted.windSpeedMs === null ? 'wind speed not noted' : `wind of ${fitted.windSpeedMs} m/s`;
  const figure = (id: (typeof ids)[number], found: Attenuation, band: string): Measurement => {
    const bound = id === 'windLessA' && bare.bound === 'at-most' ? 'at-most' : 'exact';
    const m = attenuationFigure(id, found, `${band}, equal gain, ${speed}`, between, bound);
    return fitted.windSpeedMs === null ? m : { ...m, settings: { ...m.settings, windSpeedMs: fitted.windSpeedMs } };
  };
  return [figure('windLessLow', change.low, '20–200 Hz'), figure('windLessA', change.a, 'A-weighted')];
}

/** What is taken away of knocks that were made alike. */
export function knocksLess({ fitted, without }: TakePair): Measurement[] {
  const condition = 'unweighted maximum of a third of a second, equal gain, knocked alike';
  const both = gained(fitted, without);
  if (isRefused(both)) return [notMeasured('knocksLess', condition, both.refused)];
  const db = without.loudest.zDbfs - both[1].gainDb - (fitted.loudest.zDbfs - both[0].gainDb);
  if (!Number.isFinite(db)) return [notMeasured('knocksLess', condition, 'One of the two takes is digital silence.')];
  return [measured('knocksLess', db, condition)];
}
