import {
  answerSchema,
  newTestSchema,
  QUESTIONS,
  trialDocumentSchema,
  type AboutListener,
  type NewTest,
  type Reveal,
  type SendAnswer,
  type SittingState,
  type TrialDocument,
} from '#contracts/listening';
import type { Database } from '../db/database';
import { insertWords } from '../db/queries/heard';
import {
  addTrials,
  answerTrial,
  ensureListener,
  ensureSitting,
  findSitting,
  findTestByInvitation,
  finishSitting,
  itemsOfTest,
  setAbout,
  setHeadphones,
  trialsOfSitting,
  type ItemRow,
  type SittingRow,
  type TestDbRow,
  type TrialRow,
} from '../db/queries/listening';
import { Failure } from '../failures';
import type { EventHub } from './event-hub';
import { codeOf, isRight, itemOfCode, orderOf } from './heard-from-answer';
import type { HeardScale } from './heard-scale';
import { newKey } from './listening-key';
import type { ListeningTests } from './listening-tests';
import { revealOf } from './test-result';
import { expectedTrials, firstTrials, followingTrials, isRanked, type Seat } from './trial-plan';
import type { WorkerPool } from './worker-pool';

interface Opened {
  readonly sitting: SittingRow;
  readonly row: TestDbRow;
  readonly test: NewTest;
  readonly items: ItemRow[];
  readonly trials: TrialRow[];
}

/** A listener's way through a test. What leaves here names nothing that is to be guessed, and no result. */
export class Sittings {
  constructor(
    private readonly database: Database,
    private readonly pool: WorkerPool,
    private readonly tests: ListeningTests,
    private readonly scale: HeardScale,
    private readonly hub: EventHub,
    private readonly now: () => Date,
  ) {}

  /**
   * Lets a listener in, or back in.
   *
   * @param invitation - key of the test
   * @param name - as the listener wants to be called
   * @throws Failure `not-found`, `answer-refused` where the test is not open or the name is taken
   */
  async join(invitation: string, name: string): Promise<{ sitting: string }> {
    const row = await findTestByInvitation(this.database, invitation);
    if (!row) throw new Failure('not-found', 'There is no test behind this link.');
    if (row.status === 'preparing')
      throw new Failure('answer-refused', 'The clips of this test are still being prepared.');
    if (row.status !== 'open') throw new Failure('answer-refused', 'This test is closed.');
    const test = newTestSchema.parse(row.document);
    if (test.design === 'performer')
      throw new Failure('answer-refused', 'This test is performed live; the operator enters the answers.');
    const items = await itemsOfTest(this.database, row.id);
    return this.database.transaction(async (tx) => {
      const listenerId = await ensureListener(tx, name);
      const { row: sitting, isNew } = await ensureSitting(tx, row.id, listenerId, newKey());
      // A name alone must not open somebody else's answers; their own link does.
      if (!isNew)
        throw new Failure(
          'answer-refused',
          `"${name}" takes part already. Go on by the link of that sitting, or take another name.`,
        );
      await addTrials(tx, sitting.id, 0, firstTrials(test, items, seatOf(sitting, row)));
      return { sitting: sitting.key };
    });
  }

  /** @throws Failure `not-found` */
  async state(key: string): Promise<SittingState> {
    return stateOf(await this.open(key));
  }

  /** What the listener says of themselves, once; stored with the answers, deletable. */
  async about(key: string, about: AboutListener): Promise<SittingState> {
    const { sitting } = await this.open(key);
    await setAbout(this.database, sitting.listener_id, about);
    return this.state(key);
  }

  async headphones(key: string, found: unknown): Promise<SittingState> {
    const { sitting } = await this.open(key);
    await setHeadphones(this.database, sitting.id, found);
    return this.state(key);
  }

  /**
   * Keeps an answer. Sending one again changes nothing.
   *
   * @throws Failure `answer-refused` where it does not fit the trial, or the test is closed
   */
  async answer(key: string, sent: SendAnswer): Promise<SittingState> {
    const opened = await this.open(key);
    const { sitting, row, test, items, trials } = opened;
    const asked = trials.find((t) => t.ordinal === sent.trial);
    if (!asked) throw new Failure('answer-refused', 'This test does not ask that.');
    if (asked.answer !== null) return stateOf(opened);
    if (row.status !== 'open') throw new Failure('answer-refused', 'This test is closed; no more answers are taken.');
    const trial = trialDocumentSchema.parse(asked.document);
    checkAnswer(test, trial, sent);
    // Getting to know the clips, an ABX or a guessed name moves nothing in the catalogue.
    const tells = await this.database.transaction(async (tx) => {
      const { answer, words, seconds } = sent;
      if (!(await answerTrial(tx, asked.id, answer, words, seconds, this.now()))) return false;
      const isHeard = await this.tests.keepHeard(
        tx,
        test,
        row.day,
        asked.id,
        sitting.listener_id,
        trial,
        answer,
        items,
      );
      for (const [code, said] of Object.entries(words)) {
        // What is said of a low-passed copy, or of a clip against itself, is not said of the unit.
        const item = items.find((i) => i.id === itemOfCode(trial, code));
        if (!item || !isRanked(item) || (trial.kind === 'pair' && trial.control !== null)) continue;
        const of = { trialId: asked.id, listenerId: sitting.listener_id, specimenId: item.specimen_id, day: row.day };
        await insertWords(tx, of, said);
      }
      const now = await trialsOfSitting(tx, sitting.id);
      const isTold = isHeard || Object.keys(words).length > 0;
      if (now.some((t) => t.answer === null)) return isTold;
      const next = followingTrials(test, items, seatOf(sitting, row), now.map(answered));
      if (next.length > 0) await addTrials(tx, sitting.id, now.length, next);
      else await finishSitting(tx, sitting.id, this.now());
      return isTold;
    });
    if (tells) this.scale.changed(items.map((i) => i.specimen_id));
    this.hub.emit({ type: 'listening', testId: row.id });
    return this.state(key);
  }

  /**
   * A clip of a trial that has been reached, by the place in which it is offered.
   *
   * @throws Failure `not-found`
   */
  async clip(key: string, ordinal: number, slot: string): Promise<Uint8Array> {
    const { row, trials } = await this.open(key);
    const reached = trials.findIndex((t) => t.answer === null);
    const asked = trials.find((t) => t.ordinal === ordinal);
    if (!asked || (reached >= 0 && ordinal > reached)) throw new Failure('not-found', 'There is no such clip.');
    const trial = trialDocumentSchema.parse(asked.document);
    const item = itemBehind(trial, slot);
    if (!item) throw new Failure('not-found', 'There is no such clip.');
    return this.pool.run<Uint8Array>('render-blind-clip', this.tests.clipPath(row.id, item));
  }

  /** The key of one's own test, once the operator has revealed it. */
  async reveal(key: string): Promise<Reveal> {
    const { row, sitting, test, items } = await this.open(key);
    if (row.revealed_at === null) throw new Failure('not-found', 'The operator has not revealed this test yet.');
    const answers = (await this.tests.answers(row.id)).find((a) => a.sitting.id === sitting.id);
    if (!answers) throw new Failure('not-found', 'There is no such sitting.');
    return revealOf(test, items, answers);
  }

  private async open(key: string): Promise<Opened> {
    const sitting = await findSitting(this.database, key);
    if (!sitting) throw new Failure('not-found', 'There is no sitting behind this link.');
    const row = await this.tests.row(sitting.test_id);
    return {
      sitting,
      row,
      test: newTestSchema.parse(row.document),
      items: await itemsOfTest(this.database, row.id),
      trials: await trialsOfSitting(this.database, sitting.id),
    };
  }
}

/** Chance of a sitting hangs on its number in the database, which no listener sees, and on the invitation. */
const seatOf = (sitting: SittingRow, row: TestDbRow): Seat => ({
  ordinal: sitting.ordinal,
  seed: `${row.invitation}/${sitting.id}`,
  testSeed: row.invitation,
});

function answered(row: TrialRow): Parameters<typeof followingTrials>[3][number] {
  const trial = trialDocumentSchema.parse(row.document);
  const answer = answerSchema.parse(row.answer);
  return { trial, order: orderOf(trial, answer), isRight: isRight(trial, answer) };
}

/** X of an ABX trial and the open reference of a rating stand beside the lettered ones. */
function itemBehind(trial: TrialDocument, slot: string): string | null {
  if (slot === 'X' && trial.kind === 'abx') return trial.x;
  if (slot === 'R' && trial.kind === 'ratings') return trial.reference;
  return slot.length === 1 ? itemOfCode(trial, slot) : null;
}

function checkAnswer(test: NewTest, trial: TrialDocument, { answer, words }: SendAnswer): void {
  const codes = trial.items.map((_, i) => codeOf(i));
  const refuse = (message: string): never => {
    throw new Failure('answer-refused', message);
  };
  const sameSet = (given: readonly string[]): boolean =>
    given.length === codes.length && new Set([...given, ...codes]).size === codes.length;
  if (answer.kind !== trial.kind) refuse('This answer belongs to another question.');
  if (!Object.keys(words).every((c) => codes.includes(c))) refuse('Words were given for a clip that was not offered.');
  switch (answer.kind) {
    case 'familiarise':
      return;
    case 'order':
      if (!sameSet(answer.codes)) refuse('Every clip has to be placed, once.');
      return;
    case 'pair':
      if (answer.preferred === null && !test.tiesAllowed) refuse('This test asks for a decision.');
      if (answer.preferred !== null && !codes.includes(answer.preferred)) refuse('That clip was not offered.');
      return;
    case 'abx':
      if (!codes.includes(answer.x)) refuse('X is one of the two.');
      return;
    case 'names':
      if (!sameSet(Object.keys(answer.names)) || new Set(Object.values(answer.names)).size < codes.length)
        refuse('Every clip needs a name of its own.');
      return;
    case 'ratings':
      if (!sameSet(Object.keys(answer.ratings))) refuse('Every clip needs a rating.');
  }
}

function stateOf({ sitting, row, test, items, trials }: Opened): SittingState {
  const current = trials.find((t) => t.answer === null);
  const isClosed = row.status !== 'open';
  const trial = current && !isClosed ? trialDocumentSchema.parse(current.document) : null;
  const done = trials.filter((t) => t.answer !== null).length;
  const units = items.filter(isRanked);
  const named = units.map((i) => ({ id: i.specimen_id, name: i.name })).sort((a, b) => (a.name < b.name ? -1 : 1));
  return {
    question: questionOf(test, trial),
    design: test.design,
    listener: sitting.listener,
    needsAbout: sitting.about === null && trial !== null,
    needsHeadphones: sitting.headphones === null && trial !== null,
    done,
    total: expectedTrials(test, items, trials.length),
    breakDue: isBreakDue(trials, test.breakAfterMin),
    isClosed,
    isFinished: sitting.finished_at !== null,
    isRevealed: row.revealed_at !== null,
    lengthS: test.passage.lengthS,
    trial:
      trial && current
        ? {
            ordinal: current.ordinal,
            kind: trial.kind,
            codes: trial.items.map((_, i) => codeOf(i)),
            reference: trial.kind === 'ratings' ? 'R' : null,
            // Alike for controls, which would stand out otherwise.
            tiesAllowed: trial.kind === 'pair' && test.tiesAllowed,
            askWords: test.askWords && (trial.kind === 'order' || trial.kind === 'pair' || trial.kind === 'ratings'),
            isFinal: trial.kind === 'order' && trial.isFinal,
            names: trial.kind === 'names' ? named : [],
            labels: test.sighted ? trial.items.map((id) => items.find((i) => i.id === id)?.name ?? '') : [],
          }
        : null,
  };
}

function questionOf(test: NewTest, trial: TrialDocument | null): string {
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

/** Whether the last answer took the listening time over another multiple of the limit. */
function isBreakDue(trials: readonly TrialRow[], afterMin: number): boolean {
  const times = trials.filter((t) => t.answer !== null).map((t) => t.seconds ?? 0);
  const all = times.reduce((s, x) => s + x, 0) / 60 / afterMin;
  return times.length > 0 && Math.floor(all) > Math.floor(all - (times.at(-1) ?? 0) / 60 / afterMin);
}
