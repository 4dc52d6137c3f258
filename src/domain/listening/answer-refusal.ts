import type { NewTest, SendAnswer, TrialDocument } from '#contracts/listening';
import { codeOf } from './heard-from-answer';
import { unheardSlots, type Deliveries } from './trial-slots';

/** The question that an answer is for, as it stands. */
export interface AskedTrial {
  readonly test: Pick<NewTest, 'tiesAllowed'>;
  readonly trial: TrialDocument;
  /** Whether the test takes answers. */
  readonly isOpen: boolean;
  /** Whether it is the question that is asked now. */
  readonly isAsked: boolean;
  readonly delivered: Deliveries;
}

/** Why an answer is not taken, in words; null where it is. */
export function answerRefusal(asked: AskedTrial, sent: Pick<SendAnswer, 'answer' | 'words'>): string | null {
  if (!asked.isOpen) return 'This test is closed; no more answers are taken.';
  if (!asked.isAsked) return 'This question is not open yet.';
  const unheard = unheardSlots(asked.trial, asked.delivered);
  return misfit(asked, sent) ?? (unheard.length > 0 ? `Listen to ${unheard.join(', ')} first.` : null);
}

/** How an answer does not fit its question. */
function misfit({ test, trial }: AskedTrial, { answer, words }: Pick<SendAnswer, 'answer' | 'words'>): string | null {
  const codes = trial.items.map((_, i) => codeOf(i));
  const isEachOnce = (given: readonly string[]): boolean =>
    given.length === codes.length && codes.every((code) => given.includes(code));
  if (answer.kind !== trial.kind) return 'This answer belongs to another question.';
  if (!Object.keys(words).every((c) => codes.includes(c))) return 'Words were given for a clip that was not offered.';
  switch (answer.kind) {
    case 'familiarise':
      return null;
    case 'order':
      return isEachOnce(answer.codes) ? null : 'Every clip has to be placed, once.';
    case 'pair':
      if (answer.preferred === null) return test.tiesAllowed ? null : 'This test asks for a decision.';
      return codes.includes(answer.preferred) ? null : 'That clip was not offered.';
    case 'abx':
      return codes.includes(answer.x) ? null : 'X is one of the two.';
    case 'names':
      return isEachOnce(Object.keys(answer.names)) && new Set(Object.values(answer.names)).size === codes.length
        ? null
        : 'Every clip needs a name of its own.';
    case 'ratings':
      return isEachOnce(Object.keys(answer.ratings)) ? null : 'Every clip needs a rating.';
  }
}
