import { A_TOTAL, VALUES_PER_FRAME, Z_TOTAL } from '../dsp/band-power-frames';
import { THIRD_OCTAVE_BANDS } from '../dsp/third-octave-bands';
import { meanSquareToDbfs } from '../units';
import { measured, notMeasured, type Measurement } from './measurement';

const ONE_KILOHERTZ = THIRD_OCTAVE_BANDS.findIndex((b) => b.nominalHz === 1000);

/** Loudest moment of a clip, unweighted and A-weighted. */
export interface LoudestFrame {
  /** AES17 dBFS; −∞ for digital silence. */
  readonly zDbfs: number;
  readonly aDbfs: number;
  /** Of the third octave of 1 kHz: the tone of a calibrator, whatever silence stands around it. */
  readonly oneKilohertzDbfs: number;
}

/**
 * Highest level of any Welch frame (about a third of a second), 20 Hz–20 kHz.
 *
 * @param bandFrames - VALUES_PER_FRAME numbers per frame
 */
export function loudestFrame(bandFrames: Float64Array): LoudestFrame {
  const largest = (value: number): number => {
    let most = 0;
    for (let at = value; at < bandFrames.length; at += VALUES_PER_FRAME) most = Math.max(most, bandFrames[at]);
    return most;
  };
  return {
    zDbfs: meanSquareToDbfs(largest(Z_TOTAL)),
    aDbfs: meanSquareToDbfs(largest(A_TOTAL)),
    oneKilohertzDbfs: meanSquareToDbfs(largest(ONE_KILOHERTZ)),
  };
}

/**
 * Handling and stand knocks re speech: the loudest frame of the knocking take against the gated loudness of the spoken
 * passage, both at one gain.
 *
 * @param knocks - loudest moment of the take in which somebody knocks
 * @param knocksGainDb - its gain
 * @param speechLufs - loudness of the passage
 * @param speechGainDb - its gain
 */
export function handlingNoise(
  knocks: Pick<LoudestFrame, 'zDbfs' | 'aDbfs'>,
  knocksGainDb: number,
  speechLufs: number,
  speechGainDb: number,
): [Measurement, Measurement] {
  const read = (id: 'handlingZ' | 'handlingA', level: number): Measurement => {
    const condition = `${id === 'handlingZ' ? 'unweighted' : 'A-weighted'} maximum of Hann frames of a third of a second, re gated speech loudness, equal gain`;
    if (!Number.isFinite(speechLufs)) return notMeasured(id, condition, 'The speech take is silent.');
    if (!Number.isFinite(level)) return notMeasured(id, condition, 'The handling take is digital silence.');
    return measured(id, level - knocksGainDb - (speechLufs - speechGainDb), condition);
  };
  return [read('handlingZ', knocks.zDbfs), read('handlingA', knocks.aDbfs)];
}
