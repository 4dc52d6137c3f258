import { A_TOTAL, highestTotalHz, VALUES_PER_FRAME, Z_TOTAL } from '../dsp/band-power-frames';
import { FRAMES_PER_SECOND } from '../dsp/frame-power';
import { mean, standardDeviation } from '../stats/moments';
import { studentQuantile } from '../stats/student-t';
import { weightedMedian } from '../stats/weighted-median';
import { meanSquareToDbfs, type Dbfs } from '../units';
import { bandText } from './band-text';
import { measured, notMeasured, type Bound, type Measurement, type Spread } from './measurement';
import { findingsText, type NoiseFinding } from './noise-finding';
import { meanFrame, meanValue, noiseScatterDb } from './noise-scatter';
import { screenPauses, type ScreenedPause } from './pause-screening';
import type { QuantityId } from './registry';
import type { Segment } from './speech-segments';
import { thirdOctaveLevels, type BandLevel } from './third-octave-spectrum';

/** One reading of the noise with its scatter. */
export interface NoiseLevel {
  /** AES17 RMS. */
  readonly levelDbfs: Dbfs;
  readonly spread: Spread | null;
  /** Standard uncertainty of the mean, in dB: its time and bandwidth, and the disagreement of the pauses. */
  readonly uncertaintyDb: number | null;
}

/** Noise in the pauses of a clip. */
export interface SilenceNoise {
  /** The longest stretch of a pause that counts, clicks left out: where lines are looked for. */
  readonly segment: Segment;
  /** How many pauses count, and how many seconds of them. */
  readonly pauses: number;
  readonly seconds: number;
  /** Upper limit of the band that was read, in hertz; the lower one is 20 Hz. */
  readonly highHz: number;
  readonly bound: Bound;
  /** Why there is no figure all the same; null where there is one. */
  readonly refused: string | null;
  readonly z: NoiseLevel;
  readonly a: NoiseLevel;
  readonly thirdOctave: readonly BandLevel[];
  /** Mean square of the pauses, K-weighted like loudness: what is taken off speech that stands in this noise. */
  readonly kMeanSquare: number;
  readonly findings: readonly NoiseFinding[];
}

/** What the noise is read from. */
export interface NoiseInput {
  /** VALUES_PER_FRAME numbers per Hann frame at 50 % overlap. */
  readonly bandFrames: Float64Array;
  /** Samples per Hann frame. */
  readonly frameLength: number;
  readonly sampleRate: number;
  /** K-weighted mean squares of 20 ms each. */
  readonly framePowers: Float64Array;
  /** 1 where all samples of 20 ms are zero. */
  readonly isZeroFrame: Uint8Array;
  /** Bits of the sample format, in steps of which sound can be told from nothing. */
  readonly bits: number;
}

/** Pauses whose levels differ by more are told about. */
const DISAGREEMENT_DB = 3;
/** A gate that closes by more leaves no figure: what it hides is not known. */
const REFUSED_GATE_DB = 10;
/** Long pauses are looked at in blocks of this length, so that a level that wanders within one shows. */
const BLOCK_S = 1;
/** A share of the pauses' time from which on a louder sound is taken for the rule, not the exception. */
const LARGEST_EXCEPTION = 0.5;

interface Pause extends ScreenedPause {
  /** Hann frames wholly inside that no disturbance touches. */
  readonly frames: readonly number[];
  readonly levelDb: number;
}

/**
 * Noise of a clip from all of its pauses: the mean power of their Hann frames, unweighted and A-weighted from 20 Hz to
 * 20 kHz (or to half the sample rate). Clicks and sounds inside a pause are left out, as is a pause that stands alone
 * above all others, or one at the edge of the file that lies below all others (pasted, faded). A level that still falls
 * is a limit (tail of the room), one that rises is read right after the words (automatic gain); a gate that closes by
 * more than 10 dB leaves no figure. What the pauses disagree about widens the uncertainty (JCGM 100 4.2, Student's t).
 *
 * @param input - frames of the clip
 * @param pauses - in the order of time
 * @returns null where there is no pause, or no frame fits into any
 */
export function silenceNoise(input: NoiseInput, pauses: readonly Segment[]): SilenceNoise | null {
  const screened = screenPauses(input.framePowers, input.isZeroFrame, pauses);
  const all = screened.map((p) => withFrames(input, p)).filter((p) => p.frames.length > 0 || p.isZero);
  if (all.length === 0) return null;
  const findings: NoiseFinding[] = [];
  const sounding = all.filter((p) => !p.isZero);
  if (sounding.length === 0 || all.some((p) => p.isZero && !p.isEdge)) return refusal(all, ZERO_REASON, input);
  if (sounding.length < all.length)
    findings.push({ kind: 'padding', text: 'digital silence at the edge of the file was left out' });
  noteDisturbances(sounding, findings);
  const alike = withoutExceptions(sounding, findings);
  return levelsFrom(input, alike, findings);
}

const ZERO_REASON = 'The pause is digital silence (gate?).';

function withFrames({ bandFrames, frameLength, sampleRate }: NoiseInput, pause: ScreenedPause): Pause {
  const hop = frameLength / 2;
  const available = bandFrames.length / VALUES_PER_FRAME;
  const { segment, disturbances } = pause;
  const from = Math.ceil((segment.startS * sampleRate) / hop - 1e-9);
  const to = Math.min(available, Math.floor((segment.endS * sampleRate - frameLength) / hop + 1e-9) + 1);
  const inside = Array.from({ length: Math.max(0, to - from) }, (_, i) => from + i);
  const isClean = (f: number): boolean =>
    !disturbances.some((d) => d.startS < (f * hop + frameLength) / sampleRate && d.endS > (f * hop) / sampleRate);
  const clean = inside.filter(isClean);
  const frames = clean.length > 0 ? clean : inside;
  const power = frames.reduce((s, f) => s + bandFrames[f * VALUES_PER_FRAME + A_TOTAL], 0) / frames.length;
  return { ...pause, frames, levelDb: meanSquareToDbfs(power) };
}

/** Something with no reading in it: lines are not looked for either. */
function refusal(pauses: readonly Pause[], refused: string, { sampleRate }: NoiseInput): SilenceNoise {
  const none: NoiseLevel = { levelDbfs: -Infinity as Dbfs, spread: null, uncertaintyDb: null };
  return {
    segment: longestOf(pauses).segment,
    pauses: 0,
    seconds: 0,
    highHz: highestTotalHz(sampleRate),
    bound: 'exact',
    refused,
    z: none,
    a: none,
    thirdOctave: [],
    kMeanSquare: 0,
    findings: [{ kind: 'digital-silence', text: refused }],
  };
}

const lengthOf = ({ segment }: ScreenedPause): number => segment.endS - segment.startS;
const longestOf = (pauses: readonly Pause[]): Pause => pauses.reduce((a, b) => (lengthOf(b) > lengthOf(a) ? b : a));
/** Kept clear of a click before and after it: a quasi-peak detector remembers it for as long. */
const CLEAR_S = 0.3;

/** The longest stretch of a pause that no click or sound is in: where lines and quasi-peak noise are looked for. */
function longestQuiet(pauses: readonly Pause[]): Segment {
  const quiet = pauses.flatMap(({ segment, disturbances }) => {
    const edges = [
      segment.startS,
      ...disturbances.flatMap((d) => [d.startS - CLEAR_S, d.endS + CLEAR_S]),
      segment.endS,
    ];
    return Array.from({ length: edges.length / 2 }, (_, i) => ({ startS: edges[2 * i], endS: edges[2 * i + 1] }));
  });
  const length = (s: Segment): number => s.endS - s.startS;
  const best = quiet.reduce((a, b) => (length(b) > length(a) ? b : a));
  return length(best) >= LEAST_QUIET_S ? best : longestOf(pauses).segment;
}

/** Shorter stretches tell no lines. */
const LEAST_QUIET_S = 0.5;

const db = (value: number): string => `${Math.abs(value).toFixed(1)} dB`;

function noteDisturbances(pauses: readonly Pause[], findings: NoiseFinding[]): void {
  const inside = pauses.flatMap((p) => p.disturbances);
  const clicks = inside.filter((d) => d.endS - d.startS <= 0.1 + 1e-9);
  const at = (list: readonly Segment[]): string =>
    list
      .slice(0, 3)
      .map((d) => `${d.startS.toFixed(1)} s`)
      .join(', ') + (list.length > 3 ? ' …' : '');
  const sounds = inside.filter((d) => !clicks.includes(d));
  if (clicks.length > 0) findings.push({ kind: 'click', text: `click in a pause at ${at(clicks)}, left out` });
  if (sounds.length > 0) findings.push({ kind: 'sound', text: `a sound in a pause at ${at(sounds)}, left out` });
}

/** Takes out what stands alone: a pause with a breath all through it, an edge that was pasted or faded. */
function withoutExceptions(pauses: readonly Pause[], findings: NoiseFinding[]): Pause[] {
  const usual = weightedMedian(
    pauses.map((p) => p.levelDb),
    pauses.map(lengthOf),
  );
  const time = pauses.reduce((s, p) => s + lengthOf(p), 0);
  const loud = pauses.filter((p) => p.levelDb > usual + DISAGREEMENT_DB);
  const isException =
    loud.reduce((s, p) => s + lengthOf(p), 0) < LARGEST_EXCEPTION * time && loud.length < pauses.length;
  const left = isException ? pauses.filter((p) => !loud.includes(p)) : pauses;
  if (isException && loud.length > 0) {
    const most = Math.max(...loud.map((p) => p.levelDb)) - usual;
    findings.push({
      kind: 'sound',
      text: `${loud.length} of ${pauses.length} pauses up to ${db(most)} louder (breath?), left out`,
    });
  }
  return withoutPastedEdges(left, findings);
}

function withoutPastedEdges(pauses: readonly Pause[], findings: NoiseFinding[]): Pause[] {
  const inner = pauses.filter((p) => !p.isEdge);
  if (inner.length === 0) return [...pauses];
  const usual = weightedMedian(
    inner.map((p) => p.levelDb),
    inner.map(lengthOf),
  );
  // Where the level moves between the words (the room still sounds, a gain rises), the quiet edges may well be right.
  if (isMostly(inner, (p) => p.trendDb !== null)) return [...pauses];
  const pasted = pauses.filter((p) => p.isEdge && p.levelDb < usual - DISAGREEMENT_DB);
  if (pasted.length === 0) return [...pauses];
  const least = Math.min(...pasted.map((p) => p.levelDb)) - usual;
  findings.push({
    kind: 'padding',
    text: `the edge of the file is ${db(least)} quieter than the pauses between the words (pasted or faded?), left out`,
  });
  return pauses.filter((p) => !pasted.includes(p));
}

/** Whether something holds for the larger part of the pauses' time. */
function isMostly(pauses: readonly Pause[], holds: (pause: Pause) => boolean): boolean {
  const time = (list: readonly Pause[]): number => list.reduce((s, p) => s + lengthOf(p), 0);
  return pauses.length > 0 && time(pauses.filter(holds)) > 0.5 * time(pauses);
}

function levelsFrom(input: NoiseInput, pauses: readonly Pause[], findings: NoiseFinding[]): SilenceNoise {
  const { bandFrames, frameLength, sampleRate } = input;
  const behind = pauses.filter((p) => p.followsSound);
  const gates = behind.flatMap((p) => (p.gateDb === null ? [] : [p.gateDb]));
  // Counted, not by time: one long pause in which the step was missed must not speak for all.
  const isGated = gates.length > 0 && 2 * gates.length >= behind.length;
  const gateDb = gates.length > 0 ? Math.max(...gates) : null;
  const trends = behind.map((p) => p.trendDb ?? 0);
  // A gain that follows the words, and a room that sounds on, go one way; a room that breathes goes both.
  const isOneWay = trends.every((t) => t >= 0) || trends.every((t) => t <= 0);
  const trendDb = gateDb === null && isOneWay ? weightedMedian(trends, behind.map(lengthOf)) : 0;
  const isTail = trendDb < 0;
  const isAutomatic = trendDb > 0;
  // Of a falling level the ends, of a rising one the beginnings.
  const chosen = pauses.map((p) => (isTail && p.followsSound ? p.frames.slice(-1) : isAutomatic && p.followsSound ? p.frames.slice(0, 1) : p.frames)); // prettier-ignore
  const blocks = chosen.flatMap((frames) => blocksOf(frames, frameLength / 2 / sampleRate));
  const frames = blocks.flat();
  const average = meanFrame(bandFrames, frames);
  const leastMeanSquare = (2 ** (1 - input.bits)) ** 2 / 12;
  const highHz = highestTotalHz(sampleRate);
  // Half of the share of the rounding noise that lies in the band: rounding is not always evenly spread.
  if (average[Z_TOTAL] < 0.5 * leastMeanSquare * Math.min(1, (2 * highHz) / sampleRate))
    return refusal(pauses, `The pause lies below what ${input.bits} bits can hold (gate?).`, input);
  const read = (weighting: 'z' | 'a'): NoiseLevel =>
    noiseLevel(bandFrames, average, blocks, weighting, frameLength / sampleRate, isAutomatic ? trendDb / 2 : 0);
  const [z, a] = [read('z'), read('a')];
  if (gateDb !== null)
    findings.push({ kind: 'gate', text: `the noise falls by ${db(gateDb)} after the words: gate or expander` });
  if (isTail) findings.push({ kind: 'room-tail', text: `the level still falls in the pauses, by ${db(trendDb)}: tail of the room` }); // prettier-ignore
  if (isAutomatic) findings.push({ kind: 'automatic-gain', text: `the level rises in the pauses, by ${db(trendDb)}: automatic gain?` }); // prettier-ignore
  const levels = pauses.map((p) => p.levelDb);
  const range = Math.max(...levels) - Math.min(...levels);
  if (range > DISAGREEMENT_DB && !isTail && !isAutomatic)
    findings.push({ kind: 'unsteady', text: `the pauses differ by ${db(range)}` });
  return {
    segment: longestQuiet(pauses),
    pauses: pauses.length,
    seconds: pauses.reduce((s, p) => s + lengthOf(p), 0),
    highHz,
    bound: gateDb !== null ? 'at-least' : isTail || isAutomatic ? 'at-most' : 'exact',
    refused: isGated && gateDb !== null && gateDb >= REFUSED_GATE_DB ? `The noise falls by ${db(gateDb)} after the words: a gate or an expander hides it.` : null, // prettier-ignore
    z,
    a,
    thirdOctave: thirdOctaveLevels(average),
    kMeanSquare: kMeanSquare(input, pauses),
    findings,
  };
}

/** Of the undisturbed frames of 20 ms in the pauses. */
function kMeanSquare({ framePowers }: NoiseInput, pauses: readonly Pause[]): number {
  const powers = pauses.flatMap(({ segment, disturbances }) => {
    const from = Math.round(segment.startS * FRAMES_PER_SECOND);
    const inside = framePowers.subarray(from, Math.round(segment.endS * FRAMES_PER_SECOND));
    const isQuiet = (i: number): boolean =>
      !disturbances.some(
        (d) => d.endS > (from + i) / FRAMES_PER_SECOND && d.startS < (from + i + 1) / FRAMES_PER_SECOND,
      );
    const quiet = disturbances.length > 0 ? inside.filter((_, i) => isQuiet(i)) : inside;
    return Array.from(quiet.length > 0 ? quiet : inside);
  });
  return powers.length === 0 ? 0 : mean(powers);
}

function blocksOf(frames: readonly number[], hopS: number): number[][] {
  const count = Math.max(1, Math.floor((frames.length * hopS) / BLOCK_S));
  return Array.from({ length: count }, (_, b) =>
    frames.slice(Math.round((b * frames.length) / count), Math.round(((b + 1) * frames.length) / count)),
  ).filter((block) => block.length > 0);
}

function noiseLevel(
  bandFrames: Float64Array,
  average: Float64Array,
  blocks: readonly (readonly number[])[],
  weighting: 'z' | 'a',
  frameS: number,
  extraDb: number,
): NoiseLevel {
  const at = weighting === 'z' ? Z_TOTAL : A_TOTAL;
  const frames = blocks.flat();
  const scatter = noiseScatterDb(average, weighting, frames.length, frameS);
  const levels = frames.map((f) => meanSquareToDbfs(bandFrames[f * VALUES_PER_FRAME + at]));
  const isUsable = levels.length >= 2 && levels.every(Number.isFinite);
  const between = wander(bandFrames, blocks, at, (block) => noiseScatterDb(average, weighting, block.length, frameS));
  return {
    levelDbfs: meanSquareToDbfs(average[at]),
    spread: isUsable
      ? {
          sd: standardDeviation(levels),
          count: levels.length,
          of: `frames of ${Math.round(1000 * frameS)} ms at 50 % overlap`,
        }
      : null,
    uncertaintyDb: scatter === null ? null : Math.hypot(scatter, between, extraDb),
  };
}

/**
 * What the blocks differ by beyond their own scatter, as part of the uncertainty of their mean: the method of moments,
 * widened by Student's t for so few blocks, so that two of it still cover 95 %.
 */
function wander(
  bandFrames: Float64Array,
  blocks: readonly (readonly number[])[],
  at: number,
  scatterOf: (block: readonly number[]) => number | null,
): number {
  if (blocks.length < 2) return 0;
  const levels = blocks.map((b) => meanSquareToDbfs(meanValue(bandFrames, b, at)));
  const own = blocks.reduce((s, b) => s + (scatterOf(b) ?? 0) ** 2, 0) / blocks.length;
  const variance = standardDeviation(levels) ** 2 - own;
  if (!(variance > 0)) return 0;
  const total = blocks.reduce((s, b) => s + b.length, 0);
  const shares = blocks.reduce((s, b) => s + (b.length / total) ** 2, 0);
  return Math.sqrt(variance * shares) * (studentQuantile(0.975, blocks.length - 1) / 2);
}

/** Where and over what the noise was read, in words. */
export const pausesText = (noise: Pick<SilenceNoise, 'pauses' | 'seconds'>): string =>
  `${noise.pauses === 1 ? 'one pause' : `${noise.pauses} pauses`} of ${noise.seconds.toFixed(1)} s`;

/** Bits below which a format holds nothing; floating point holds anything, and nothing real lies under its 32. */
export const bitsOfEncoding = (encoding: string): number => Number(/^(?:pcm|flac)(\d+)$/.exec(encoding)?.[1] ?? 32);

/** Figures of a noise for the settings of a measurement: the band, and what was found. */
export const noiseSettings = (noise: SilenceNoise): Record<string, number | string> => ({
  highHz: Math.round(noise.highHz),
  ...(noise.findings.length > 0 ? { findings: findingsText(noise.findings) } : {}),
});

/** The figures as measurements with their conditions. */
export function silenceMeasurements(noise: SilenceNoise | null): Measurement[] {
  return (['z', 'a'] as const).map((weighting) => {
    const id: QuantityId = weighting === 'z' ? 'silenceRmsZ' : 'silenceRmsA';
    const weighted = weighting === 'z' ? 'unweighted' : 'A-weighted';
    if (!noise) return notMeasured(id, weighted, 'The clip holds no pause of at least 0.5 s.');
    if (noise.refused !== null) return notMeasured(id, `${weighted}, ${bandText(noise.highHz)}`, noise.refused);
    const level = noise[weighting];
    return measured(id, level.levelDbfs, `${weighted}, ${bandText(noise.highHz)}, ${pausesText(noise)}`, {
      bound: noise.bound,
      spread: level.spread,
      uncertainty: level.uncertaintyDb,
      settings: { startS: noise.segment.startS, endS: noise.segment.endS, ...noiseSettings(noise) },
    });
  });
}
