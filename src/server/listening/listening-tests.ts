import { mkdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { AudioFileError } from '#core/audio/audio-file-error';
import { ALGORITHM_VERSION } from '#core/measure/registry';
import {
  aboutListenerSchema,
  answerSchema,
  headphonesSchema,
  newTestSchema,
  trialDocumentSchema,
  type Answer,
  type ItemRole,
  type NewTest,
  type performerAnswerSchema,
  type TestPage,
  type TestRow,
  type TrialDocument,
} from '#contracts/listening';
import type { z } from 'zod';
import type { CutListeningClipsTask } from '#worker/tasks/cut-listening-clips';
import type { ClipStore } from '../platform/archive/clip-store';
import type { Database } from '../platform/db/database';
import { laneTakes } from '../compare/queries/compare';
import { heardSpecimens, insertHeard, insertWords, wordCounts } from '../scale/queries/heard';
import {
  addTrials,
  answerTrial,
  ensureListener,
  ensureSitting,
  findTest,
  finishSitting,
  insertItem,
  insertTest,
  interruptedTests,
  itemsOfTest,
  listTests,
  setItemLevel,
  setLeftOut,
  setSameListener,
  setAbout,
  setRevealed,
  setTestStatus,
  sittingsOfTest,
  trialsOfSitting,
  trialsOfTest,
  type TestDbRow,
} from './queries/listening';
import { asFailure } from '../platform/as-failure';
import { Failure } from '../platform/failure';
import type { EventHub } from '../platform/event-hub';
import { codeOf, heardFromAnswer, heardItem } from '#domain/listening/heard-from-answer';
import type { HeardScale } from '../scale/heard-scale';
import type { JobBoard } from '../platform/job-board';
import { newKey, newSecret } from '../platform/listening-key';
import { testResult, type SittingAnswers } from '#domain/listening/test-result';
import { takesInOrder } from '../runs/takes-in-order';
import { isRanked } from '#domain/listening/trial-plan';
import type { WorkerPool } from '../platform/worker-pool';
import type { ItemRow } from '#domain/listening/test-item';
import type { Clock } from '../platform/clock';

/** Listening tests as the operator sees them: set up, prepared, closed, revealed. */
export class ListeningTests {
  private readonly folder: string;
  private readonly preparing = new Set<Promise<void>>();

  constructor(
    dataFolder: string,
    private readonly database: Database,
    private readonly store: ClipStore,
    private readonly pool: WorkerPool,
    private readonly scale: HeardScale,
    private readonly hub: EventHub,
    private readonly jobs: JobBoard,
    private readonly clock: Clock,
    private readonly report: (error: unknown) => void,
  ) {
    this.folder = join(dataFolder, 'listening');
  }

  /** Prepares again what a stop interrupted. */
  async recover(): Promise<void> {
    for (const { id } of await interruptedTests(this.database)) this.prepareInBackground(id);
  }

  /** Waits until nothing is being prepared (closing, tests). */
  async settled(): Promise<void> {
    while (this.preparing.size > 0) await Promise.all(this.preparing);
  }

  async list(): Promise<TestRow[]> {
    return (await listTests(this.database)).map(rowOf);
  }

  /** Path of a prepared clip. Files are named by numbers; what they are stands in the database only. */
  clipPath(testId: string, itemId: string): string {
    return join(this.folder, testId, `${itemId}.wav`);
  }

  /**
   * Sets up a test; its clips are prepared in the background.
   *
   * @param test - what is asked of whom
   * @param day - when
   * @param secret - what orders are drawn from; given by the demo only, which has to come out alike each time
   * @throws Failure `invalid-request` for takes of different steps, `not-found`
   */
  async create(test: NewTest, day = this.clock.today(), secret = newSecret()): Promise<TestPage> {
    const isLive = test.design === 'performer';
    const takeIds = [
      ...test.takes,
      ...(test.yardstick && !test.takes.includes(test.yardstick) ? [test.yardstick] : []),
    ];
    const takes = await takesInOrder(this.database, takeIds);
    if (!isLive && new Set(takes.map((t) => t.step)).size > 1)
      throw new Failure('invalid-request', 'The clips belong to different steps; a test compares one step.');
    if (takes.some((t) => t.category !== test.category))
      throw new Failure('invalid-request', `Not all of these units are of the category ${test.category}.`);
    if (new Set(takes.map((t) => t.specimen_id)).size < takes.length)
      throw new Failure('invalid-request', 'Two of the clips are of one and the same unit.');
    const ordered = test.seeding === 'seeded' ? await this.scale.strongestFirst(takes, test) : takes;
    const id = await this.database.transaction(async (tx) => {
      const testId = await insertTest(tx, test, isLive ? 'open' : 'preparing', newKey(), secret, day);
      let ordinal = 0;
      const add = (take: (typeof takes)[number], role: ItemRole): Promise<string> =>
        insertItem(tx, {
          test_id: testId,
          ordinal: ordinal++,
          specimen_id: take.specimen_id,
          take_id: isLive ? null : take.take_id,
          role,
        });
      for (const take of ordered) {
        const isReference = test.design === 'ratings' && take === takes[0];
        await add(take, isReference ? 'reference' : take.take_id === test.yardstick ? 'yardstick' : 'unit');
      }
      if (test.design === 'ratings') {
        await add(takes[0], 'anchor-low');
        await add(takes[0], 'anchor-mid');
      } else if (test.controls && (test.design === 'pairs' || test.design === 'heats'))
        await add(ordered[0], 'known-worse');
      return testId;
    });
    if (!isLive) this.prepareInBackground(id);
    return this.page(id);
  }

  /** @throws Failure `not-found`, `already-running` */
  async prepareAgain(id: string): Promise<void> {
    const row = await this.row(id);
    if (row.status !== 'failed') throw new Failure('already-running', 'The clips of this test are prepared already.');
    await setTestStatus(this.database, id, 'preparing');
    this.prepareInBackground(id);
  }

  private prepareInBackground(id: string): void {
    const work = this.prepare(id)
      .catch(async (error: unknown) => {
        await setTestStatus(this.database, id, 'failed', problemOf(error));
        if (asFailure(error).code === 'internal') this.report(error);
      })
      .catch(this.report)
      .finally(() => {
        this.preparing.delete(work);
        this.hub.emit({ type: 'listening', testId: id });
      });
    this.preparing.add(work);
  }

  private async prepare(id: string): Promise<void> {
    const { document } = await this.row(id);
    const test = newTestSchema.parse(document);
    const items = await itemsOfTest(this.database, id);
    const folder = join(this.folder, id);
    await rm(folder, { recursive: true, force: true });
    await mkdir(folder, { recursive: true });
    const job = this.jobs.open('Preparing clips for listening', 1, null);
    try {
      const plain = items.filter((i) => !isCopy(i));
      const rows = await laneTakes(
        this.database,
        plain.flatMap((i) => i.take_id ?? []),
        ALGORITHM_VERSION,
      );
      const clips = await Promise.all(
        plain.map(async (item) => {
          const sha256 = rows.find((r) => r.take_id === item.take_id)?.sha256;
          const path = sha256 ? await this.store.verified(sha256) : null;
          if (!path) throw new Failure('not-found', `The clip of ${item.name} is not in the archive.`);
          return { path, into: this.clipPath(id, item.id) };
        }),
      );
      const copies = items.filter(isCopy);
      const task: CutListeningClipsTask = {
        clips,
        anchors: copies.map((copy) => ({
          of: Math.max(
            0,
            plain.findIndex((i) => i.take_id === copy.take_id),
          ),
          kind: copy.role === 'anchor-mid' ? 'mid' : 'low',
          into: this.clipPath(id, copy.id),
        })),
        passage: test.passage,
      };
      const result = await this.pool.run('cut-listening-clips', task);
      await this.database.transaction(async (tx) => {
        for (const [i, item] of plain.entries())
          await setItemLevel(tx, item.id, result.clips[i].gainDb, result.clips[i].loudnessLufs);
        for (const [i, item] of copies.entries())
          await setItemLevel(tx, item.id, result.anchors[i].gainDb, result.anchors[i].loudnessLufs);
        await setTestStatus(tx, id, 'open');
      });
      job.finish();
    } catch (error) {
      job.fail(problemOf(error));
      throw error;
    }
  }

  /** @throws Failure `not-found` */
  async page(id: string): Promise<TestPage> {
    const row = await this.row(id);
    const settings = newTestSchema.parse(row.document);
    const items = await itemsOfTest(this.database, id);
    const answers = await this.answers(id);
    return {
      row: rowOf(row),
      settings,
      invitation: row.invitation,
      items: items.map((i) => ({
        id: i.id,
        specimenId: i.specimen_id,
        takeId: i.take_id,
        name: i.name,
        role: i.role,
        gainDb: i.gain_db,
        loudnessLufs: i.loudness_lufs,
      })),
      residualLu: residual(items),
      sittings: answers.map(({ sitting: s, trials }) => ({
        id: s.id,
        key: s.key,
        listener: s.listener,
        listenerId: s.listener_id,
        sameAs: s.same_as,
        answered: trials.filter((t) => t.answer !== null).length,
        finished: s.finished_at !== null,
        leftOut: s.left_out,
        headphones: s.headphones === null ? null : headphonesSchema.parse(s.headphones),
        about: s.about === null ? null : aboutListenerSchema.parse(s.about),
      })),
      result: row.revealed_at === null ? null : this.result(settings, items, answers, await this.words(id)),
    };
  }

  private async words(id: string): Promise<NonNullable<TestPage['result']>['words']> {
    return (await wordCounts(this.database, { testId: id })).map((w) => ({
      name: w.name,
      word: w.word,
      count: w.count,
      isFree: w.is_free,
    }));
  }

  private result(
    settings: NewTest,
    items: readonly ItemRow[],
    answers: readonly SittingAnswers[],
    words: NonNullable<TestPage['result']>['words'],
  ): TestPage['result'] {
    return { ...testResult(settings, items, answers), words };
  }

  /** All sittings of a test with their trials. */
  async answers(testId: string): Promise<SittingAnswers[]> {
    const trials = await trialsOfTest(this.database, testId);
    return (await sittingsOfTest(this.database, testId)).map((sitting) => ({
      sitting,
      trials: trials
        .filter((t) => t.sitting_id === sitting.id)
        .map((t) => ({
          trial: trialDocumentSchema.parse(t.document),
          answer: t.answer === null ? null : answerSchema.parse(t.answer),
        })),
    }));
  }

  /** Ends a test: nobody can answer any more. */
  async close(id: string): Promise<void> {
    await this.row(id);
    await setTestStatus(this.database, id, 'closed');
    this.hub.emit({ type: 'listening', testId: id });
  }

  /** Shows what was what; from then on nobody can answer. */
  async reveal(id: string): Promise<TestPage> {
    await this.row(id);
    await setRevealed(this.database, id, this.clock.now());
    this.hub.emit({ type: 'listening', testId: id });
    return this.page(id);
  }

  /**
   * Takes a listener's answers out of every result, with a reason, or puts them back.
   *
   * @throws Failure `not-found`
   */
  async leaveOut(testId: string, sittingId: string, reason: string | null): Promise<void> {
    if (!(await sittingsOfTest(this.database, testId)).some((s) => s.id === sittingId))
      throw new Failure('not-found', 'There is no such sitting in this test.');
    await setLeftOut(this.database, sittingId, reason === '' ? null : reason);
    this.scale.changed(
      (await itemsOfTest(this.database, testId)).map((i) => i.specimen_id),
      true,
    );
    this.hub.emit({ type: 'listening', testId });
  }

  /**
   * Two records of listeners are one person, or are not after all. Nothing is moved: results count them as one.
   *
   * @throws Failure `not-found`
   */
  async sameListener(id: string, as: string | null): Promise<void> {
    if (!(await setSameListener(this.database, id, as)))
      throw new Failure('not-found', 'One of these listeners is not there, or both are one record already.');
    this.scale.changed(
      (await heardSpecimens(this.database, id)).map((r) => r.specimen_id),
      true,
    );
  }

  /** Forgets what a listener said of themselves. */
  async forgetAbout(listenerId: string): Promise<void> {
    await setAbout(this.database, listenerId, null);
  }

  /**
   * An order that somebody gave who performed through each microphone.
   *
   * @throws Failure `invalid-request` where an item does not belong to the test, `not-found`
   */
  async performerAnswer(id: string, entry: z.output<typeof performerAnswerSchema>): Promise<TestPage> {
    const row = await this.row(id);
    const test = newTestSchema.parse(row.document);
    const items = await itemsOfTest(this.database, id);
    if (test.design !== 'performer') throw new Failure('invalid-request', "This is not a performer's test.");
    if (row.status !== 'open') throw new Failure('answer-refused', 'This test is closed.');
    const isKnown = (itemId: string): boolean => items.some((i) => i.id === itemId);
    if (
      !entry.order.every(isKnown) ||
      new Set(entry.order).size < entry.order.length ||
      !Object.keys(entry.words).every(isKnown)
    )
      throw new Failure('invalid-request', 'The order names something that is not in this test, or names it twice.');
    await this.database.transaction(async (tx) => {
      const listenerId = await ensureListener(tx, entry.listener);
      const { row: sitting } = await ensureSitting(tx, id, listenerId, newKey(), newSecret());
      const from = (await trialsOfSitting(tx, sitting.id)).length;
      const trial: TrialDocument = { kind: 'order', items: [...entry.order], round: 1, isFinal: true };
      await addTrials(tx, sitting.id, from, [trial]);
      const added = (await trialsOfSitting(tx, sitting.id))[from];
      const answer: Answer = { kind: 'order', codes: entry.order.map((_, i) => codeOf(i)) };
      await answerTrial(tx, added.id, answer, {}, 0, this.clock.now());
      await this.keepHeard(tx, test, row.day, added.id, listenerId, trial, answer, items);
      for (const [itemId, said] of Object.entries(entry.words)) {
        const specimenId = items.find((i) => i.id === itemId)?.specimen_id ?? '';
        await insertWords(tx, { trialId: added.id, listenerId, specimenId, day: row.day }, said);
      }
      await finishSitting(tx, sitting.id, this.clock.now());
    });
    this.scale.changed(items.map((i) => i.specimen_id));
    return this.page(id);
  }

  /** Puts what an answer tells into the scale's table. @returns whether it told anything */
  async keepHeard(
    tx: Parameters<typeof insertHeard>[0],
    test: NewTest,
    day: string,
    trialId: string,
    listenerId: string,
    trial: Parameters<typeof heardFromAnswer>[1],
    answer: Answer,
    items: readonly ItemRow[],
  ): Promise<boolean> {
    const facts = heardFromAnswer(test, trial, answer, items.map(heardItem));
    await insertHeard(
      tx,
      facts.map((f) => ({
        ...f,
        trialId,
        listenerId,
        source: 'test',
        importKey: null,
        attribute: test.attribute,
        voice: test.voice,
        use: test.use,
        category: test.category,
        sighted: test.sighted,
        day,
        placingId: null,
      })),
    );
    return facts.length > 0;
  }

  /** @throws Failure `not-found` */
  async row(id: string): Promise<TestDbRow> {
    const row = await findTest(this.database, id);
    if (!row) throw new Failure('not-found', `There is no listening test with the number ${id}.`);
    return row;
  }
}

/** What went wrong in words that a page may show. */
const problemOf = (error: unknown): string =>
  error instanceof AudioFileError ? error.message : asFailure(error).message;

/** Low-passed copies are made of the others. */
const isCopy = (item: ItemRow): boolean => !isRanked(item);

function rowOf(row: TestDbRow): TestRow {
  const test = newTestSchema.parse(row.document);
  return {
    id: row.id,
    name: test.name,
    design: test.design,
    attribute: test.attribute,
    status: row.status,
    problem: row.problem,
    day: row.day,
    listeners: row.listeners,
    finished: row.finished,
    isRevealed: row.revealed_at !== null,
  };
}

/** Largest difference in loudness between the clips that are compared, low-passed copies apart. */
function residual(items: readonly ItemRow[]): number | null {
  const levels = items.flatMap((i) => (isCopy(i) || i.loudness_lufs === null ? [] : [i.loudness_lufs]));
  return levels.length < 2 ? null : Math.max(...levels) - Math.min(...levels);
}
