import type { KeepReturned, ReturnedAnswer } from '#contracts/blind-pack';

/** What a person says about an answer that came back; lines without an entry stand as they were read. */
export interface AnswerChoice {
  readonly isKept: boolean;
  /** As typed over; null for nobody. */
  readonly listener: string | null;
  readonly isSomebodyElse: boolean;
}
export type Choices = ReadonlyMap<number, AnswerChoice>;

/** How an answer stands before anybody has said anything: what is sure is kept, what is doubted waits for a look. */
export const firstChoice = (answer: ReturnedAnswer): AnswerChoice => ({
  isKept: answer.problem === null && answer.doubts.length === 0 && !answer.isThere,
  listener: answer.listener,
  isSomebodyElse: false,
});

export const choiceOf = (choices: Choices, answer: ReturnedAnswer): AnswerChoice =>
  choices.get(answer.line) ?? firstChoice(answer);

/** Choices with one changed. */
export function withChoice(choices: Choices, answer: ReturnedAnswer, part: Partial<AnswerChoice>): Choices {
  return new Map(choices).set(answer.line, { ...choiceOf(choices, answer), ...part });
}

/** Answers that can be kept at all. */
export const canBeKept = (answer: ReturnedAnswer): boolean => answer.problem === null;

/** What is sent: the lines that are kept. */
export function keptLines(answers: readonly ReturnedAnswer[], choices: Choices): KeepReturned['kept'] {
  return answers.flatMap((answer) => {
    const { isKept, listener, isSomebodyElse } = choiceOf(choices, answer);
    const name = listener?.trim() ?? '';
    return isKept && canBeKept(answer) ? [{ line: answer.line, listener: name === '' ? null : name, isSomebodyElse }] : []; // prettier-ignore
  });
}

/** What was found, in words; every number is that of what is shown below. */
export function foundWords(answers: readonly ReturnedAnswer[]): string {
  const sure = answers.filter((a) => firstChoice(a).isKept).length;
  const there = answers.filter((a) => a.isThere).length;
  const problems = answers.filter((a) => a.problem !== null).length;
  const doubted = answers.length - sure - there - problems;
  const parts = [
    `${sure} ${sure === 1 ? 'answer' : 'answers'}`,
    ...(doubted > 0 ? [`${doubted} to look at`] : []),
    ...(there > 0 ? [`${there} that ${there === 1 ? 'is' : 'are'} there already`] : []),
    ...(problems > 0 ? [`${problems} that ${problems === 1 ? 'says' : 'say'} nothing that can be kept`] : []),
  ];
  return `${parts.join(', ')}.`;
}
