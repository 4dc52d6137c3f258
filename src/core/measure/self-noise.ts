import { measured, notMeasured, type Measurement } from './measurement';
import { bandText } from './band-text';
import { noiseSettings, pausesText, type SilenceNoise } from './silence-noise';

/** 1 Pa re 20 µPa: 20·lg(1/20e-6), IEC 61094; "94 dB". */
export const ONE_PASCAL_DB_SPL = 93.9794;
/**
 * Standard uncertainty of a sound calibrator: class 1 of IEC 60942:2003, ±0.40 dB, taken as a rectangle. (From memory;
 * IEC 942:1988 had ±0.3 dB, and IEC 60942:2017 is tighter again: the widest of what is in use counts.)
 */
export const CALIBRATOR_UNCERTAINTY_DB = 0.4 / Math.sqrt(3);
/** 0 dBu in volts. */
export const DBU_VOLTS = Math.sqrt(0.6);

/** What ties dBFS of a recording to sound pressure. */
export type AcousticReference =
  | {
      readonly kind: 'sensitivity';
      /** Of the microphone at 1 kHz, in millivolts per pascal. */
      readonly sensitivityMvPa: number;
      /** Input level that reaches full scale at 0 dB of gain, in dBu. */
      readonly fullScaleDbu: number;
      /** Relative standard uncertainty of the sensitivity, in dB. */
      readonly uncertaintyDb: number;
    }
  | {
      readonly kind: 'calibration';
      /** Level of the calibrator's tone in the take, AES17, in dBFS. */
      readonly toneDbfs: number;
      readonly toneDbSpl: number;
      /** Gain of the calibration take, in dB. */
      readonly gainDb: number;
      readonly uncertaintyDb: number;
    };

/**
 * Sound pressure level that reads 0 dBFS at a gain.
 *
 * @param reference - a calibration take, or sensitivity and input level
 * @param gainDb - gain of the take in question
 * @returns in dB SPL
 */
export function fullScaleDbSpl(reference: AcousticReference, gainDb: number): number {
  if (reference.kind === 'calibration') return reference.toneDbSpl - reference.toneDbfs - (gainDb - reference.gainDb);
  const onePascalDbu = 20 * Math.log10(reference.sensitivityMvPa / 1000 / DBU_VOLTS);
  return ONE_PASCAL_DB_SPL - (onePascalDbu + gainDb - reference.fullScaleDbu);
}

/**
 * Noise of a silent take as the sound pressure level that would read the same, A-weighted: self-noise of the
 * microphone where it exceeds room and preamp, otherwise an upper limit to it.
 *
 * @param noise - the silent part
 * @param gainDb - gain of the silent take
 * @param reference - what ties dBFS to dB SPL; null where neither calibration nor sensitivity is known
 */
export function selfNoise(
  noise: SilenceNoise | null,
  gainDb: number,
  reference: AcousticReference | null,
): Measurement {
  const where = noise ? `${bandText(noise.highHz)}, ${pausesText(noise)}, ` : '';
  const condition = `A-weighted, ${where}room and preamp included`;
  if (!reference) {
    return notMeasured('selfNoise', condition, 'Neither a calibration take nor sensitivity and input level are known.');
  }
  if (!noise) return notMeasured('selfNoise', condition, 'The silent take holds no silence of at least 0.5 s.');
  if (noise.refused !== null) return notMeasured('selfNoise', condition, noise.refused);
  const fullScale = fullScaleDbSpl(reference, gainDb);
  // Room and preamp are in it: the microphone's own noise can only be lower.
  return measured('selfNoise', noise.a.levelDbfs + fullScale, condition, {
    bound: 'at-most',
    spread: noise.a.spread,
    uncertainty: noise.a.uncertaintyDb === null ? null : Math.hypot(noise.a.uncertaintyDb, reference.uncertaintyDb),
    settings: { by: reference.kind, fullScaleDbSpl: fullScale, ...noiseSettings(noise) },
  });
}
