import { BiquadCascade, cascadeGainDb, type Biquad } from '#core/dsp/biquad';
import { butterworthHighPass } from '#core/dsp/butterworth';
import { highPass, lowPass, peaking } from '#core/dsp/eq-biquads';
import { randomEnergyEfficiency } from '#core/measure/polar-pattern';
import { aWeightingPower } from '#core/dsp/weighting-curves';
import { seededBits, type RandomBits } from '#core/stats/random';
import { dbuToVolts, type InterfaceModel } from './audio-interface';
import { boosted, type BoosterModel } from './booster';
import { nearFieldSection, REFERENCE_DISTANCE_M, type Bell, type MicrophoneModel } from './microphone';
import { whiteNoise } from './white-noise';
import { earlyReflections } from './early-reflections';
import { tailEnergy, type Room } from './room';

/** A dry voice with the diffuse tail of the room it speaks in; RMS of the dry speech is 1. */
export interface Voice {
  readonly dry: Float64Array;
  readonly tail: Float64Array;
}

/** A steady noise from outside: a street, a fan, a loudspeaker in the next room. */
export interface OutsideNoise {
  /** At the capsule without a shield, dB SPL, unweighted. */
  readonly dbSpl: number;
  /** What a shield takes away of all of it, and where it takes more or less. */
  readonly lessDb?: number;
  readonly bells?: readonly Bell[];
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
  /** Moments of plosives, in seconds from the start of the voice. */
  readonly puffsS?: readonly number[];
  /** Between microphone and interface; none by default. */
  readonly booster?: BoosterModel;
  /** A steady noise from outside the room, and what a shield takes of it; none by default. */
  readonly outside?: OutsideNoise;
  /** Clothing that rubs once a second, dB re speech at 15 cm; none by default. */
  readonly rubDb?: number;
  /** Wind at the capsule, as a share of 7 m/s; none by default. */
  readonly wind?: number;
  readonly seed: string;
}

const PASCAL_AT_0_DB = 20e-6;
/** A puff is half a period of about 40 Hz. */
const PUFF_S = 0.0125;
/** Wind turbulence falls by 12 dB per octave from here on. */
const WIND_CORNER_HZ = 40;
/** Of every second, so much is rubbed. */
const RUB_S = 0.35;
/** A street and a fan fall off above this. */
const OUTSIDE_CORNER_HZ = 1500;
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
  if (setup.puffsS) addPuffs(setup, setup.puffsS, pressure);
  if (setup.wind) addWind(setup, setup.wind, pressure, bits);
  if (setup.rubDb !== undefined) addRub(setup, setup.rubDb, pressure);
  if (setup.outside) addOutside(setup, setup.outside, pressure);
  const response = responseOf(microphone, sampleRate);
  new BiquadCascade(response).process(pressure);
  // The sensitivity is stated at 1 kHz, so the response is 0 dB there.
  const at1k = 10 ** (-cascadeGainDb(response, 1000, sampleRate) / 20);
  for (let i = 0; i < length; i++) pressure[i] *= at1k;
  addLines(microphone, sampleRate, pressure);
  const selfNoise = noiseOf(length, bits, [highPass(sampleRate, 30)], sampleRate, microphone.selfNoiseDbA);
  return digitise(setup, pressure, selfNoise, bits);
}

function addSpeech(setup: TakeSetup, voice: Voice, low: Float64Array, high: Float64Array): void {
  const { sampleRate, microphone, room } = setup;
  const level = PASCAL_AT_0_DB * 10 ** (setup.speechDbSpl / 20);
  const start = Math.round(LEAD_IN_S * sampleRate);
  const add = (signal: Float64Array, into: Float64Array, gain: number): void => {
    const end = Math.min(into.length, start + signal.length);
    for (let i = start, s = 0; i < end; i++, s++) into[i] += gain * signal[s];
  };
  const early = earlyReflections(voice.dry, room, setup.distanceM, setup.angleDeg, sampleRate);
  // Above the crossover the near field hardly matters, but its phase has to agree where both parts are joined.
  for (const [into, alpha] of [
    [low, microphone.alphaLow],
    [high, microphone.alphaHigh],
  ] as const) {
    // Reflections and tail come as plane waves: the low end misses the rise that the response at 15 cm counts on.
    if (early) {
      add(early.pressure, into, level * alpha);
      add(early.gradient, into, level * (1 - alpha));
    }
    const tail = level * REFERENCE_DISTANCE_M * Math.sqrt(tailEnergy(room) * randomEnergyEfficiency(alpha));
    if (tail > 0) add(voice.tail, into, tail);
    if (early) new BiquadCascade([nearFieldSection(alpha, 0, Infinity, sampleRate)]).process(into);
    const near = voice.dry.slice(0, Math.max(0, into.length - start));
    new BiquadCascade([nearFieldSection(alpha, setup.angleDeg, setup.distanceM, sampleRate)]).process(near);
    add(near, into, (level * REFERENCE_DISTANCE_M) / setup.distanceM);
  }
}

/** Puffs of air: short pushes of pressure that do not care for pattern or room. */
function addPuffs(setup: TakeSetup, times: readonly number[], pressure: Float64Array): void {
  const { sampleRate, microphone } = setup;
  const peak = PASCAL_AT_0_DB * 10 ** ((setup.speechDbSpl + (microphone.puffDb ?? 0)) / 20);
  const length = Math.round(PUFF_S * sampleRate);
  for (const time of times) {
    const start = Math.round((LEAD_IN_S + time) * sampleRate);
    for (let i = 0; i < length && start + i < pressure.length; i++) {
      pressure[start + i] += peak * Math.sin((Math.PI * i) / length);
    }
  }
}

function addWind(setup: TakeSetup, share: number, pressure: Float64Array, bits: RandomBits): void {
  const noise = whiteNoise(pressure.length, bits);
  const { sampleRate } = setup;
  new BiquadCascade([lowPass(sampleRate, WIND_CORNER_HZ, 0.5), highPass(sampleRate, 15)]).process(noise);
  const rms = Math.sqrt(noise.reduce((s, x) => s + x * x, 0) / noise.length);
  const level = PASCAL_AT_0_DB * 10 ** ((setup.speechDbSpl + (setup.microphone.windDb ?? 0)) / 20);
  // Turbulent pressure grows with the square of the speed.
  for (let i = 0; i < noise.length; i++) pressure[i] += (level * share ** 2 * noise[i]) / rms;
}

/** Cloth on a capsule: a third of a second of noise in every second. */
function addRub({ sampleRate, seed, speechDbSpl }: TakeSetup, rubDb: number, pressure: Float64Array): void {
  const noise = whiteNoise(pressure.length, seededBits(`${seed}/rub`));
  const level = PASCAL_AT_0_DB * 10 ** ((speechDbSpl + rubDb) / 20);
  for (let i = 0; i < noise.length; i++) if (i % sampleRate < RUB_S * sampleRate) pressure[i] += level * noise[i];
}

/** Noise from outside, as much low as high (white through a gentle low-pass), behind the shield that stands in its way. */
function addOutside({ sampleRate, seed }: TakeSetup, outside: OutsideNoise, pressure: Float64Array): void {
  // Drawn by itself: the room's noise and the unit's stay what they are without it.
  const noise = whiteNoise(pressure.length, seededBits(`${seed}/outside`));
  new BiquadCascade([lowPass(sampleRate, OUTSIDE_CORNER_HZ, 0.5), highPass(sampleRate, 40)]).process(noise);
  const rms = Math.sqrt(noise.reduce((s, x) => s + x * x, 0) / noise.length);
  const level = PASCAL_AT_0_DB * 10 ** ((outside.dbSpl - (outside.lessDb ?? 0)) / 20);
  new BiquadCascade((outside.bells ?? []).map((b) => peaking(sampleRate, b.hz, b.db, b.q))).process(noise);
  for (let i = 0; i < noise.length; i++) pressure[i] += (level * noise[i]) / rms;
}

/** Hum and whine come behind the capsule: neither room nor response shapes them. */
function addLines({ hum, whine }: MicrophoneModel, sampleRate: number, pressure: Float64Array): void {
  for (const lines of [hum, whine]) {
    if (!lines) continue;
    const amplitude = PASCAL_AT_0_DB * 10 ** (lines.dbSpl / 20) * Math.SQRT2;
    lines.hz.forEach((hz, n) => {
      for (let i = 0; i < pressure.length; i++) {
        pressure[i] += amplitude * Math.sin((2 * Math.PI * hz * i) / sampleRate + n);
      }
    });
  }
}

/** Below the crossover the one signal, above it the other: a low-pass and its complement, which add up flat. */
function joinBands(low: Float64Array, high: Float64Array, sampleRate: number): Float64Array {
  const joined = Float64Array.from(low);
  for (let i = 0; i < joined.length; i++) joined[i] -= high[i];
  new BiquadCascade([lowPass(sampleRate, CROSSOVER_HZ, 0.5)]).process(joined);
  for (let i = 0; i < joined.length; i++) joined[i] += high[i];
  return joined;
}

function responseOf(microphone: MicrophoneModel, sampleRate: number): Biquad[] {
  return [
    highPass(sampleRate, microphone.lowHz),
    lowPass(sampleRate, Math.min(microphone.highHz, 0.45 * sampleRate)),
    ...(microphone.lowCut ? butterworthHighPass(microphone.lowCut.order, microphone.lowCut.hz, sampleRate) : []),
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
  const noise = whiteNoise(length, bits);
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
  const fullScale =
    dbuToVolts(setup.interface.fullScaleDbu - setup.gainDb - (setup.interface.gainErrorDb ?? 0)) * Math.SQRT2;
  const preamp = whiteNoise(pressure.length, bits);
  const fromMicrophone = pressure.map((p, i) => (p + selfNoise[i]) * voltsPerPascal);
  const atInput = setup.booster ? boosted(fromMicrophone, setup.booster, setup.sampleRate, bits) : fromMicrophone;
  return atInput.map((volts, i) => Math.max(-1, Math.min(1, (volts + noiseVolts * preamp[i]) / fullScale)));
}
