import type { Bound } from '../../measure/measurement';
import type { TakeTone } from '../../measure/take-tone';
import type { AnalysedTake } from '../run/analysed-take';

/** A tone of 997 Hz or 1 kHz lies within this of 1 kHz; another one, or another rate than the file says, does not. */
const ONE_KILOHERTZ = [960, 1040] as const;
/** Levels nearer to each other than this are one level, frequencies nearer than this share one frequency. */
const SAME_LEVEL_DB = 0.5;
const SAME_SHARE = 0.02;

/** Whether a tone stands for “1 kHz” (997 Hz of AES17 as well), its frequency in hertz. */
export const isOneKilohertz = (hz: number): boolean => hz >= ONE_KILOHERTZ[0] && hz <= ONE_KILOHERTZ[1];

/** What of the channel that is fed is heard in the other, dB; at most where the noise hides it there. */
export function crosstalkOf({ channelsDbfs, channelsInNoise }: TakeTone): { fed: number; db: number; bound: Bound } {
  const [fed, other] = [...channelsDbfs.keys()].sort((a, b) => channelsDbfs[b] - channelsDbfs[a]);
  return { fed, db: channelsDbfs[other] - channelsDbfs[fed], bound: channelsInNoise[other] ? 'at-most' : 'exact' };
}

const ofRole = (takes: readonly AnalysedTake[], role: string): AnalysedTake[] => takes.filter((t) => t.role === role);

/**
 * The take of a tone near full scale that counts: of those near 1 kHz that do not clip the strongest, the last of its
 * level. Takes at lower levels are a curve beside it (`distortionByLevel`).
 */
export function strongestTone(takes: readonly AnalysedTake[], role: string): AnalysedTake | undefined {
  const all = ofRole(takes, role);
  const level = ({ tone }: AnalysedTake): number =>
    tone && !tone.isClipped && isOneKilohertz(tone.distortion.hz) ? tone.distortion.levelDbfs : -Infinity;
  const most = Math.max(...all.map(level));
  // Where none is as it should be, the last one says why.
  return Number.isFinite(most) ? all.findLast((t) => level(t) > most - SAME_LEVEL_DB) : all.at(-1);
}

/** The take between channels that counts: the last of a tone near 1 kHz; else the last, which says why it does not. */
export function toneNearOneKilohertz(takes: readonly AnalysedTake[], role: string): AnalysedTake | undefined {
  const all = ofRole(takes, role);
  return all.findLast(({ tone }) => tone && isOneKilohertz(tone.distortion.hz)) ?? all.at(-1);
}

/** Tones of a role by rising level, the last of each level. */
export function tonesByLevel(takes: readonly AnalysedTake[], role: string): TakeTone[] {
  const tones = ofRole(takes, role).flatMap(({ tone }) => (tone && isOneKilohertz(tone.distortion.hz) ? [tone] : []));
  return lastOfEach(tones, (a, b) => Math.abs(a.distortion.levelDbfs - b.distortion.levelDbfs) < SAME_LEVEL_DB) // prettier-ignore
    .sort((a, b) => a.distortion.levelDbfs - b.distortion.levelDbfs);
}

/** Tones of two channels by rising frequency, the last of each frequency. */
export function tonesByFrequency(takes: readonly AnalysedTake[], role: string): TakeTone[] {
  const tones = ofRole(takes, role).flatMap(({ tone }) => (tone && tone.channelsDbfs.length > 1 ? [tone] : []));
  return lastOfEach(tones, isSameTone).sort((a, b) => a.distortion.hz - b.distortion.hz);
}

/** Whether two takes hold the same tone: within 2 %, which is more than a generator drifts. */
export const isSameTone = (a: TakeTone, b: TakeTone): boolean =>
  Math.abs(a.distortion.hz / b.distortion.hz - 1) < SAME_SHARE;

function lastOfEach<T>(all: readonly T[], isSame: (a: T, b: T) => boolean): T[] {
  return all.filter((item, i) => !all.slice(i + 1).some((later) => isSame(item, later)));
}
