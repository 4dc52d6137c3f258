import { CALIBRATOR_UNCERTAINTY_DB, ONE_PASCAL_DB_SPL, type AcousticReference } from '../../measure/self-noise';
import type { AnalysedTake, RunChain } from '../run/analysed-take';
import { gained, inDecibels, isRefused, type NoGain } from '../run/gained-take';

/** Standard uncertainty of a claimed sensitivity (common practice, no source). */
const CLAIM_UNCERTAINTY_DB = 1;

/** Level of the calibrator's tone: its third octave holds nothing else of weight. */
export const toneDbfs = ({ loudest }: AnalysedTake): number | null =>
  Number.isFinite(loudest.oneKilohertzDbfs) ? loudest.oneKilohertzDbfs : null;

/** A reference, and the gain of the take that it is for, on one scale with it. */
export interface ReferenceFor {
  readonly reference: AcousticReference;
  readonly gainDb: number;
}

/**
 * What ties dBFS of a take to dB SPL: the calibration take of its run, made at a gain that can be held against its own;
 * else the rig's sound calibration or a claimed sensitivity, both of which need decibels.
 *
 * @returns null where none of them is there
 */
export function acousticReference(
  take: AnalysedTake,
  calibration: AnalysedTake | undefined,
  chain: RunChain,
): ReferenceFor | NoGain | null {
  const tone = calibration ? toneDbfs(calibration) : null;
  if (calibration && calibration.levelDbSpl !== null && tone !== null) {
    const both = gained(take, calibration);
    if (isRefused(both)) return both;
    const reference = {
      kind: 'calibration',
      toneDbfs: tone,
      toneDbSpl: calibration.levelDbSpl,
      gainDb: both[1].gainDb,
      uncertaintyDb: CALIBRATOR_UNCERTAINTY_DB,
    } as const;
    return { reference, gainDb: both[0].gainDb };
  }
  const reference = referenceOfChain(chain);
  const known = inDecibels(take);
  return reference === null || isRefused(known) ? reference && (known as NoGain) : { reference, gainDb: known.gainDb };
}

function referenceOfChain(chain: RunChain): AcousticReference | null {
  if (chain.onePascal) {
    const { dbfs, uncertaintyDb } = chain.onePascal;
    return { kind: 'calibration', toneDbfs: dbfs, toneDbSpl: ONE_PASCAL_DB_SPL, gainDb: 0, uncertaintyDb };
  }
  if (chain.claimedSensitivityMvPa === null || chain.fullScaleDbu === null) return null;
  return {
    kind: 'sensitivity',
    sensitivityMvPa: chain.claimedSensitivityMvPa,
    fullScaleDbu: chain.fullScaleDbu,
    uncertaintyDb: Math.hypot(CLAIM_UNCERTAINTY_DB, chain.fullScaleUncertaintyDb ?? 0),
  };
}
