import { deviationBetween, pooledScatter, type PooledScatter, type RepeatedReading } from '../stats/pooled-scatter';
import type { QuantityId } from './registry';

/** How readings of a figure scatter: by as many units, or by a share of the value. */
interface ReadingPrior {
  readonly sd: number;
  readonly isRelative: boolean;
}

const absolute = (sd: number): ReadingPrior => ({ sd, isRelative: false });
const relative = (sd: number): ReadingPrior => ({ sd, isRelative: true });

/**
 * What one reading differs from the next by, before an archive's own repeats say it: the same voice, unit, place and
 * protocol on another day. Common practice, no source; each is replaced by what repeats show.
 */
const PRIORS: Partial<Record<QuantityId, ReadingPrior>> = {
  silenceRmsZ: absolute(1.5),
  silenceRmsA: absolute(1),
  silenceItu468: absolute(1.5),
  integratedLoudness: absolute(0.8),
  gainToTarget: absolute(0.8),
  noiseReSpeechZ: absolute(1.5),
  noiseReSpeechA: absolute(1.1),
  selfNoise: absolute(0.7),
  hum: absolute(2),
  interference: absolute(2),
  rearRejection: absolute(1),
  rejection90: absolute(0.7),
  rejection180: absolute(1),
  patternAlpha: absolute(0.03),
  directivityIndex: absolute(0.3),
  proximity: absolute(0.8),
  sibilance: absolute(0.7),
  plosives: absolute(2),
  handlingZ: absolute(3),
  handlingA: absolute(3),
  windLow: absolute(2),
  windA: absolute(2),
  responseLow3: relative(0.03),
  responseLow6: relative(0.03),
  responseHigh3: relative(0.03),
  responseHigh6: relative(0.03),
  responseDeviation: absolute(0.3),
  responseSlope: absolute(0.1),
  responsePeak: absolute(0.4),
  responseDip: absolute(0.4),
  presence: absolute(0.4),
  thdSweep: absolute(1),
  sensitivity: relative(0.03),
  criticalDistance: relative(0.15),
  usableDistance: relative(0.15),
  edt: relative(0.07),
  t20: relative(0.05),
  t30: relative(0.05),
  c50: absolute(0.5),
  directToReverberant: absolute(0.5),
};

/** Repeats of a figure, pooled on the scale on which it scatters. */
export function pooledReadings(id: QuantityId, groups: readonly (readonly RepeatedReading[])[]): PooledScatter {
  if (!PRIORS[id]?.isRelative) return pooledScatter(groups);
  return pooledScatter(
    groups.map((group) =>
      group
        .filter((r) => r.value > 0)
        .map(({ value, uncertainty }) => ({
          value: Math.log(value),
          uncertainty: uncertainty === null ? null : uncertainty / value,
        })),
    ),
  );
}

const NONE: PooledScatter = { variance: 0, degrees: 0 };

/**
 * What another reading of the same thing would scatter by beside a figure's own uncertainty, in its unit: the same
 * voice, unit, place and protocol on another day; not another voice, room or specimen.
 *
 * @param id - which figure
 * @param value - of the figure
 * @param pooled - repeats of it in the archive; null for none
 * @param usual - deviation that a rubric expects, in the figure's unit; null for the usual one of Sediment
 * @returns null for figures of a single file, of which there is no other reading
 */
export function scatterBetween(
  id: QuantityId,
  value: number,
  pooled: PooledScatter | null,
  usual: number | null = null,
): number | null {
  const prior = PRIORS[id];
  const scale = prior?.isRelative ? Math.abs(value) : 1;
  const sd = usual !== null && scale > 0 ? usual / scale : prior?.sd;
  return sd === undefined ? null : scale * deviationBetween(pooled ?? NONE, sd);
}

/**
 * Standard uncertainty of a figure for another reading: its own, and what readings differ by.
 *
 * @param own - of this reading; null where it is not known
 * @param between - from {@link scatterBetween}
 */
export const anotherReading = (own: number | null, between: number | null): number | null =>
  between === null ? null : Math.hypot(own ?? 0, between);
