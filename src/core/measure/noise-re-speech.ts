import type { LoudnessFigures } from './loudness';
import { measured, notMeasured, type Measurement } from './measurement';
import type { SilenceNoise } from './silence-noise';

/** Loudness to which the speech is brought before the noise is read (EBU R 128 programme level). */
export const SPEECH_TARGET_LUFS = -23;

/** The speech that noise is compared with. */
export interface SpeechReference {
  readonly loudness: Pick<LoudnessFigures, 'integratedLufs' | 'uncertaintyLu'>;
  /** Gain of the recording, in dB. */
  readonly gainDb: number;
}

/** The silence in which noise is read. */
export interface NoiseTake {
  readonly noise: SilenceNoise | null;
  readonly gainDb: number;
}

/**
 * RMS of the silent part after the gain that brings the speech to −23 LUFS, unweighted and A-weighted. Where the
 * two takes were made at different gains, the difference is taken out first. A full-scale sine reads 0 dB (AES17).
 * The uncertainty joins that of the speech's loudness and that of the noise by root sum of squares (JCGM 100).
 *
 * @param speech - the spoken passage
 * @param silence - the silent take, or the same clip where it has a pause
 * @returns unweighted and A-weighted figure, in this order
 */
export function noiseReSpeech(speech: SpeechReference, silence: NoiseTake): [Measurement, Measurement] {
  const { integratedLufs, uncertaintyLu } = speech.loudness;
  const gainBetween = speech.gainDb - silence.gainDb;
  const read = (weighting: 'z' | 'a'): Measurement => {
    const id = weighting === 'z' ? 'noiseReSpeechZ' : 'noiseReSpeechA';
    const condition = `${weighting === 'z' ? 'unweighted' : 'A-weighted'}, 20 Hz–20 kHz, speech at −${-SPEECH_TARGET_LUFS} LUFS`;
    if (!Number.isFinite(integratedLufs)) return notMeasured(id, condition, 'The speech take is silent.');
    if (!silence.noise) return notMeasured(id, condition, 'The silent take holds no silence of at least 0.5 s.');
    const { levelDbfs, spread, uncertaintyDb } = silence.noise[weighting];
    if (!Number.isFinite(levelDbfs)) {
      return notMeasured(id, condition, 'The silent take is digital silence: nothing was connected, or it was gated.');
    }
    return measured(id, levelDbfs + gainBetween + SPEECH_TARGET_LUFS - integratedLufs, condition, {
      spread,
      uncertainty: uncertaintyLu === null || uncertaintyDb === null ? null : Math.hypot(uncertaintyLu, uncertaintyDb),
      settings: { speechTargetLufs: SPEECH_TARGET_LUFS, speechLufs: integratedLufs, gainBetweenDb: gainBetween },
    });
  };
  return [read('z'), read('a')];
}
