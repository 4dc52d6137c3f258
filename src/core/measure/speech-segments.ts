import { FRAMES_PER_SECOND } from '../dsp/frame-power';
import { quantileSorted } from '../stats/quantile';
import { powerToDb } from '../units';
import { lufsToPower } from './integrated-loudness';

/** A stretch of a clip, in seconds from its start. */
export interface Segment {
  readonly startS: number;
  readonly endS: number;
}

/** Where somebody speaks, and where nobody does. */
export interface SpeechSegments {
  readonly speech: readonly Segment[];
  /** Pauses of at least half a second, trimmed, in the order of time. */
  readonly silence: readonly Segment[];
  /** Sounds that are neither: breath, a knock, a car; too soft or too short to be speech. */
  readonly events: readonly Segment[];
}

/** Settings of the detector; common practice, no source, and checked against labelled synthetic takes. */
export const SEGMENT_SETTINGS = {
  /** Frames are smoothed over this time before they are compared. */
  smoothingS: 0.1,
  /** A clip whose loud and soft parts differ by less holds no speech rhythm: it is steady. */
  steadyRangeDb: 9,
  /** The threshold lies this part of the way from the floor to the loud part, but at least `leastDb` above the floor. */
  thresholdShare: 0.3,
  leastDb: 6,
  /**
   * Music or a busy room rises and falls in the pauses too. What stays under in the quietest tenth of all stretches of
   * this length is the ceiling of the background; the threshold lies at least `aboveCeilingDb` above it, but never
   * nearer to the loud part than `belowLoudDb`.
   */
  ceilingS: 0.4,
  ceilingShare: 0.1,
  aboveCeilingDb: 3,
  belowLoudDb: 14,
  /** A sound whose loudest moment stays this far below the loud part is an event: a breath, a page. */
  eventBelowLoudDb: 18,
  /** Pauses shorter than this belong to the speech around them. */
  shortestPauseS: 0.3,
  /** Sounds shorter than this are events, not speech. */
  shortestSpeechS: 0.15,
  /** Cut from both ends of a pause: decaying room, breath before a word. */
  trimS: 0.2,
  shortestSilenceS: 0.5,
  /** A steady clip counts as silence only below this loudness. */
  steadySilenceLufs: -35,
} as const;

const FLOOR_POWER = 1e-14;

/**
 * Finds speech and silence from K-weighted power in frames of 20 ms (the weighting keeps rumble from counting).
 * The threshold adapts to the clip: the floor is what 5 % of the frames stay under, the loud part what half a
 * second in total exceeds.
 *
 * @param framePowers - K-weighted mean squares of successive 20 ms frames
 * @param isZeroFrame - 1 where all samples of a frame are zero; pasted silence says nothing of the floor of the room
 */
export function speechSegments(framePowers: Float64Array, isZeroFrame: Uint8Array | null = null): SpeechSegments {
  const settings = SEGMENT_SETTINGS;
  const count = framePowers.length;
  if (count === 0) return { speech: [], silence: [], events: [] };
  const levels = smoothedLevels(framePowers, Math.round(settings.smoothingS * FRAMES_PER_SECOND));
  const sounding = isZeroFrame?.includes(1) ? levels.filter((_, i) => !isZeroFrame[i]) : levels;
  const sorted = (sounding.length > 0 ? sounding : levels).slice().sort();
  const floor = quantileSorted(sorted, 0.05);
  const loud = sorted[Math.max(0, sorted.length - 1 - Math.round(0.5 * FRAMES_PER_SECOND))];
  const isSteady = loud - floor < settings.steadyRangeDb;
  // In a steady clip whatever stands out is an event, and a loud steady clip (a tone, a motor) is no silence.
  if (isSteady && quantileSorted(sorted, 0.5) > powerToDb(lufsToPower(settings.steadySilenceLufs)))
    return { speech: [], silence: [], events: [] };
  const threshold = isSteady
    ? floor + settings.steadyRangeDb
    : speechThreshold(sounding.length > 0 ? sounding : levels, floor, loud);
  const active = new Uint8Array(count);
  for (let i = 0; i < count; i++) if (levels[i] > threshold) active[i] = 1;
  // Soft sounds are taken out before short pauses are closed, or a breath would join the phrase that follows it.
  const sounds = runs(active, 1);
  const strong = new Uint8Array(count);
  for (const run of sounds) {
    if (!isSteady && highest(levels, run) > loud - settings.eventBelowLoudDb) strong.fill(1, run.start, run.end);
  }
  const shortest = settings.shortestSpeechS * FRAMES_PER_SECOND;
  const phrases = runs(fillGaps(strong, Math.round(settings.shortestPauseS * FRAMES_PER_SECOND)), 1);
  const speech = phrases.filter((run) => run.end - run.start >= shortest);
  // Both stand in the order of time.
  let next = 0;
  const isInSpeech = (run: Run): boolean => {
    while (next < speech.length && speech[next].end < run.end) next++;
    return next < speech.length && run.start >= speech[next].start;
  };
  const silence = runs(active, 0)
    .map((run) => trimmedPause(run, levels, count))
    .filter((r) => r.end - r.start >= settings.shortestSilenceS * FRAMES_PER_SECOND);
  return {
    speech: speech.map(toSeconds),
    silence: silence.map(toSeconds),
    events: sounds.filter((run) => !isInSpeech(run)).map(toSeconds),
  };
}

function speechThreshold(levels: Float64Array, floor: number, loud: number): number {
  const settings = SEGMENT_SETTINGS;
  const adaptive = floor + Math.max(settings.leastDb, settings.thresholdShare * (loud - floor));
  const width = Math.round(settings.ceilingS * FRAMES_PER_SECOND);
  const maxima: number[] = [];
  for (let i = 0; i + width <= levels.length; i += width >> 2)
    maxima.push(highest(levels, { start: i, end: i + width }));
  const ceiling = quantileSorted(Float64Array.from(maxima).sort(), settings.ceilingShare) + settings.aboveCeilingDb;
  return Math.max(adaptive, Math.min(Number.isNaN(ceiling) ? -Infinity : ceiling, loud - settings.belowLoudDb));
}

function highest(levels: Float64Array, run: Run): number {
  let most = -Infinity;
  for (let i = run.start; i < run.end; i++) if (levels[i] > most) most = levels[i];
  return most;
}

interface Run {
  readonly start: number;
  /** First frame after the run. */
  readonly end: number;
}

const toSeconds = (run: Run): Segment => ({
  startS: run.start / FRAMES_PER_SECOND,
  endS: run.end / FRAMES_PER_SECOND,
});

function smoothedLevels(powers: Float64Array, width: number): Float64Array {
  const half = Math.floor(width / 2);
  const levels = new Float64Array(powers.length);
  for (let i = 0; i < powers.length; i++) {
    const from = Math.max(0, i - half);
    const to = Math.min(powers.length, i + half + 1);
    let sum = 0;
    for (let k = from; k < to; k++) sum += powers[k];
    levels[i] = powerToDb(sum / (to - from) + FLOOR_POWER);
  }
  return levels;
}

function runs(mask: Uint8Array, value: 0 | 1): Run[] {
  const found: Run[] = [];
  for (let start = mask.indexOf(value); start >= 0;) {
    const next = mask.indexOf(1 - value, start);
    const end = next < 0 ? mask.length : next;
    found.push({ start, end });
    start = mask.indexOf(value, end);
  }
  return found;
}

function fillGaps(mask: Uint8Array, shortest: number): Uint8Array {
  const filled = mask.slice();
  for (const gap of runs(mask, 0)) {
    const isInside = gap.start > 0 && gap.end < mask.length;
    if (isInside && gap.end - gap.start < shortest) filled.fill(1, gap.start, gap.end);
  }
  return filled;
}

/** Trims a pause where it borders on sound, then further while its edges still stand out of its own median. */
function trimmedPause(run: Run, levels: Float64Array, count: number): Run {
  const trim = Math.round(SEGMENT_SETTINGS.trimS * FRAMES_PER_SECOND);
  let start = run.start === 0 ? 0 : run.start + trim;
  let end = run.end === count ? count : run.end - trim;
  if (end <= start) return { start, end: start };
  const limit = quantileSorted(levels.slice(start, end).sort(), 0.5) + 3;
  while (end > start && levels[start] > limit) start++;
  while (end > start && levels[end - 1] > limit) end--;
  return { start, end };
}
