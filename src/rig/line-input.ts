import { seededBits } from '#core/stats/random';
import type { InterfaceModel } from './audio-interface';
import { whiteNoise } from './white-noise';

/** What is fed into an input by a cable. */
export interface LineInputSetup {
  readonly sampleRate: number;
  readonly durationS: number;
  /** Level of a tone of 1 kHz, dBu; null: the input is terminated, and makes its own noise only. */
  readonly toneDbu: number | null;
  readonly gainDb: number;
  readonly interface: InterfaceModel;
  readonly seed: string;
}

const TONE_HZ = 1000;
/** Band that the equivalent input noise is told for, of what white noise has up to half the rate. */
const BAND_HZ = 19_980;

/**
 * A take of an input that a cable feeds: a tone of known level, and white noise of the interface's own. Full scale is
 * the peak of a sine at `fullScaleDbu` less the gain.
 */
export function renderLineInput(setup: LineInputSetup): Float64Array {
  const { sampleRate, gainDb, interface: model } = setup;
  const length = Math.round(setup.durationS * sampleRate);
  const dbfs = (dbu: number): number => dbu + gainDb + (model.gainErrorDb ?? 0) - model.fullScaleDbu;
  const samples = whiteNoise(length, seededBits(setup.seed));
  // A sine at 0 dBFS has an RMS of one over the root of two.
  const rms = Math.SQRT1_2 * 10 ** (dbfs(model.einDbu) / 20) * Math.sqrt(sampleRate / 2 / BAND_HZ);
  const amplitude = setup.toneDbu === null ? 0 : 10 ** (dbfs(setup.toneDbu) / 20);
  for (let i = 0; i < length; i++)
    samples[i] = rms * samples[i] + amplitude * Math.sin((2 * Math.PI * TONE_HZ * i) / sampleRate);
  return samples;
}
