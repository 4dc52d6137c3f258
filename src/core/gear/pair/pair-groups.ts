import type { Measurement } from '../../measure/measurement';
import type { QuantityId } from '../../measure/registry';
import type { RemovedBand } from '../../measure/removed-by-band';
import type { ChangePoint } from '../../measure/tonal-change';
import type { AnalysedTake } from '../run/analysed-take';
import { figureBetween } from './figure-between';
import { gainAdded } from './gain-added';
import { noiseChange } from './noise-change';
import { knocksLess, outsideLess, windLess } from './outside-less';
import { lowCutFigures, readTonalChange, tonalFigure } from './sound-change';
import { HOLDS_A_PERFORMANCE, type TakePair } from './take-pair';

/** What one part does at one setting of its switches. */
export interface PairGroup {
  readonly varies: string;
  readonly setting: string | null;
  readonly figures: readonly Measurement[];
  readonly tonal: { readonly bands: readonly ChangePoint[]; readonly from: string } | null;
  /** What it takes away of noise from outside, by third octaves, at equal gain. */
  readonly outside: readonly RemovedBand[] | null;
}

/**
 * What a part does, from its pairs: one group per setting of its switches, the plain one first. The takes without it are
 * another unit's; only what lies between the two is told.
 *
 * @param pairs - of one run, in the order of the protocol
 */
export function pairGroups(pairs: readonly TakePair[]): PairGroup[] {
  const groups = new Map<string, TakePair[]>();
  for (const pair of pairs) {
    const key = JSON.stringify([pair.varies, pair.setting]);
    groups.set(key, [...(groups.get(key) ?? []), pair]);
  }
  return [...groups.values()]
    .map((all) => groupOf(all))
    .filter((g) => g.figures.length > 0)
    .sort((x, y) => Number(x.setting !== null) - Number(y.setting !== null));
}

/** Figures of a run by its pairs: those of the first group that has each of them, the plain setting before switched ones. */
export function pairMeasurements(groups: readonly PairGroup[]): Measurement[] {
  const figures = new Map<QuantityId, Measurement>();
  for (const group of groups)
    for (const figure of group.figures) {
      const first = figures.get(figure.quantity);
      if (!first || (first.value === null && figure.value !== null)) figures.set(figure.quantity, figure);
    }
  return [...figures.values()];
}

function groupOf(pairs: readonly TakePair[]): PairGroup {
  const last = (...plays: readonly string[]): TakePair | undefined => pairs.findLast((p) => plays.includes(p.plays));
  const sweep = pairs.findLast((p) => p.fitted.response && p.without.response);
  const words = last('text') ?? last(...HOLDS_A_PERFORMANCE);
  const [noise, wind, knocks, tone] = [last('noise'), last('wind'), last('knocks'), last('tone')];
  const puffs = pairs.findLast((p) => figureOf(p.without, 'plosives') && p.without.role === 'plosive');
  const silence = last('silence');
  const tonal = readTonalChange(sweep, words);
  const outside = noise && outsideLess(noise, silence);
  return {
    varies: pairs[0].varies,
    setting: pairs[0].setting,
    figures: [
      ...gainAdded(sweep, tone, words),
      ...(words ? noiseChange(words, silence) : []),
      ...(tonal ? [tonalFigure(tonal)] : []),
      ...lowCutFigures(sweep, words?.difference ?? null),
      ...(outside?.figures ?? []),
      ...(wind ? windLess(wind) : []),
      ...(puffs ? clipChange(puffs, 'plosives', 'plosivesLess', -1) : []),
      ...(words ? clipChange(words, 'sibilance', 'sibilanceChange', 1) : []),
      ...(knocks ? knocksLess(knocks) : []),
    ].map((m) => withSetting(m, pairs[0])),
    tonal: tonal && { bands: tonal.bands, from: tonal.from },
    outside: outside?.bands ?? null,
  };
}

/** The condition says how the part was set. */
const withSetting = (m: Measurement, { setting }: TakePair): Measurement =>
  setting === null ? m : { ...m, condition: `${m.condition}, ${setting}` };

const figureOf = (take: AnalysedTake, id: QuantityId): Measurement | undefined =>
  take.clip.find((m) => m.quantity === id && m.value !== null);

/** A figure of single clips, with the part against without it. */
function clipChange(pair: TakePair, of: QuantityId, id: QuantityId, sign: 1 | -1): Measurement[] {
  const [x, y] = [figureOf(pair.fitted, of), figureOf(pair.without, of)];
  return x && y ? [figureBetween(id, x.condition, x, y, sign)] : [];
}
