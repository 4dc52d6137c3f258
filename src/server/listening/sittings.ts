import {
  newTestSchema,
  trialDocumentSchema,
  type AboutListener,
  type Join,
  type NewTest,
  type Reveal,
  type SendAnswer,
  type SittingState,
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
import { joiningRefusal } from '#domain/listening/joining-refusal';
import { saidOfUnits } from '#domain/listening/said-of-units';
import { answeredTrial, sittingState } from '#domain/listening/sitting-state';
import { Failure } from '../platform/failure';
import type { EventHub } from '../platform/event-hub';
import type { HeardScale } from '../scale/heard-scale';
import { newKey, newSecret } from '../platform/listening-key';
import type { ClipPreparation } from './clip-preparation';
import { keepHeard } from './kept-answer';
import type { ListeningTests } from './listening-tests';
import { mustFindTest } from './must-find-test';
import { revealOf } from '#domain/listening/test-result';
import { firstTrials, followingTrials, type Seat } from '#domain/listening/trial-plan';
import { itemBehind, MOST_DELIVERIES, openTrial, slotsOf } from '#domain/listening/trial-slots';
import type { WorkerPool } from '../platform/worker-pool';
import type { ItemRow } from '#domain/listening/test-item';
import type { SittingRow } from '#domain/listening/sitting';

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
    const test = newTestSchema.parse(row.document);
    const refusal = joiningRefusal(test, row.status, row.listeners);
    if (refusal) throw new Failure(refusal.code, refusal.message);
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
      for (const { specimenId, said } of saidOfUnits(trial, items, words))
        await insertWords(tx, { trialId: asked.id, listenerId: sitting.listener_id, specimenId, day: row.day }, said);
      const now = await trialsOfSitting(tx, sitting.id);
      const isTold = isHeard || Object.keys(words).length > 0;
      if (now.some((t) => t.answer === null)) return isTold;
      const next = followingTrials(test, items, seatOf(sitting, row), now.map(answeredTrial));
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

const stateOf = ({ row, ...facts }: Opened): SittingState =>
  sittingState({ ...facts, isOpen: row.status === 'open', isRevealed: row.revealed_at !== null });
