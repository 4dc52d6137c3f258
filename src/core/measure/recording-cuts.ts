import { quantileSorted } from '../stats/quantile';
import { powerToDb } from '../units';
import { FRAMES_PER_SECOND } from '../dsp/frame-power';
import type { Segment } from './speech-segments';

/** How the takes of one long recording are told apart. */
export type CutMethod = 'silences' | 'tones' | 'announcements';

/** Settings of the cutter; common practice, no source. */
export const CUT_SETTINGS = {
  /** A pause of this length parts two takes; shorter ones belong to a take. */
  leastPauseS: 2,
  /** Kept of the quiet before and after a take. */
  marginS: 0.4,
  /** A marker is a pair of tones. */
  toneHz: 2000,
  toneS: 0.2,
  toneGapS: 0.2,
  /** An announcement ("step four") is at most this long, with a pause of `announcementPauseS` around it. */
  announcementS: 2.2,
  announcementPauseS: 0.8,
  /** Anything shorter is a knock, not a take. */
  shortestTakeS: 0.5,
} as const;

/** Sounds: stretches between pauses. */
interface Sound {
  readonly start: number;
  readonly end: number;
}

const FLOOR_POWER = 1e-14;
/** Between the quiet tenth and the loud twentieth, this share of the way up (in decibels) parts sound from quiet. */
const THRESHOLD_SHARE = 0.35;
const LEAST_RANGE_DB = 9;

/**
 * Cuts a recording of many takes into pieces.
 *
 * @param framePowers - K-weighted power in frames of 20 ms
 * @param isTone - for each frame whether the marker's tone fills it; needed for `tones` only
 * @param method - by pauses, by the markers played between the takes, or by short announcements
 * @param silenceS - by pauses only: a pause at least this long between or beside the takes is a take of its own, that
 *   of the silent step; null: none is
 * @returns stretches in seconds, in the order of time; empty where the recording has no pauses or markers
 */
export function cutRecording(
  framePowers: Float64Array,
  isTone: Uint8Array | null,
  method: CutMethod,
  silenceS: number | null = null,
): Segment[] {
  const total = framePowers.length;
  if (method === 'tones') return tonePieces(isTone ?? new Uint8Array(total), total).map(toSeconds);
  const sounds = soundsOf(framePowers);
  const pieces =
    method === 'silences'
      ? joined(sounds, CUT_SETTINGS.leastPauseS)
      : afterAnnouncements(joined(sounds, CUT_SETTINGS.announcementPauseS), total);
  const takes = pieces.filter(isLong).map((p) => widened(p, total));
  const silent = method === 'silences' && silenceS !== null && takes.length > 0 ? between(takes, total, silenceS) : [];
  return [...takes, ...silent].sort((a, b) => a.start - b.start).map(toSeconds);
}

/** Quiet stretches between, before and after takes that are as long as a silent take. */
function between(takes: readonly Sound[], total: number, leastS: number): Sound[] {
  const edges = [0, ...takes.flatMap(({ start, end }) => [start, end]), total];
  return Array.from({ length: edges.length / 2 }, (_, i) => ({ start: edges[2 * i], end: edges[2 * i + 1] })).filter(
    ({ start, end }) => end - start >= frames(leastS),
  );
}

const frames = (seconds: number): number => Math.round(seconds * FRAMES_PER_SECOND);
const isLong = ({ start, end }: Sound): boolean => end - start >= frames(CUT_SETTINGS.shortestTakeS);
const toSeconds = ({ start, end }: Sound): Segment => ({
  startS: start / FRAMES_PER_SECOND,
  endS: end / FRAMES_PER_SECOND,
});

function widened({ start, end }: Sound, total: number): Sound {
  const margin = frames(CUT_SETTINGS.marginS);
  return { start: Math.max(0, start - margin), end: Math.min(total, end + margin) };
}

function soundsOf(framePowers: Float64Array): Sound[] {
  const levels = framePowers.map((p) => powerToDb(p + FLOOR_POWER));
  const sorted = levels.slice().sort();
  const [quiet, loud] = [quantileSorted(sorted, 0.1), quantileSorted(sorted, 0.95)];
  if (!(loud - quiet >= LEAST_RANGE_DB)) return [];
  const threshold = quiet + THRESHOLD_SHARE * (loud - quiet);
  return stretches(levels.length, (i) => levels[i] > threshold);
}

function stretches(count: number, isIn: (i: number) => boolean): Sound[] {
  const found: Sound[] = [];
  for (let i = 0; i < count; i++) {
    if (!isIn(i)) continue;
    const start = i;
    while (i < count && isIn(i)) i++;
    found.push({ start, end: i });
  }
  return found;
}

/** Joins sounds with less than a pause between them. */
function joined(sounds: readonly Sound[], pauseS: number): Sound[] {
  const found: Sound[] = [];
  for (const sound of sounds) {
    const last = found.at(-1);
    if (last && sound.start - last.end < frames(pauseS))
      found[found.length - 1] = { start: last.start, end: sound.end };
    else found.push(sound);
  }
  return found;
}

/** What stands between two pairs of marker tones, quiet included: a silent take has no other bounds. */
function tonePieces(isTone: Uint8Array, total: number): Sound[] {
  const { toneS, toneGapS, shortestTakeS } = CUT_SETTINGS;
  const tones = stretches(total, (i) => isTone[i] === 1).filter(
    ({ start, end }) => end - start >= frames(0.6 * toneS) && end - start <= frames(2 * toneS),
  );
  const pairs: Sound[] = [];
  for (let i = 0; i + 1 < tones.length; i++) {
    const gap = tones[i + 1].start - tones[i].end;
    if (gap > frames(2.5 * toneGapS)) continue;
    pairs.push({ start: tones[i].start, end: tones[i + 1].end });
    i++;
  }
  if (pairs.length === 0) return [];
  const clear = frames(0.1);
  return pairs
    .map(({ end }, i) => ({ start: end + clear, end: (pairs.at(i + 1)?.start ?? total + clear) - clear }))
    .filter((p) => p.end - p.start >= frames(shortestTakeS));
}

/** Everything from one announcement to the next; what stands before the first one is left out. */
function afterAnnouncements(sounds: readonly Sound[], total: number): Sound[] {
  const announced = sounds.filter(({ start, end }) => end - start <= frames(CUT_SETTINGS.announcementS));
  const margin = frames(CUT_SETTINGS.announcementPauseS / 2);
  return announced.map(({ end }, i) => {
    const next = announced.at(i + 1)?.start ?? total;
    return { start: Math.min(next, end + margin), end: Math.max(end + margin, next - margin) };
  });
}
