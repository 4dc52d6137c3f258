import { CALIBRATOR_UNCERTAINTY_DB, ONE_PASCAL_DB_SPL, type AcousticReference } from '../../measure/self-noise';
import type { AnalysedTake, RunChain } from '../run/analysed-take';

/** Standard uncertainty of a claimed sensitivity (common practice, no source). */
const CLAIM_UNCERTAINTY_DB = 1;

/** Level of the calibrator's tone: its third octave holds nothing else of weight. */
export const toneDbfs = ({ loudest }: AnalysedTake): number | null =>
  Number.isFinite(loudest.oneKilohertzDbfs) ? loudest.oneKilohertzDbfs : null;

/** What ties dBFS to dB SPL in a run: its calibration take, the rig's sound calibration, or a claimed sensitivity. */
export function acousticReference(calibration: AnalysedTake | undefined, chain: RunChain): AcousticReference | null {
  const tone = calibration ? toneDbfs(calibration) : null;
  if (calibration && calibration.levelDbSpl !== null && tone !== null) {
    return {
      kind: 'calibration',
      toneDbfs: tone,
      toneDbSpl: calibration.levelDbSpl,
      gainDb: calibration.gainDb,
      uncertaintyDb: CALIBRATOR_UNCERTAINTY_DB,
    };
  }
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
