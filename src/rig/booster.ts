import { BiquadCascade } from '#core/dsp/biquad';
import { butterworthHighPass } from '#core/dsp/butterworth';
import type { RandomBits } from '#core/stats/random';
import { dbuToVolts } from './audio-interface';
import { whiteNoise } from './white-noise';

/** The simulated booster between microphone and interface. */
export interface BoosterModel {
  readonly gainDb: number;
  /** Its own noise, as if it came in at its input: dBu, unweighted 20 Hz–20 kHz. */
  readonly einDbu: number;
  /** A high-pass that nobody is told of (Butterworth). */
  readonly lowCut?: { readonly hz: number; readonly order: number };
}

/**
 * What comes out of a booster.
 *
 * @param volts - what goes in; it is left as it is
 * @param booster - the model
 * @param sampleRate - in hertz
 * @param bits - where its noise is drawn from
 */
export function boosted(
  volts: Float64Array,
  booster: BoosterModel,
  sampleRate: number,
  bits: RandomBits,
): Float64Array {
  const noise = whiteNoise(volts.length, bits);
  const noiseVolts = dbuToVolts(booster.einDbu) * Math.sqrt(sampleRate / 2 / 19_980);
  const gain = 10 ** (booster.gainDb / 20);
  const out = volts.map((v, i) => gain * (v + noiseVolts * noise[i]));
  if (booster.lowCut)
    new BiquadCascade(butterworthHighPass(booster.lowCut.order, booster.lowCut.hz, sampleRate)).process(out);
  return out;
}
