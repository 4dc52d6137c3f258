import type { BandLevel } from '../measure/third-octave-spectrum';
import { mean } from '../stats/moments';
import { powerToDb } from '../units';
import type { PlayKind } from './step-sheet';

/** What a recording seems to hold. */
export type ContentKind = 'silence' | 'tone' | 'sweep' | 'passage' | 'line' | 'sound';

/** What a recording is known by. */
export interface HeardContent {
  readonly speechS: number;
  readonly integratedLufs: number | null;
  readonly thirdOctave: readonly BandLevel[];
  /** Correlation with the protocol's sweep, 0…1; null where nobody looked. */
  readonly sweepLikeness: number | null;
}

const PASSAGE_S = 9;
/** A sweep spreads its energy evenly over octaves; speech falls off by far more. */
const SWEEP_SPREAD_DB = 7.5;
/** Even from behind, a recorded sweep correlates better with the played one than speech ever does (labelled takes). */
const SWEEP_LIKENESS = 0.12;
const TONE_ABOVE_DB = 18;
const QUIET_LUFS = -48;

/** What a recording seems to hold, from its figures. */
export function contentOf(take: HeardContent): ContentKind {
  const levels = take.thirdOctave.filter((b) => b.centreHz >= 80 && b.centreHz <= 10_000 && b.levelDbfs !== null);
  const sorted = levels.map((b) => b.levelDbfs ?? -Infinity).sort((a, b) => b - a);
  if (take.sweepLikeness !== null && take.sweepLikeness >= SWEEP_LIKENESS) return 'sweep';
  // A tone fills its own band, and leaks into the two beside it.
  if (sorted.length > 4 && sorted[0] - sorted[3] > TONE_ABOVE_DB) return 'tone';
  if (take.integratedLufs === null || (take.integratedLufs < QUIET_LUFS && take.speechS < 0.5)) return 'silence';
  const average = mean(sorted);
  const spread = Math.sqrt(mean(sorted.map((l) => (l - average) ** 2)));
  // Without the sweep itself to compare with, only its even spectrum tells.
  if (
    take.sweepLikeness === null &&
    sorted.length > 12 &&
    spread < SWEEP_SPREAD_DB &&
    highShare(take.thirdOctave) > -10
  )
    return 'sweep';
  if (take.speechS >= PASSAGE_S) return 'passage';
  if (take.speechS >= 0.5) return 'line';
  return take.integratedLufs < QUIET_LUFS + 8 ? 'silence' : 'sound';
}

/** Level from 4 to 10 kHz re that from 250 Hz to 1 kHz, decibels. */
function highShare(bands: readonly BandLevel[]): number {
  const power = (low: number, high: number): number =>
    bands.reduce(
      (s, b) => (b.centreHz >= low && b.centreHz <= high && b.levelDbfs !== null ? s + 10 ** (b.levelDbfs / 10) : s),
      0,
    );
  return powerToDb(power(4000, 10_000) / power(250, 1000));
}

/** How well a content fits what a step plays: 1 well, 0 unknown, −1 not at all. */
export function contentFit(content: ContentKind, playKind: string): number {
  const fits: Readonly<Partial<Record<PlayKind, readonly ContentKind[]>>> = {
    text: ['passage'],
    phrase: ['line'],
    sung: ['line', 'passage'],
    silence: ['silence'],
    sweep: ['sweep'],
    tone: ['tone'],
    noise: ['sweep', 'sound'],
    knocks: ['sound', 'line'],
    walk: ['line', 'passage', 'sound'],
    wind: ['sound'],
    recording: ['sound', 'line', 'passage'],
  };
  const wanted = fits[playKind as PlayKind];
  if (!wanted) return 0;
  if (wanted.includes(content)) return 1;
  // A passage read short and a long line look alike.
  return (content === 'passage' || content === 'line') && (playKind === 'text' || playKind === 'phrase') ? -0.3 : -1;
}

export const CONTENT_WORDS: Readonly<Record<ContentKind, string>> = {
  silence: 'silence',
  tone: 'a steady tone',
  sweep: 'a sweep',
  passage: 'a long reading',
  line: 'a short line',
  sound: 'some other sound',
};
