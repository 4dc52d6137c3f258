import { FRAMES_PER_SECOND } from '../dsp/frame-power';
import { mean } from '../stats/moments';
import { quantile } from '../stats/quantile';
import { dbToPower, powerToDb } from '../units';
import type { Segment } from './speech-segments';

/** Settings of the screening; common practice, no source, and checked against labelled synthetic pauses. */
export const SCREENING = {
  /** A pause with a larger share of frames of zeros holds digital silence. */
  zeroShare: 0.1,
  /** A moment this far above the pause's median, or this many of its deviations, is no noise of the chain. */
  disturbanceDb: 6,
  disturbanceSds: 5,
  /** Shorter disturbances are clicks, longer ones sounds. */
  clickS: 0.1,
  /** Level that changes by less from the first to the last third of a pause is taken for steady. */
  trendDb: 2,
  /** A gate holds the noise for this long, then drops it by at least so much within at most `gateRampS`. */
  gateHoldS: 0.1,
  gateDropDb: 6,
  gateRampS: 0.2,
  /** On both sides of a gate's step the level is flat: it falls by less than this share of what an even decay would. */
  gateFlatShare: 0.5,
  gateFlatDb: 0.7,
  /** How long before a trimmed pause the look for a gate begins, and how far below the loud part what it holds lies. */
  gateLookBackS: 0.5,
  gateBelowLoudDb: 14,
  /** Nearer to an end of the file than this, a pause is one at its edge. */
  edgeS: 0.1,
} as const;

/** A pause with what was found inside it. */
export interface ScreenedPause {
  readonly segment: Segment;
  /** At the beginning or the end of the file: nobody spoke before it, or nobody after it. */
  readonly isEdge: boolean;
  /** Whether it follows a sound: only then can a tail, a gate or automatic gain show. */
  readonly followsSound: boolean;
  readonly isZero: boolean;
  readonly disturbances: readonly Segment[];
  /** Level of the last third re the first third, dB; null where that is not told from scatter, or nothing precedes. */
  readonly trendDb: number | null;
  /** By how much a gate closed after the words, dB; null where none was seen. */
  readonly gateDb: number | null;
}

/**
 * Looks at every pause in frames of 20 ms: zeros, clicks and sounds, a level that still falls or already rises, the
 * step of a gate.
 *
 * @param framePowers - K-weighted mean squares of 20 ms each
 * @param isZeroFrame - 1 where all samples of all channels of a frame are zero
 * @param pauses - in the order of time
 */
export function screenPauses(
  framePowers: Float64Array,
  isZeroFrame: Uint8Array,
  pauses: readonly Segment[],
): ScreenedPause[] {
  const total = framePowers.length;
  const loud = quantile(levelsOf(framePowers, 0, total), LOUD_SHARE);
  return pauses.map((segment) => {
    const from = Math.round(segment.startS * FRAMES_PER_SECOND);
    const to = Math.min(total, Math.round(segment.endS * FRAMES_PER_SECOND));
    const edge = SCREENING.edgeS * FRAMES_PER_SECOND;
    const levels = levelsOf(framePowers, from, to);
    const disturbed = disturbedFrames(levels);
    const followsSound = from > edge;
    let zeros = 0;
    for (let i = from; i < to; i++) zeros += isZeroFrame[i];
    const isZero = to > from && zeros / (to - from) > SCREENING.zeroShare;
    return {
      segment,
      isEdge: !followsSound || to >= total - edge,
      followsSound,
      isZero,
      disturbances: stretches(disturbed, from),
      trendDb: followsSound && !isZero ? trend(levels.filter((_, i) => disturbed[i] === 0)) : null,
      gateDb: followsSound && !isZero ? gateStep(framePowers, from, to, loud) : null,
    };
  });
}

// Plain loops over typed arrays: of most clips these are walked once, by code that has not been compiled yet.
function levelsOf(powers: Float64Array, from: number, to: number): Float64Array {
  const levels = new Float64Array(Math.max(0, to - from));
  for (let i = 0; i < levels.length; i++) levels[i] = powerToDb(powers[from + i] + 1e-16);
  return levels;
}

/** Deviation of a normal distribution from the median deviation (Hampel 1974). */
const MAD_TO_SD = 1.4826;

function disturbedFrames(levels: Float64Array): Uint8Array {
  if (levels.length === 0) return new Uint8Array();
  const middle = quantile(levels, 0.5);
  const sd =
    MAD_TO_SD *
    quantile(
      levels.map((l) => Math.abs(l - middle)),
      0.5,
    );
  const limit = middle + Math.max(SCREENING.disturbanceDb, SCREENING.disturbanceSds * sd);
  const disturbed = new Uint8Array(levels.length);
  for (let i = 0; i < levels.length; i++) if (levels[i] > limit) disturbed[i] = 1;
  return disturbed;
}

/** Disturbed frames as stretches of time; two that are a frame or two apart are one. */
function stretches(disturbed: Uint8Array, from: number): Segment[] {
  const found: Segment[] = [];
  disturbed.forEach((isDisturbed, i) => {
    if (isDisturbed === 0) return;
    const [startS, endS] = [(from + i) / FRAMES_PER_SECOND, (from + i + 1) / FRAMES_PER_SECOND];
    const last = found.at(-1);
    if (last && startS - last.endS < 2.5 / FRAMES_PER_SECOND) found[found.length - 1] = { startS: last.startS, endS };
    else found.push({ startS, endS });
  });
  return found;
}

/** Power mean of levels, dB. */
const powerMean = (levels: Float64Array): number => powerToDb(mean(levels.map(dbToPower)));

function trend(levels: Float64Array): number | null {
  const third = Math.floor(levels.length / 3);
  if (third < 5) return null;
  const change = powerMean(levels.slice(-third)) - powerMean(levels.slice(0, third));
  const steps = levels.slice(1).map((l, i) => l - levels[i]);
  // Differences of neighbours know nothing of a slow course: the scatter of the frames alone.
  const sd = Math.sqrt(mean(steps.map((d) => d * d)) / 2);
  return Math.abs(change) > Math.max(SCREENING.trendDb, 3 * sd * Math.sqrt(2 / third)) ? change : null;
}

/** What a twentieth of the frames exceeds is the loud part. */
const LOUD_SHARE = 0.95;

/** Largest drop between two flat stretches after the last word. */
function gateStep(powers: Float64Array, from: number, to: number, loud: number): number | null {
  const hold = Math.round(SCREENING.gateHoldS * FRAMES_PER_SECOND);
  const start = Math.max(0, from - Math.round(SCREENING.gateLookBackS * FRAMES_PER_SECOND));
  const levels = levelsOf(powers, start, to);
  const ramps = [0, 0.25, 0.5, 1].map((share) => Math.round(share * SCREENING.gateRampS * FRAMES_PER_SECOND));
  const heldFrom = movingPowerMeans(levels, hold);
  let lowest = Math.min(...levels.slice(0, hold));
  let largest: number | null = null;
  for (let k = hold; k + hold <= levels.length; k++) {
    const held = heldFrom[k - hold];
    const lowestBefore = lowest;
    lowest = Math.min(lowest, levels[k]);
    // A sound in the middle of a pause falls, too, and so does the last word: a gate holds the noise from there on.
    if (held > loud - SCREENING.gateBelowLoudDb || lowestBefore < held - 3) continue;
    for (const ramp of ramps) {
      if (k + ramp >= heldFrom.length) continue;
      const drop = held - heldFrom[k + ramp];
      if (drop < SCREENING.gateDropDb || drop <= (largest ?? 0)) continue;
      const even = (drop * hold) / 2 / (hold + ramp);
      const flat = Math.max(SCREENING.gateFlatDb, SCREENING.gateFlatShare * even);
      const before = levels.subarray(k - hold, k);
      const after = levels.subarray(k + ramp, k + ramp + hold);
      if (Math.max(course(before), course(after)) < flat) largest = drop;
    }
  }
  return largest;
}

/** Power mean, dB, of so many levels from each one on: a stretch is asked for as the one before, and as those after. */
function movingPowerMeans(levels: Float64Array, count: number): Float64Array {
  const powers = new Float64Array(levels.length);
  for (let i = 0; i < powers.length; i++) powers[i] = dbToPower(levels[i]);
  const means = new Float64Array(Math.max(0, levels.length - count + 1));
  for (let k = 0; k < means.length; k++) {
    let sum = 0;
    for (let i = k; i < k + count; i++) sum += powers[i];
    means[k] = powerToDb(sum / count);
  }
  return means;
}

/** By how much the two halves of a short stretch differ. */
function course(levels: Float64Array): number {
  const half = levels.length >> 1;
  return Math.abs(powerMean(levels.slice(0, half)) - powerMean(levels.slice(-half)));
}
