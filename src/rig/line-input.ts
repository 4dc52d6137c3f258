import { BiquadCascade } from '#core/dsp/biquad';
import { butterworthHighPass } from '#core/dsp/butterworth';
import { seededBits, type RandomBits } from '#core/stats/random';
import type { InterfaceModel } from './audio-interface';
import { whiteNoise } from './white-noise';

/** A steady tone at the input. */
export interface FedTone {
  readonly hz: number;
  /** dBu. */
  readonly dbu: number;
}

/** What is fed into an input by a cable. */
export interface LineInputSetup {
  readonly sampleRate: number;
  readonly durationS: number;
  /** Steady tones; none: the input is terminated, and makes its own noise only. */
  readonly tones?: readonly FedTone[];
  /** Samples that are played out and come back, with the level at the input that their full scale has. */
  readonly played?: { readonly samples: Float64Array; readonly fullScaleDbu: number };
  /** Channels that are recorded, and which of them is fed; one, fed, by default. */
  readonly fed?: readonly boolean[];
  readonly gainDb: number;
  readonly interface: InterfaceModel;
  readonly seed: string;
}

/** Band that noise is told for, of what white noise has up to half the rate. */
const BAND_HZ = 19_980;
/** A played signal begins after this. */
const LEAD_IN_S = 0.5;

/**
 * A take of an input that a cable feeds, one array per channel: tones or a played signal, the noise of the input and of
 * the converter, the bend of its curve, and what only full gain takes away. Full scale is the peak of a sine at
 * `fullScaleDbu` less the gain.
 */
export function renderLineInput(setup: LineInputSetup): Float64Array[] {
  const { sampleRate, gainDb, interface: model, fed = [true] } = setup;
  const length = Math.round(setup.durationS * sampleRate);
  const bits = seededBits(setup.seed);
  const dbfs = (dbu: number): number => dbu + gainDb + (model.gainErrorDb ?? 0) - model.fullScaleDbu;
  const signal = new Float64Array(length);
  /** What finds its way into the other channel, before it is as faint as there. */
  const leaking = new Float64Array(length);
  for (const { hz, dbu } of setup.tones ?? []) {
    const amplitude = 10 ** (dbfs(dbu) / 20);
    const rise = model.crosstalkRises ? hz / 1000 : 1;
    for (let i = 0; i < length; i++) {
      const sample = amplitude * Math.sin((2 * Math.PI * hz * i) / sampleRate);
      signal[i] += sample;
      leaking[i] += rise * sample;
    }
  }
  if (setup.played) {
    const gain = 10 ** (dbfs(setup.played.fullScaleDbu) / 20);
    const start = Math.round(LEAD_IN_S * sampleRate);
    setup.played.samples.slice(0, Math.max(0, length - start)).forEach((x, i) => {
      signal[start + i] += gain * x;
      leaking[start + i] += gain * x;
    });
  }
  return fed.map((isFed, channel) => {
    const level = 10 ** (((isFed ? 0 : (model.crosstalkDb ?? -Infinity)) + (channel === 1 ? (model.balanceDb ?? 0) : 0)) / 20); // prettier-ignore
    const own = noise(length, bits, dbfs(model.einDbu), sampleRate);
    for (let i = 0; i < length; i++) own[i] += level * (isFed ? signal : leaking)[i];
    if (model.atFullGain && gainDb >= model.atFullGain.fromDb) rollOff(own, model.atFullGain, sampleRate);
    const converter = model.converterDbfs === undefined ? null : noise(length, bits, model.converterDbfs, sampleRate);
    const { square = 0, cube = 0 } = model.bend ?? {};
    return own.map((x, i) => clip(x + square * x * x + cube * x * x * x + (converter?.[i] ?? 0)));
  });
}

const clip = (x: number): number => Math.max(-1, Math.min(1, x));

/** White noise of a level in the audible band; a sine at 0 dBFS has an RMS of one over the root of two. */
function noise(length: number, bits: RandomBits, levelDbfs: number, sampleRate: number): Float64Array {
  const rms = Math.SQRT1_2 * 10 ** (levelDbfs / 20) * Math.sqrt(sampleRate / 2 / BAND_HZ);
  return whiteNoise(length, bits).map((x) => rms * x);
}

function rollOff(
  samples: Float64Array,
  { lowHz, highHz }: NonNullable<InterfaceModel['atFullGain']>,
  rate: number,
): void {
  // prettier-ignore
  new BiquadCascade(butterworthHighPass(1, lowHz, rate)).process(samples);
  // One pole: what is left above its corner falls by 6 dB per octave.
  const share = 1 - Math.exp((-2 * Math.PI * highHz) / rate);
  let state = 0;
  for (let i = 0; i < samples.length; i++) {
    state += share * (samples[i] - state);
    samples[i] = state;
  }
}
