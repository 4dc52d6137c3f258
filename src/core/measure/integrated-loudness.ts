import { lufs, powerToDb, type Lufs } from '../units';

/** Constant of BS.1770-5 equation (2): makes a 0 dBFS 997 Hz sine in one front channel read −3.01 LUFS. */
const LOUDNESS_OFFSET = -0.691;
export const ABSOLUTE_GATE_LUFS = -70;
const RELATIVE_GATE_LU = -10;
/** Steps of 100 ms in a gating block of 400 ms (75 % overlap). */
const STEPS_PER_BLOCK = 4;

/** Weighted power (mean square, all channels) to loudness, BS.1770-5 equation (2). Zero gives −∞. */
export const powerToLufs = (power: number): Lufs => lufs(LOUDNESS_OFFSET + powerToDb(power));
/** Loudness to weighted power. */
export const lufsToPower = (loudness: number): number => 10 ** ((loudness - LOUDNESS_OFFSET) / 10);

/** Gated loudness with what is needed to judge it. */
export interface GatedLoudness {
  /** Mean power of the blocks that passed both gates; 0 where none did. */
  readonly power: number;
  /** −∞ where no block passed. */
  readonly loudness: Lufs;
  /** Loudness of each block that passed, in LUFS. */
  readonly blocks: readonly number[];
}

/**
 * Integrated loudness by ITU-R BS.1770-5 Annex 1: two gates over blocks of 400 ms at 75 % overlap.
 * With a noise power, that power is first taken off every block, so that level and gate are those of the wanted
 * signal alone; blocks that hold less than the noise then fall under the gates by themselves.
 *
 * @param stepPowers - K-weighted, channel-weighted power of successive steps of 100 ms
 * @param noisePower - K-weighted power of the noise, same scale; 0 for the standard's figure
 */
export function gatedLoudness(stepPowers: ArrayLike<number>, noisePower = 0): GatedLoudness {
  const absolute = lufsToPower(ABSOLUTE_GATE_LUFS);
  const audible: number[] = [];
  for (let i = 0; i + STEPS_PER_BLOCK <= stepPowers.length; i++) {
    let sum = 0;
    for (let s = 0; s < STEPS_PER_BLOCK; s++) sum += stepPowers[i + s];
    const power = sum / STEPS_PER_BLOCK - noisePower;
    if (power > absolute) audible.push(power);
  }
  const gate = meanOf(audible) * 10 ** (RELATIVE_GATE_LU / 10);
  const kept = audible.filter((p) => p > gate);
  const power = meanOf(kept);
  return { power, loudness: powerToLufs(power), blocks: kept.map(powerToLufs) };
}

const meanOf = (values: readonly number[]): number =>
  values.length === 0 ? 0 : values.reduce((s, v) => s + v, 0) / values.length;

/**
 * Joins frames of 20 ms to the steps of 100 ms that gating works on. What does not fill a step is dropped.
 *
 * @param framePowers - mean squares of successive 20 ms frames
 */
export function stepsFromFrames(framePowers: Float64Array): Float64Array {
  const steps = new Float64Array(Math.floor(framePowers.length / 5));
  for (let i = 0; i < steps.length; i++) {
    let sum = 0;
    for (let f = 0; f < 5; f++) sum += framePowers[5 * i + f];
    steps[i] = sum / 5;
  }
  return steps;
}

/**
 * Largest loudness of a sliding window without gates: momentary (0.4 s) or short-term (3 s), EBU Tech 3341 clause 2.2.
 * The window moves on by one frame of 20 ms (Tech 3341 asks for 100 ms at least).
 *
 * @param framePowers - K-weighted, channel-weighted mean squares of successive 20 ms frames
 * @param frames - length of the window in frames
 * @returns −∞ for a clip shorter than the window, or silent
 */
export function maximumLoudness(framePowers: ArrayLike<number>, frames: number): Lufs {
  let sum = 0;
  let largest = 0;
  for (let i = 0; i < framePowers.length; i++) {
    sum += framePowers[i];
    if (i >= frames) sum -= framePowers[i - frames];
    if (i >= frames - 1 && sum > largest) largest = sum;
  }
  return powerToLufs(largest / frames);
}

/** Windows of {@link maximumLoudness}, in frames of 20 ms. */
export const MOMENTARY_FRAMES = 20;
export const SHORT_TERM_FRAMES = 150;
