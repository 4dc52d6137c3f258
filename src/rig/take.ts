import { BiquadCascade, cascadeGainDb, type Biquad } from '#core/dsp/biquad';
import { highPass, lowPass, peaking } from '#core/dsp/eq-biquads';
import { aWeightingPower } from '#core/dsp/weighting-curves';
import { seededBits, type RandomBits } from '#core/stats/random';
import { standardNormal } from '#core/stats/normal';
import { dbuToVolts, type InterfaceModel } from './audio-interface';
import { patternGain, randomEnergyEfficiency, type MicrophoneModel } from './microphone';
import type { Room } from './room';

/** A dry voice with the diffuse tail of the room it speaks in; RMS of the dry speech is 1. */
export interface Voice {
  readonly dry: Float64Array;
  readonly tail: Float64Array;
}

/** One take at the simulated bench. */
export interface TakeSetup {
  readonly sampleRate: number;
  readonly durationS: number;
  /** Null: nobody speaks. */
  readonly voice: Voice | null;
  /** Speech level at 15 cm, dB SPL. */
  readonly speechDbSpl: number;
  readonly distanceM: number;
  readonly angleDeg: number;
  readonly microphone: MicrophoneModel;
  readonly room: Room;
  readonly interface: InterfaceModel;
  readonly gainDb: number;
  readonly seed: string;
}

const REFERENCE_DISTANCE_M = 0.15;
const PASCAL_AT_0_DB = 20e-6;
const CROSSOVER_HZ = 2000;
/** Silence before and after the speech. */
const LEAD_IN_S = 0.6;

/**
 * Renders a take: sound pressure at the capsule (direct sound, early reflections, diffuse tail, room noise) through
 * pattern, response and self-noise of the microphone and through the interface, to samples with full scale ±1.
 * The same setup gives the same samples on every machine.
 */
export function renderTake(setup: TakeSetup): Float64Array {
  const { sampleRate, microphone, room } = setup;
  const length = Math.round(setup.durationS * sampleRate);
  const bits = seededBits(setup.seed);
  const low = new Float64Array(length);
  const high = new Float64Array(length);
  if (setup.voice) addSpeech(setup, setup.voice, low, high);
  const diffuse = (alpha: number): number => Math.sqrt(randomEnergyEfficiency(alpha));
  const roomNoise = noiseOf(length, bits, [lowPass(sampleRate, 400, 0.5)], sampleRate, room.noiseDbA);
  for (let i = 0; i < length; i++) {
    low[i] += roomNoise[i] * diffuse(microphone.alphaLow);
    high[i] += roomNoise[i] * diffuse(microphone.alphaHigh);
  }
  const pressure = joinBands(low, high, sampleRate);
  new BiquadCascade(responseOf(microphone, sampleRate)).process(pressure);
  const selfNoise = noiseOf(length, bits, [highPass(sampleRate, 30)], sampleRate, microphone.selfNoiseDbA);
  return digitise(setup, pressure, selfNoise, bits);
}

function addSpeech(setup: TakeSetup, voice: Voice, low: Float64Array, high: Float64Array): void {
  const { sampleRate, microphone, room, angleDeg } = setup;
  const level = PASCAL_AT_0_DB * 10 ** (setup.speechDbSpl / 20);
  const start = Math.round(LEAD_IN_S * sampleRate);
  const direct = level * (REFERENCE_DISTANCE_M / setup.distanceM);
  const add = (signal: Float64Array, delay: number, gainLow: number, gainHigh: number): void => {
    const end = Math.min(low.length, start + delay + signal.length);
    for (let i = start + delay, s = 0; i < end; i++, s++) {
      low[i] += gainLow * signal[s];
      high[i] += gainHigh * signal[s];
    }
  };
  const arrivals = [
    { delayMs: 0, gain: direct, angleDeg: 0 },
    ...room.reflections.map((r) => ({ ...r, gain: r.gain * level })),
  ];
  for (const { delayMs, gain, angleDeg: incidence } of arrivals) {
    add(
      voice.dry,
      Math.round((delayMs / 1000) * sampleRate),
      gain * patternGain(microphone.alphaLow, incidence + angleDeg),
      gain * patternGain(microphone.alphaHigh, incidence + angleDeg),
    );
  }
  const tail = level * room.tailGain;
  add(
    voice.tail,
    0,
    tail * Math.sqrt(randomEnergyEfficiency(microphone.alphaLow)),
    tail * Math.sqrt(randomEnergyEfficiency(microphone.alphaHigh)),
  );
}

/** Below the crossover the one signal, above it the other: a low-pass and its complement, which add up flat. */
function joinBands(low: Float64Array, high: Float64Array, sampleRate: number): Float64Array {
  const difference = low.map((x, i) => x - high[i]);
  new BiquadCascade([lowPass(sampleRate, CROSSOVER_HZ, 0.5)]).process(difference);
  return difference.map((x, i) => x + high[i]);
}

function responseOf(microphone: MicrophoneModel, sampleRate: number): Biquad[] {
  return [
    highPass(sampleRate, microphone.lowHz),
    lowPass(sampleRate, Math.min(microphone.highHz, 0.45 * sampleRate)),
    ...microphone.bells.map((b) => peaking(sampleRate, b.hz, b.db, b.q)),
  ];
}

/** Noise of a colour (white through the given sections) scaled to a sound level, dB SPL A-weighted; in pascals. */
function noiseOf(
  length: number,
  bits: RandomBits,
  colour: readonly Biquad[],
  sampleRate: number,
  levelDbA: number,
): Float64Array {
  const noise = new Float64Array(length);
  for (let i = 0; i < length; i++) noise[i] = standardNormal(bits);
  new BiquadCascade(colour).process(noise);
  const target = (PASCAL_AT_0_DB * 10 ** (levelDbA / 20)) ** 2;
  const scale = Math.sqrt(target / weightedPower(colour, sampleRate));
  for (let i = 0; i < length; i++) noise[i] *= scale;
  return noise;
}

/** A-weighted power 20 Hz–20 kHz of unit white noise through some sections, by summing over a fine grid. */
function weightedPower(colour: readonly Biquad[], sampleRate: number): number {
  const steps = 2000;
  const top = Math.min(20_000, sampleRate / 2);
  let sum = 0;
  for (let i = 0; i < steps; i++) {
    const hz = 20 + ((i + 0.5) * (top - 20)) / steps;
    sum += aWeightingPower(hz) * 10 ** (cascadeGainDb(colour, hz, sampleRate) / 10);
  }
  return (sum / steps) * ((top - 20) / (sampleRate / 2));
}

function digitise(setup: TakeSetup, pressure: Float64Array, selfNoise: Float64Array, bits: RandomBits): Float64Array {
  const voltsPerPascal = setup.microphone.sensitivityMvPa / 1000;
  // EIN is stated for 20 Hz–20 kHz; white noise of the whole band has proportionally more.
  const noiseVolts = dbuToVolts(setup.interface.einDbu) * Math.sqrt(setup.sampleRate / 2 / 19_980);
  const fullScale = dbuToVolts(setup.interface.fullScaleDbu - setup.gainDb) * Math.SQRT2;
  const out = new Float64Array(pressure.length);
  for (let i = 0; i < out.length; i++) {
    const volts = (pressure[i] + selfNoise[i]) * voltsPerPascal + noiseVolts * standardNormal(bits);
    out[i] = Math.max(-1, Math.min(1, volts / fullScale));
  }
  return out;
}
