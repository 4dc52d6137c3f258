import { codecWords } from '#core/audio/codec';
import { codecReason } from '#core/measure/codec-decides';
import { gainWords, takeGain } from '#core/rules/take-gain';
import type { ClipSummary } from '#contracts/clip-summary';
import type { Take } from '#contracts/specimen';
import { doLinesMatter } from '#core/rules/lines-that-matter';
import { formatNumber } from '../../ui/format';

/** Something about a take that a reviewer should know before using it. */
export interface TakeNote {
  readonly text: string;
  readonly isProblem: boolean;
  /** What it is about, without what differs from take to take; the text itself where it is left out. */
  readonly about?: string;
}

/** A finding that many takes of a run share is said once. */
export interface SharedNote {
  readonly about: string;
  readonly takes: number;
}

/** Fewer takes than these do not make a finding the run's. */
const LEAST_SHARING = 3;
const SHARING_PART = 0.5;

/** What a note is known by among takes. */
export const aboutOf = (note: TakeNote): string => note.about ?? note.text;

/** Findings that at least half of the takes of a run have, three at least; the most frequent first. */
export function sharedNotes(takes: readonly Take[]): SharedNote[] {
  const counts = new Map<string, number>();
  for (const take of takes)
    for (const about of new Set(takeNotes(take).map(aboutOf))) counts.set(about, (counts.get(about) ?? 0) + 1);
  return [...counts]
    .filter(([, count]) => count >= LEAST_SHARING && count >= SHARING_PART * takes.length)
    .map(([about, count]) => ({ about, takes: count }))
    .sort((a, b) => b.takes - a.takes);
}

/** Full scale is this near: the converter was at its end (common practice, no source). */
const TOO_HOT_DBTP = -1;
/** Speech peaks below this waste the converter; −12 to −9 dBFS is a good level (common practice, no source). */
const TOO_QUIET_DBFS = -30;

/** Plain words about what stands out in a take, problems first. */
export function takeNotes(take: Take, role: string = take.step): TakeNote[] {
  const { summary, clip } = take;
  const notes: TakeNote[] = [];
  if (clip.salvaged) {
    const claimed = clip.salvaged.claimedS === null ? 'of unknown length' : `of ${clip.salvaged.claimedS.toFixed(1)} s`;
    notes.push({ text: `Only a part of a truncated file ${claimed} was kept.`, isProblem: true });
  }
  const packed = codecReason(clip.origin);
  if (packed !== null) notes.push({ text: `${packed} Its noise is not measured.`, isProblem: false });
  for (const { check, what, reason } of take.overruled) {
    notes.push({ text: `Overruled (${check}): ${what} Because: ${reason}`, isProblem: false });
  }
  if (!summary) return notes;
  const { level, loudness, noise } = summary;
  if (level.peakDbfs === null) return [...notes, { text: 'Digital silence: nothing was recorded.', isProblem: true }];
  if (level.clippedRuns > 0) {
    notes.push({
      text: `Clipped in ${level.clippedRuns} ${level.clippedRuns === 1 ? 'place' : 'places'}: turn the gain down and take it again.`,
      isProblem: true,
    });
  }
  if (loudness.truePeakDbtp !== null && loudness.truePeakDbtp > TOO_HOT_DBTP) {
    notes.push({
      text: 'True peak within 1 dB of full scale. Loud: turn headphones down before playing.',
      isProblem: true,
    });
  }
  if (role === 'silence' && noise.speech.length > 0) {
    notes.push({
      text: 'Something is heard in the silent take; what is quiet in it was measured.',
      isProblem: true,
    });
  }
  if (SPOKEN.some((spoken) => role === spoken)) {
    if (noise.speech.length === 0) notes.push({ text: 'No speech was found in this take.', isProblem: true });
    else if (role === 'speech' && level.peakDbfs < TOO_QUIET_DBFS) {
      notes.push({ text: 'Very quiet: peaks of −12 to −9 dBFS are a good recording level.', isProblem: true });
    }
  }
  // Of what is played, its lines are the signal.
  const showsLines = role === 'silence' || SPOKEN.includes(role);
  return [...notes, ...disturbances(summary, showsLines)];
}

/** Roles of steps at which somebody speaks. */
const SPOKEN = ['speech', 'rear', 'distance', 'close', 'plosive'];

function disturbances({ hum, interference, dropOuts, noise }: ClipSummary, showsLines: boolean): TakeNote[] {
  const notes: TakeNote[] = [];
  const level = (dbfs: number | null): string => `${formatNumber(dbfs ?? 0, 1)} dBFS`;
  if (dropOuts.count > 0) {
    const { kind, startS } = dropOuts.listed[0];
    notes.push({
      text: `${dropOuts.count} ${dropOuts.count === 1 ? 'drop-out' : 'drop-outs'}, the first a ${kind} at ${startS.toFixed(2)} s: check cable, link and buffer, and take it again.`,
      isProblem: true,
    });
  }
  if (!showsLines) return notes;
  const matters = (dbfs: number | null): boolean => doLinesMatter(dbfs, noise.silenceRmsDbfs.a);
  if (hum?.mainsHz && matters(hum.totalDbfs))
    notes.push({
      about: `Hum of ${hum.mainsHz} Hz mains: look for a ground loop or a supply nearby.`,
      text: `Hum of ${hum.mainsHz} Hz mains at ${level(hum.totalDbfs)}: look for a ground loop or a supply nearby.`,
      isProblem: false,
    });
  if (interference?.busWhine && matters(interference.busWhine.totalDbfs)) {
    notes.push({
      about: 'Bus whine at multiples of 1 kHz: try another port or hub.',
      text: `Bus whine at multiples of 1 kHz, ${level(interference.busWhine.totalDbfs)}: try another port or hub.`,
      isProblem: false,
    });
  }
  if (interference?.radioBursts && matters(interference.radioBursts.totalDbfs)) {
    notes.push({
      about: 'Radio bursts of a phone (217 Hz): move it away.',
      text: `Radio bursts of a phone (217 Hz), ${level(interference.radioBursts.totalDbfs)}: move it away.`,
      isProblem: true,
    });
  }
  return notes;
}

/** The settings that shaped a take, in one line. */
export function takeSetup({
  gainDb,
  distanceM,
  angleDeg,
  levelDbSpl,
  levelDbu,
  windSpeedMs,
  clip,
  settings,
}: Take): string {
  const { dial } = settings;
  const gain = takeGain(gainDb, typeof dial === 'string' ? dial : null);
  const parts = [gain.kind === 'dB' ? `${formatNumber(gain.db, Number.isInteger(gain.db) ? 0 : 1)} dB gain` : gainWords(gain)]; // prettier-ignore
  if (distanceM !== null)
    parts.push(`${formatNumber(100 * distanceM, Number.isInteger(Math.round(1e6 * distanceM) / 1e4) ? 0 : 1)} cm`);
  if (angleDeg !== null) parts.push(`${formatNumber(angleDeg, 0)}°`);
  if (levelDbu !== null) parts.push(`${formatNumber(levelDbu, 1)} dBu at the input`);
  if (levelDbSpl !== null) parts.push(`calibrator ${formatNumber(levelDbSpl, 1)} dB SPL`);
  if (windSpeedMs !== null) parts.push(`wind of ${formatNumber(windSpeedMs, 1)} m/s`);
  const { sampleRateHz, encoding, channels } = clip.format;
  parts.push(clip.origin ? `${sampleRateHz / 1000} kHz from ${codecWords(clip.origin)}` : `${sampleRateHz / 1000} kHz ${encoding}`); // prettier-ignore
  if (channels > 1) parts.push(`${channels} channels`);
  for (const [name, value] of Object.entries(settings))
    if (name !== 'dial' || gain.kind === 'dB') parts.push(settingText(name, value));
  return parts.join(', ');
}

const SETTING_NAMES: Readonly<Record<string, string>> = { lowCut: 'low-cut', phantom: 'phantom power' };

function settingText(name: string, value: string | number | boolean): string {
  const words = SETTING_NAMES[name] ?? name;
  return typeof value === 'boolean' ? `${words} ${value ? 'on' : 'off'}` : `${words} ${value}`;
}
