import {
  answerSchema,
  askedTrialSchema,
  QUESTIONS,
  trialDocumentSchema,
  type AskedTrialDocument,
  type NewTest,
  type SittingState,
} from '#contracts/listening';
import { isBreakDue } from './break-due';
import { codeOf, isRight, orderOf } from './heard-from-answer';
import type { SittingRow } from './sitting';
import type { ItemRow } from './test-item';
import { expectedTrials, isRanked, type AnsweredTrial } from './trial-plan';
import { openTrial } from './trial-slots';

/** A trial as it is kept: what is asked, and what was answered (null: nothing yet). */
interface KeptTrial {
  readonly ordinal: number;
  readonly document: unknown;
  readonly answer: unknown;
  readonly seconds: number | null;
}

/** A sitting with everything around it. */
export interface SittingFacts {
  readonly sitting: Pick<SittingRow, 'listener' | 'about' | 'headphones' | 'finished_at'>;
  readonly test: NewTest;
  readonly isOpen: boolean;
  readonly isRevealed: boolean;
  readonly items: readonly ItemRow[];
  readonly trials: readonly KeptTrial[];
}

/** What a listener's page may know: the letters and the question; nothing that is to be guessed, and no result. */
export function sittingState({ sitting, test, isOpen, isRevealed, items, trials }: SittingFacts): SittingState {
  const current = isOpen ? openTrial(trials) : null;
  const trial = current && askedTrialSchema.parse(current.document);
  const answered = trials.filter((t) => t.answer !== null);
  return {
    question: questionOf(test, trial),
    design: test.design,
    listener: sitting.listener,
    needsAbout: sitting.about === null && trial !== null,
    needsHeadphones: sitting.headphones === null && trial !== null,
    done: answered.length,
    total: expectedTrials(test, items, trials.length),
    breakDue: isBreakDue(
      answered.map((t) => t.seconds ?? 0),
      test.breakAfterMin,
    ),
    isClosed: !isOpen,
    isFinished: sitting.finished_at !== null,
    isRevealed,
    lengthS: test.passage.lengthS,
    trial: trial && current ? { ordinal: current.ordinal, ...askedOf(test, trial, items) } : null,
  };
}

function askedOf(
  test: NewTest,
  trial: AskedTrialDocument,
  items: readonly ItemRow[],
): Omit<NonNullable<SittingState['trial']>, 'ordinal'> {
  const named = items.filter(isRanked).map((i) => ({ id: i.specimen_id, name: i.name }));
  return {
    kind: trial.kind,
    codes: trial.items.map((_, i) => codeOf(i)),
    reference: trial.kind === 'ratings' ? 'R' : null,
    // Alike for controls, which would stand out otherwise.
    tiesAllowed: trial.kind === 'pair' && test.tiesAllowed,
    askWords: test.askWords && (trial.kind === 'order' || trial.kind === 'pair' || trial.kind === 'ratings'),
    isFinal: trial.kind === 'order' && trial.isFinal,
    names: trial.kind === 'names' ? named.sort((a, b) => (a.name < b.name ? -1 : 1)) : [],
    labels: test.sighted ? trial.items.map((id) => items.find((i) => i.id === id)?.name ?? '') : [],
  };
}

/** An answered trial as the plan of what follows reads it. */
export function answeredTrial(kept: Pick<KeptTrial, 'document' | 'answer'>): AnsweredTrial {
  const trial = trialDocumentSchema.parse(kept.document);
  const answer = answerSchema.parse(kept.answer);
  return { trial, order: orderOf(trial, answer), isRight: isRight(trial, answer) };
}

function questionOf(test: Pick<NewTest, 'attribute'>, trial: AskedTrialDocument | null): string {
  switch (trial?.kind) {
    case 'familiarise':
      return 'Listen to all of them once, to know what to expect.';
    case 'abx':
      return 'Is X the clip A or the clip B?';
    case 'names':
      return 'Which clip is which?';
    case 'ratings':
      return 'How good is each, held against the reference?';
    case 'order':
      return `${QUESTIONS[test.attribute]} Put them in order.`;
    default:
      return QUESTIONS[test.attribute];
  }
}
