import { AudioFileError } from '../audio/audio-file-error';
import type { Dbtp, Lufs } from '../units';

/** Clips that are compared by ear may not come nearer to full scale. */
export const TRUE_PEAK_CEILING_DBTP = -1;
/** What matching needs to know of a clip. */
export interface MatchedClip {
  readonly integratedLufs: Lufs;
  readonly truePeakDbtp: Dbtp;
}

/** Gains that bring clips to one loudness. */
export interface LevelMatch {
  readonly targetLufs: number;
  /** In dB, one per clip. */
  readonly gainsDb: readonly number[];
  /** Clip that kept the target from being higher; null where the wanted target stands. */
  readonly heldBackBy: number | null;
}

/**
 * Gains that give all clips the same integrated loudness. The target is the wanted one, lowered for all clips alike
 * until none exceeds −1 dBTP: gain moves loudness and true peak by the same number of decibels, so no second
 * measurement is needed.
 *
 * @param clips - two or more (one is brought to the target)
 * @param wantedLufs - target; the loudest clip's own loudness is never exceeded unless this says so
 * @throws AudioFileError `unmeasurable` where a clip has no loudness (silence cannot be matched)
 */
export function levelMatch(clips: readonly MatchedClip[], wantedLufs: number): LevelMatch {
  let targetLufs = wantedLufs;
  let heldBackBy: number | null = null;
  clips.forEach(({ integratedLufs, truePeakDbtp }, i) => {
    if (!Number.isFinite(integratedLufs))
      throw new AudioFileError('unmeasurable', `clip ${i + 1} has no loudness above −70 LUFS`);
    const highest = integratedLufs + TRUE_PEAK_CEILING_DBTP - truePeakDbtp;
    if (highest < targetLufs) {
      targetLufs = highest;
      heldBackBy = i;
    }
  });
  return { targetLufs, gainsDb: clips.map((c) => targetLufs - c.integratedLufs), heldBackBy };
}
