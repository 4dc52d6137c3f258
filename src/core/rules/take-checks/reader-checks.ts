import { passageLikeness } from '../../measure/passage-likeness';
import { isSpoken, limitOf, timeText, type CheckedClip, type CheckedTake, type Finding } from './take-check';

/** Shorter or longer than the usual length by more is not the same text. Common practice, no source. */
const SHORT_SHARE = 0.85;
const LONG_SHARE = 1.2;
/** One reading says how long that one took; what is usual takes several. Common practice, no source. */
const LEAST_READINGS = 3;
/** Two readings of one text follow each other at least this well, readings of different texts hardly ever do (labelled takes). */
const LEAST_LIKENESS = 0.75;

/** From the first word to the last. */
const spokenS = ({ speech }: CheckedClip): number =>
  speech.length === 0 ? 0 : (speech.at(-1)?.endS ?? 0) - speech[0].startS;

/** Whether the text was read whole and without stumbling, by length and course against the other takes of the step. */
export function passage(take: CheckedTake): Finding | null {
  if (!isSpoken(take)) return null;
  const { clip } = take;
  if (clip.speech.length === 0) {
    return {
      check: 'passage',
      weight: 'redo',
      what: 'Nothing like speech was found.',
      next: 'See whether this is the right input and the right step; redo.',
    };
  }
  const references = take.others.filter(
    (o) =>
      o.isNorm &&
      o.step === take.step.id &&
      o.clip.speech.length > 0 &&
      (take.voice === null || o.voice === null || o.voice === take.voice),
  );
  if (references.length < LEAST_READINGS) return null;
  const lengths = references.map((o) => spokenS(o.clip)).sort((a, b) => a - b);
  const usual = lengths[Math.floor((lengths.length - 1) / 2)];
  const share = spokenS(clip) / usual;
  const found = (what: string): Finding => ({
    check: 'passage',
    weight: 'redo',
    what,
    next: 'Read it again from the beginning; overrule this if it was read whole, only slower or faster.',
  });
  if (share < SHORT_SHARE)
    return found(
      `Read in ${timeText(spokenS(clip))}, usually ${timeText(usual)} (${references.length} readings): a part seems to be missing.`,
    );
  if (share > LONG_SHARE)
    return found(
      `Took ${timeText(spokenS(clip))}, usually ${timeText(usual)} (${references.length} readings): a stumble, a repeat, or another text?`,
    );
  const best = Math.max(...references.slice(0, 5).map((o) => passageLikeness(clip.stepPowers, o.clip.stepPowers) ?? 1));
  return best < limitOf(take, 'passage', LEAST_LIKENESS)
    ? {
        ...found(
          `Its rise and fall does not follow the other readings (likeness ${best.toFixed(2)}, usually above ${LEAST_LIKENESS}).`,
        ),
        weight: 'look',
      }
    : null;
}
