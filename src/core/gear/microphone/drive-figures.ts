import { measured, notMeasured, type Measurement } from '../../measure/measurement';
import { SPEECH_TARGET_LUFS } from '../../measure/noise-re-speech';
import { CALIBRATOR_UNCERTAINTY_DB, DBU_VOLTS, ONE_PASCAL_DB_SPL } from '../../measure/self-noise';
import type { AnalysedTake, RunChain } from '../run/analysed-take';
import { inDecibels, isRefused } from '../run/gained-take';
import { toneDbfs } from './acoustic-reference';

/** How loud a microphone must be driven: gain to the usual loudness of speech, and sensitivity by a calibrator. */
export function driveFigures(
  speech: AnalysedTake | undefined,
  calibration: AnalysedTake | undefined,
  chain: RunChain,
): Measurement[] {
  const figures: Measurement[] = [];
  if (speech && speech.speechS > 0 && Number.isFinite(speech.loudness.integratedLufs)) {
    const at = speech.distanceM === null ? 'distance not noted' : `at ${speech.distanceM.toFixed(2)} m`;
    const condition = `spoken passage ${at}, this interface`;
    const known = inDecibels(speech);
    figures.push(
      isRefused(known)
        ? notMeasured('gainToTarget', condition, known.refused)
        : measured('gainToTarget', known.gainDb + SPEECH_TARGET_LUFS - speech.loudness.integratedLufs, condition, {
            uncertainty: speech.loudness.uncertaintyLu,
          }),
    );
  }
  const tone = calibration ? toneDbfs(calibration) : null;
  if (calibration && calibration.levelDbSpl !== null && tone !== null && chain.fullScaleDbu !== null) {
    const condition = `1 kHz, by a calibrator of ${calibration.levelDbSpl} dB SPL`;
    const known = inDecibels(calibration);
    if (isRefused(known)) return [...figures, notMeasured('sensitivity', condition, known.refused)];
    const dbu = tone - known.gainDb + chain.fullScaleDbu + ONE_PASCAL_DB_SPL - calibration.levelDbSpl;
    const value = 1000 * DBU_VOLTS * 10 ** (dbu / 20);
    figures.push(
      measured('sensitivity', value, condition, {
        uncertainty:
          value * (10 ** (Math.hypot(CALIBRATOR_UNCERTAINTY_DB, chain.fullScaleUncertaintyDb ?? 0) / 20) - 1),
        settings: { fullScaleDbu: chain.fullScaleDbu },
      }),
    );
  }
  return figures;
}
