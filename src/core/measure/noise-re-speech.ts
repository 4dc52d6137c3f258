import { powerToDb } from '../units';
import { bandText } from './band-text';
import { gatedLoudness } from './integrated-loudness';
import type { LoudnessFigures } from './loudness';
import { measured, notMeasured, type Measurement } from './measurement';
import { noiseSettings, type SilenceNoise } from './silence-noise';

/** Loudness to which the speech is brought before the noise is read (EBU R 128 programme level). */
export const SPEECH_TARGET_LUFS = -23;

/** Speech nearer to the noise cannot be told from it reliably (see rear-rejection). */
const LEAST_SIGNAL_TO_NOISE_DB = 3;

/** The speech that noise is compared with. */
export interface SpeechReference {
  readonly loudness: Pick<LoudnessFigures, 'integratedLufs' | 'uncertaintyLu'>;
  /** K-weighted, channel-weighted power in steps of 100 ms. */
  readonly stepPowers: Float64Array;
  /** Gain of the recording, in dB. */
  readonly gainDb: number;
}

/** The silence in which noise is read. */
export interface NoiseTake {
  readonly noise: SilenceNoise | null;
  readonly gainDb: number;
}

/**
 * RMS of the silent part after the gain that brings the speech to −23 LUFS, unweighted and A-weighted; the noise that
 * the speech stands in is taken off its loudness first. Where the
 * two takes were made at different gains, the difference is taken out first. A full-scale sine reads 0 dB (AES17).
 * The uncertainty joins that of the speech's loudness and that of the noise by root sum of squares (JCGM 100).
 *
 * @param speech - the spoken passage
 * @param silence - the silent take, or the same clip where it has a pause
 * @returns unweighted and A-weighted figure, in this order
 */
export function noiseReSpeech(speech: SpeechReference, silence: NoiseTake): [Measurement, Measurement] {
  const { uncertaintyLu } = speech.loudness;
  const gainBetween = speech.gainDb - silence.gainDb;
  const noisePower = (silence.noise?.kMeanSquare ?? 0) * 10 ** (gainBetween / 10);
  const clean = gatedLoudness(speech.stepPowers, noisePower);
  const integratedLufs = clean.loudness;
  const standsOut = clean.power > 0 && powerToDb(clean.power / noisePower) >= LEAST_SIGNAL_TO_NOISE_DB;
  const read = (weighting: 'z' | 'a'): Measurement => {
    const id = weighting === 'z' ? 'noiseReSpeechZ' : 'noiseReSpeechA';
    const band = silence.noise ? `${bandText(silence.noise.highHz)}, ` : '';
    const condition = `${weighting === 'z' ? 'unweighted' : 'A-weighted'}, ${band}speech at −${-SPEECH_TARGET_LUFS} LUFS`;
    if (!Number.isFinite(speech.loudness.integratedLufs))
      return notMeasured(id, condition, 'The speech take is silent.');
    if (!silence.noise) return notMeasured(id, condition, 'The silent take holds no silence of at least 0.5 s.');
    if (silence.noise.refused !== null) return notMeasured(id, condition, silence.noise.refused);
    if (!standsOut) return notMeasured(id, condition, 'The speech does not stand out of the noise.');
    const { levelDbfs, spread, uncertaintyDb } = silence.noise[weighting];
    return measured(id, levelDbfs + gainBetween + SPEECH_TARGET_LUFS - integratedLufs, condition, {
      bound: silence.noise.bound,
      spread,
      uncertainty: uncertaintyLu === null || uncertaintyDb === null ? null : Math.hypot(uncertaintyLu, uncertaintyDb),
      settings: {
        speechTargetLufs: SPEECH_TARGET_LUFS,
        speechLufs: integratedLufs,
        gainBetweenDb: gainBetween,
        ...noiseSettings(silence.noise),
      },
    });
  };
  return [read('z'), read('a')];
}
