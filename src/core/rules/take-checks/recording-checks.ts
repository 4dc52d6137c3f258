import { gainAdvice } from '../gain-advice';
import { dbText, limitOf, timeText, type CheckedTake, type Finding } from './take-check';

/** Peaks this far outside the window make the take one to be redone; nearer, it is worth a look. Common practice, no source. */
const FAR_FROM_WINDOW_DB = 6;
/** Peaks above this leave no room for the next loud word, whatever the window. */
const HIGHEST_PEAK_DBFS = -1;
/** What is played rather than said or waited for. */
const PLAYED = ['tone', 'sweep', 'noise', 'recording'];

/** Nothing came in, or nothing on one of the channels. */
export function digitalSilence({ clip }: CheckedTake): Finding | null {
  if (clip.peakDbfs !== null && clip.peakDbfs > -120) {
    const dead = clip.channelsDbfs.flatMap((level, c) => (level === null || level < -120 ? [c + 1] : []));
    return dead.length === 0
      ? null
      : {
          check: 'digital-silence',
          weight: 'look',
          what: `Channel ${dead.join(' and ')} holds nothing at all.`,
          next: 'See whether that input is meant to be empty; otherwise choose the right input and redo.',
        };
  }
  return {
    check: 'digital-silence',
    weight: 'redo',
    what: 'The take is digital silence: not even noise came in.',
    next: 'Look at cable, input number, mute and phantom power, then redo.',
  };
}

/** Samples at the end of the scale, or peaks between them beyond it. */
export function clipping(take: CheckedTake): Finding | null {
  const { clip } = take;
  const isOver = (clip.truePeakDbtp ?? -Infinity) > 0;
  if (clip.clippedRuns === 0 && !isOver) return null;
  const advice = gainAdvice(clip.peakDbfs ?? 0, windowOf(take) ?? { lowDbfs: -12, highDbfs: -9 }, true);
  return {
    check: 'clipped',
    weight: 'redo',
    what:
      clip.clippedRuns > 0
        ? `Clipped ${clip.clippedRuns === 1 ? 'once' : `${clip.clippedRuns} times`}.`
        : `Peaks between the samples reach ${dbText(clip.truePeakDbtp ?? 0)} dBTP.`,
    next: `${advice?.text ?? 'Turn down.'} Then redo. Do not listen to it at full volume.`,
  };
}

/** The window that the step's gain rule gives; null where it gives none. */
export function windowOf({ step }: Pick<CheckedTake, 'step'>): { lowDbfs: number; highDbfs: number } | null {
  return step.gain?.rule === 'peaks' ? step.gain : null;
}

/** Peaks outside the window of the gain rule, or without room above them. */
export function level(take: CheckedTake): Finding | null {
  const { clip } = take;
  const { peakDbfs } = clip;
  if (peakDbfs === null || clip.clippedRuns > 0 || (clip.truePeakDbtp ?? -1) > 0) return null;
  const window = windowOf(take);
  if (!window) {
    // A signal that is played may stand where it is wanted: no louder word follows it.
    if (peakDbfs <= HIGHEST_PEAK_DBFS || PLAYED.includes(take.playKind)) return null;
    return {
      check: 'level',
      weight: 'look',
      what: `Peaks reach ${dbText(peakDbfs)} dBFS: no room is left.`,
      next: 'Turn down by 3 dB if the rule of the step allows it.',
    };
  }
  const advice = gainAdvice(peakDbfs, window);
  if (!advice || advice.turnDb === 0) return null;
  const off = Math.max(window.lowDbfs - peakDbfs, peakDbfs - window.highDbfs);
  const tolerance = limitOf(take, 'level', 0);
  if (off <= tolerance) return null;
  return {
    check: 'level',
    weight: off > FAR_FROM_WINDOW_DB ? 'redo' : 'look',
    what: `Peaks reach ${dbText(peakDbfs)} dBFS; the window is ${dbText(window.lowDbfs, 0)} to ${dbText(window.highDbfs, 0)} dBFS.`,
    next: advice.text,
  };
}

/** Another sample rate than the protocol or the session has. */
export function sampleRate({ clip, expectedRateHz }: CheckedTake): Finding | null {
  if (expectedRateHz === null || clip.sampleRateHz === expectedRateHz) return null;
  return {
    check: 'sample-rate',
    weight: 'redo',
    what: `Recorded at ${clip.sampleRateHz / 1000} kHz; this session runs at ${expectedRateHz / 1000} kHz.`,
    next: 'Set the interface back and redo, or the takes cannot be compared sample by sample.',
  };
}

/** Shorter or longer than the step asks for. */
export function length({ clip, step }: CheckedTake): Finding | null {
  if (!step.lengthS) return null;
  const { least, most } = step.lengthS;
  if (clip.durationS >= least && clip.durationS <= most) return null;
  const isShort = clip.durationS < least;
  return {
    check: 'length',
    weight: isShort ? 'redo' : 'look',
    what: `Lasts ${timeText(clip.durationS)}; the step asks for ${isShort ? 'at least' : 'at most'} ${timeText(isShort ? least : most)}.`,
    next: isShort ? 'Redo, and wait before stopping.' : 'Keep it if nothing foreign is in it.',
  };
}

/** Gaps and repeats longer than 5 ms. */
export function dropOuts({ clip, role }: CheckedTake): Finding | null {
  // A calibrator's tone repeats itself by nature.
  if (clip.dropOuts === 0 || role === 'calibration') return null;
  return {
    check: 'drop-outs',
    weight: 'redo',
    what: `${clip.dropOuts === 1 ? 'One gap or repeat' : `${clip.dropOuts} gaps or repeats`} longer than 5 ms: a cable, a radio link, or an overloaded computer.`,
    next: 'Move the cable and watch the meter; close other programs; redo. For a wireless unit this may be the finding itself: then keep it, and say so.',
  };
}
