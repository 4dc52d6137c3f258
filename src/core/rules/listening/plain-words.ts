import type { AbxResult, SequentialAbx } from '../../stats/abx';
import type { Agreement } from '../../stats/agreement';
import type { AnswerEffect } from '../../stats/answer-effect';
import type { Consistency } from '../../stats/circular-triads';

/**
 * A probability as people count: "4 times in 100", "3 times in 1,000".
 *
 * @param p - 0…1
 */
export function timesIn(p: number): string {
  if (p >= 0.995) return 'practically always';
  if (p >= 0.0095) return count(Math.round(p * 100), '100');
  if (p >= 0.00095) return count(Math.round(p * 1000), '1,000');
  return 'less than once in 1,000';
}

const count = (times: number, of: string): string => `${times === 1 ? 'once' : `${times} times`} in ${of}`;

const percent = (p: number): string => `${Math.round(100 * p)} %`;
const shareWords: readonly (readonly [number, string])[] = [[0.75, '3 times in 4'], [0.9, '9 times in 10'], [0.6, '6 times in 10']]; // prettier-ignore
const hears = (share: number): string =>
  shareWords.find(([s]) => Math.abs(s - share) < 1e-9)?.[1] ?? `${percent(share)} of the time`;

/**
 * What an ABX test of a fixed number of trials allows to say.
 *
 * @param result - of the test
 * @param detectable - share of right answers that the power stands for
 */
export function abxWords(result: AbxResult, detectable: number): string {
  const { right, trials, p, isShown, power, needed } = result;
  if (trials === 0) return 'Nothing was answered yet.';
  const score = `${right} of ${trials} right`;
  if (isShown) return `${score}: a guesser does this ${timesIn(p)}. The difference was heard.`;
  if (needed === null)
    return `${score}: with so few trials even all right would not have shown anything. At least 5 are needed.`;
  return (
    `${score}: no difference shown (a guesser does this ${timesIn(p)}); with ${trials} trials a listener who hears it ` +
    `${hears(detectable)} would have been found ${percent(power)} of the time.`
  );
}

/**
 * The same for an open-ended test.
 *
 * @param result - where it stands
 * @param detectable - share of right answers that it looks for
 */
export function sequentialAbxWords(result: SequentialAbx, detectable: number): string {
  const score = `${result.right} of ${result.trials} right`;
  switch (result.verdict) {
    case 'shown':
      return `${score}: the difference was heard. Guessers get this far in at most 5 of 100 tests, however long they go on.`;
    case 'not-shown':
      return `${score}: no difference shown. A listener who hears it ${hears(detectable)} would end here in at most 20 of 100 tests.`;
    case 'go-on':
      return `${score}: not decided yet.`;
  }
}

/**
 * @param right - names that were right
 * @param clips - names given in all
 * @param p - probability of as many by guessing
 */
export function matchingWords(right: number, clips: number, p: number): string {
  const end = p <= 0.05 ? 'The names were recognised.' : 'That is no more than guessing gives.';
  return `${right} of ${clips} names right: a guesser has as many or more ${timesIn(p)}. ${end}`;
}

/**
 * @param agreement - null for fewer than two listeners with the same things
 */
export function agreementWords(agreement: Agreement | null): string {
  if (!agreement) return 'Agreement needs two listeners who ordered the same things.';
  const { w, p, listeners } = agreement;
  const strength = w >= 0.7 ? 'largely agree' : w >= 0.4 ? 'agree in part' : 'hardly agree';
  const chance =
    p <= 0.05
      ? `Listeners who order at random agree as much ${timesIn(p)}.`
      : `Listeners who order at random agree as much ${timesIn(p)}: no common taste is shown.`;
  return `${listeners} listeners ${strength} (Kendall's W ${w.toFixed(2)}). ${chance}`;
}

/**
 * @param result - circular triads of one listener
 */
export function consistencyWords(result: Consistency): string {
  const { circular, byChance, zeta } = result;
  if (circular === 0) return 'No answer contradicts another.';
  return `${circular} circular ${circular === 1 ? 'triad' : 'triads'} (A over B, B over C, C over A); guessing gives ${byChance.toFixed(1)} on average. Consistency ${zeta.toFixed(2)}, 1 being perfect.`;
}

/**
 * An effect that should not be there: first-heard, louder, known by name.
 *
 * @param effect - its estimate in log odds (positive: it helps), and the probability of as large an effect by chance
 * @param what - "being heard first", "a dB more level"
 */
export function effectWords(effect: Pick<AnswerEffect, 'estimate' | 'p'>, what: string): string {
  const { estimate, p } = effect;
  const share = percent(1 / (1 + Math.exp(-estimate)));
  return p <= 0.05
    ? `Between equals, ${what} is preferred ${share} of the time: ${timesIn(p)} by chance alone. Orders are balanced, so that most of it cancels; the worths are not corrected for it.`
    : `No effect of ${what} is shown (between equals it is preferred ${share} of the time; chance alone gives as much ${timesIn(p)}).`;
}

/**
 * What the intervals of a scale allow for, in words: whose they are.
 *
 * @param listeners - who answered
 * @param tasteSd - deviation of a listener's own log worths about those of all
 */
export function tasteWords(listeners: number, tasteSd: number): string {
  const differ = `tastes are taken to differ by ±${tasteSd.toFixed(1)} in log worth`;
  if (listeners <= 1) return `Worths of one listener; the intervals are for any listener, and ${differ}.`;
  return `The intervals are for any listener: ${differ}, as these ${listeners} and the expectation before them say.`;
}
