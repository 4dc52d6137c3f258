import { RUMBLE_BELOW_HZ, levelBelow } from './wind';
import { removedByBand, type RemovedBand } from './removed-by-band';
import type { BandLevel } from './third-octave-spectrum';
import { mean, standardDeviation } from '../stats/moments';
import { powerToDb } from '../units';

/** A take of a noise from outside. */
export interface OutsideTake {
  /** Long-term spectrum of the whole take. */
  readonly thirdOctave: readonly BandLevel[];
  /** A-weighted level of the whole take, AES17 dBFS. */
  readonly aDbfs: number;
  /** K-weighted power in steps of 100 ms: how steady it is. */
  readonly stepPowers: Float64Array;
  readonly gainDb: number;
}

/** A level without the part minus the level with it. */
export interface Attenuation {
  readonly db: number;
  /** Standard uncertainty by the unsteadiness of both takes, dB; null where they are too short to tell. */
  readonly u: number | null;
}

/** What a part takes away of a noise from outside. */
export interface OutsideChange {
  readonly z: Attenuation;
  readonly a: Attenuation;
  /** 20–200 Hz. */
  readonly low: Attenuation;
  readonly bands: readonly RemovedBand[];
}

const STEPS_PER_BLOCK = 10;
const LEAST_BLOCKS = 4;

/**
 * What a part takes away of a noise from outside: levels without it minus levels with it, at equal gain. The loudness of
 * neither is touched; a shield that takes 10 dB away would otherwise take nothing.
 *
 * @param without - the noise without the part
 * @param fitted - the same noise with it
 * @returns null where one of them is digital silence
 */
export function outsideChange(without: OutsideTake, fitted: OutsideTake): OutsideChange | null {
  const whole = ({ thirdOctave }: OutsideTake): number => levelBelow(thirdOctave, Infinity);
  if (![without, fitted].every((take) => Number.isFinite(whole(take)) && Number.isFinite(take.aDbfs))) return null;
  const gainDb = fitted.gainDb - without.gainDb;
  const scatter = [without, fitted].map(({ stepPowers }) => levelScatter(stepPowers));
  const u = scatter.some((s) => s === null) ? null : Math.hypot(...scatter.map((s) => s ?? 0));
  const less = (level: (take: OutsideTake) => number): Attenuation => ({
    db: level(without) - level(fitted) + gainDb,
    u,
  });
  return {
    z: less(whole),
    a: less((take) => take.aDbfs),
    low: less(({ thirdOctave }) => levelBelow(thirdOctave, RUMBLE_BELOW_HZ)),
    bands: removedByBand(without.thirdOctave, fitted.thirdOctave).map((b) => ({
      ...b,
      removedDb: b.removedDb === null ? null : b.removedDb + gainDb,
    })),
  };
}

/** Standard uncertainty of a mean level by its scatter from second to second, dB; null for less than four seconds. */
function levelScatter(stepPowers: Float64Array): number | null {
  const count = Math.floor(stepPowers.length / STEPS_PER_BLOCK);
  if (count < LEAST_BLOCKS) return null;
  const levels = Array.from({ length: count }, (_, b) =>
    powerToDb(mean(stepPowers.subarray(b * STEPS_PER_BLOCK, (b + 1) * STEPS_PER_BLOCK))),
  ).filter(Number.isFinite);
  return levels.length < LEAST_BLOCKS ? null : standardDeviation(levels) / Math.sqrt(levels.length);
}
