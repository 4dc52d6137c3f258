import { quantileSorted } from '../stats/quantile';
import { db, powerToDb, type Db } from '../units';
import { ABSOLUTE_GATE_LUFS, lufsToPower } from './integrated-loudness';

/** Relative gate and percentiles of EBU Tech 3342 (2016), clause 3. */
const RELATIVE_GATE_LU = -20;
const LOW_PERCENTILE = 0.1;
const HIGH_PERCENTILE = 0.95;
/** Steps of 100 ms in a short-term block of 3 s; one block per step (Tech 3342 asks for 10 Hz at least). */
const STEPS_PER_BLOCK = 30;

/**
 * Loudness range, EBU Tech 3342: spread of short-term loudness between the 10th and the 95th percentile of the blocks
 * that pass −70 LUFS and a gate 20 LU below their mean power.
 *
 * @param stepPowers - K-weighted, channel-weighted power in steps of 100 ms
 * @returns in LU; null for a clip shorter than 3 s or without anything above the gates
 */
export function loudnessRange(stepPowers: ArrayLike<number>): Db | null {
  const absolute = lufsToPower(ABSOLUTE_GATE_LUFS);
  const audible: number[] = [];
  let sum = 0;
  let ofAudible = 0;
  for (let i = 0; i < stepPowers.length; i++) {
    sum += stepPowers[i];
    if (i >= STEPS_PER_BLOCK) sum -= stepPowers[i - STEPS_PER_BLOCK];
    const power = sum / STEPS_PER_BLOCK;
    if (i < STEPS_PER_BLOCK - 1 || !(power > absolute)) continue;
    audible.push(power);
    ofAudible += power;
  }
  if (audible.length === 0) return null;
  const gate = (ofAudible / audible.length) * 10 ** (RELATIVE_GATE_LU / 10);
  const loud = audible.filter((p) => p > gate);
  const kept = new Float64Array(loud.length);
  for (let i = 0; i < kept.length; i++) kept[i] = powerToDb(loud[i]);
  kept.sort();
  return db(quantileSorted(kept, HIGH_PERCENTILE) - quantileSorted(kept, LOW_PERCENTILE));
}
