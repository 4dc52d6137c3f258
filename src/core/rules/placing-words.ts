import { MOST_QUESTIONS, type ExpectedQuestions, type PlacingGoal } from './placing-goal';

/** How far a goal is reached, as the page is told. */
export interface GoalReached {
  readonly kind: PlacingGoal['kind'];
  /** Name of the yardstick. */
  readonly than: string | null;
  readonly answer: number;
  readonly probability: number;
  readonly isSettled: boolean;
  readonly expected: ExpectedQuestions | null;
}

const percent = (p: number): string => `${Math.min(99, Math.floor(100 * p))} %`;

/**
 * What is known of a goal, in words that claim no more than its probability.
 *
 * @param goal - how far it is reached
 * @param strata - how many the others form
 */
export function goalWords(goal: GoalReached, strata: number): string {
  const { kind, than, answer, probability, isSettled } = goal;
  const said = {
    stratum: `stratum ${answer} of ${strata}`,
    half: answer === 1 ? 'the better half' : 'the lower half',
    beats: answer === 1 ? `better than ${than ?? ''}` : `not better than ${than ?? ''}`,
  }[kind];
  const verb = kind === 'beats' ? 'It is' : 'It belongs to';
  return isSettled
    ? `${verb} ${said}, with ${percent(probability)}.`
    : `So far ${said}, with ${percent(probability)}: not settled.`;
}

/** How many more questions are to be expected, in words. */
export function expectedWords({ expected, isSettled }: Pick<GoalReached, 'expected' | 'isSettled'>): string {
  if (isSettled) return 'More questions would only sharpen it.';
  if (!expected) return '';
  const { median, most } = expected;
  const half = `Half of all such units need no more than ${median} ${median === 1 ? 'question' : 'questions'}`;
  const rest = most === null ? `one in ten needs more than ${MOST_QUESTIONS}, those that lie on the border` : `nine in ten no more than ${most}`; // prettier-ignore
  return `${half}, ${rest}.`;
}
