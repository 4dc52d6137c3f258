import {
  answerSchema,
  newTestSchema,
  QUESTIONS,
  askedTrialSchema,
  trialDocumentSchema,
  type AboutListener,
  type Join,
  type NewTest,
  type Reveal,
  type SendAnswer,
  type SittingState,
  type TrialDocument,
} from '#contracts/listening';
import type { Database } from '../platform/db/database';
import { insertWords } from '../scale/queries/heard';
import {
  addTrials,
  answerTrial,
  ensureSitting,
  findListenerByKey,
  findSitting,
  findTestByInvitation,
  finishSitting,
  insertListener,
  itemsOfTest,
  noteDeliveries,
  setAbout,
  setHeadphones,
  trialsOfSitting,
  type TestDbRow,
  type TrialRow,
} from './queries/listening';
import { answerRefusal } from '#domain/listening/answer-refusal';
import { isBreakDue } from '#domain/listening/break-due';
import { Failure } from '../platform/failure';
import type { EventHub } from '../platform/event-hub';
import { codeOf, isRight, itemOfCode, orderOf } from '#domain/listening/heard-from-answer';
import type { HeardScale } from '../scale/heard-scale';
import { newKey, newSecret } from '../platform/listening-key';
import type { ClipPreparation } from './clip-preparation';
import { keepHeard } from './kept-answer';
import type { ListeningTests } from './listening-tests';
import { mustFindTest } from './must-find-test';
import { revealOf } from '#domain/listening/test-result';
import {
  expectedTrials,
  firstTrials,
  followingTrials,
  isHeldElsewhere,
  isRanked,
  type Seat,
} from '#domain/listening/trial-plan';
import { itemBehind, MOST_DELIVERIES, openTrial, slotsOf } from '#domain/listening/trial-slots';
import type { WorkerPool } from '../platform/worker-pool';
import type { ItemRow } from '#domain/listening/test-item';
import type { SittingRow } from '#domain/listening/sitting';

/** Sittings of one test; more are no listeners. */
const MOST_SITTINGS = 400;

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
    private readonly clips: ClipPreparation,
    private readonly scale: HeardScale,
    private readonly hub: EventHub,
    private readonly now: () => Date,
  ) {}

  /**
   * Lets a listener in, or back in. A name opens nothing: whoever shows the key of a listener, and the name that goes
   * with it, is that listener; anybody else is somebody new, whatever they are called.
   *
   * @param invitation - key of the test
   * @param who - name, and the key from an earlier test
   * @param secret - what this listener's chance is drawn from; given by the demo only
   * @throws Failure `not-found`, `answer-refused` where the test is not open, `too-many`
   */
  async join(invitation: string, who: Join, secret = newSecret()): Promise<{ sitting: string; listener: string }> {
    const row = await findTestByInvitation(this.database, invitation);
    if (!row) throw new Failure('not-found', 'There is no test behind this link.');
    if (row.status === 'preparing')
      throw new Failure('answer-refused', 'The clips of this test are still being prepared.');
    if (row.status !== 'open') throw new Failure('answer-refused', 'This test is closed.');
    const test = newTestSchema.parse(row.document);
    if (isHeldElsewhere(test) && test.design !== 'panel')
      throw new Failure('answer-refused', test.design === 'pack' ? 'This test is sent out as a pack; answers come back by whoever sent it.' : 'This test is performed live; the operator enters the answers.'); // prettier-ignore
    if (row.listeners >= MOST_SITTINGS)
      throw new Failure('too-many', `This test has ${row.listeners} listeners; it takes no more.`);
    const items = await itemsOfTest(this.database, row.id);
    return this.database.transaction(async (tx) => {
      const shown = who.listener ? await findListenerByKey(tx, who.listener) : null;
      const isKnown = shown !== null && shown.name === who.name;
      const listener = isKnown && who.listener ? who.listener : newKey();
      const listenerId = isKnown ? shown.id : await insertListener(tx, who.name, listener);
      const { row: sitting, isNew } = await ensureSitting(tx, row.id, listenerId, newKey(), secret);
      if (isNew) await addTrials(tx, sitting.id, 0, firstTrials(test, items, seatOf(sitting, row)));
      return { sitting: sitting.key, listener };
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
    const trial = trialDocumentSchema.parse(asked.document);
    const refusal = answerRefusal(
      { test, trial, isOpen: row.status === 'open', isAsked: asked === openTrial(trials), delivered: asked.delivered },
      sent,
    );
    if (refusal !== null) throw new Failure('answer-refused', refusal);
    // Getting to know the clips, an ABX or a guessed name moves nothing in the catalogue.
    const tells = await this.database.transaction(async (tx) => {
      const { answer, words, seconds } = sent;
      if (!(await answerTrial(tx, asked.id, answer, words, seconds, this.now()))) return false;
      const given = { trialId: asked.id, listenerId: sitting.listener_id, trial, answer };
      const isHeard = await keepHeard(tx, { test, day: row.day, items }, given);
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
   * A clip of the trial that is asked now, by the letter under which it is offered; of no other trial, so that a page
   * fetches what it plays and nothing else.
   *
   * @throws Failure `not-found`, `too-many`
   */
  async clip(key: string, ordinal: number, slot: string): Promise<Uint8Array> {
    const { row, trials } = await this.open(key);
    const asked = row.status === 'open' ? openTrial(trials) : null;
    const trial = asked?.ordinal === ordinal ? trialDocumentSchema.parse(asked.document) : null;
    const item = trial && itemBehind(trial, slot);
    if (!asked || !item) throw new Failure('not-found', 'There is no such clip.');
    if ((asked.delivered[slot] ?? 0) >= MOST_DELIVERIES)
      throw new Failure('too-many', 'This clip was fetched very often for one question.');
    const bytes = await this.pool.run('render-blind-clip', this.clips.clipPath(row.id, item));
    await noteDeliveries(this.database, asked.id, [slot]);
    return bytes;
  }

  /** Notes that the clips of the open trial were heard where no clip goes out through {@link clip}: in the demo. */
  async heardElsewhere(key: string): Promise<void> {
    const asked = openTrial((await this.open(key)).trials);
    if (!asked) return;
    await noteDeliveries(this.database, asked.id, slotsOf(trialDocumentSchema.parse(asked.document)));
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
    const row = await mustFindTest(this.database, sitting.test_id);
    return {
      sitting,
      row,
      test: newTestSchema.parse(row.document),
      items: await itemsOfTest(this.database, row.id),
      trials: await trialsOfSitting(this.database, sitting.id),
    };
  }
}

/** Chance comes from secrets of the server: nothing in a link or an answer helps to work it out. */
const seatOf = (sitting: SittingRow, row: TestDbRow): Seat => ({
  ordinal: sitting.ordinal,
  seed: sitting.secret,
  testSeed: row.secret,
});

function answered(row: TrialRow): Parameters<typeof followingTrials>[3][number] {
  const trial = trialDocumentSchema.parse(row.document);
  const answer = answerSchema.parse(row.answer);
  return { trial, order: orderOf(trial, answer), isRight: isRight(trial, answer) };
}

function stateOf({ sitting, row, test, items, trials }: Opened): SittingState {
  const current = trials.find((t) => t.answer === null);
  const isClosed = row.status !== 'open';
  const trial = current && !isClosed ? askedTrialSchema.parse(current.document) : null;
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
    breakDue: isBreakDue(
      trials.filter((t) => t.answer !== null).map((t) => t.seconds ?? 0),
      test.breakAfterMin,
    ),
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
