import {
  aboutListenerSchema,
  answerSchema,
  headphonesSchema,
  newTestSchema,
  trialDocumentSchema,
  type NewTest,
  type TestPage,
  type TestRow,
} from '#contracts/listening';
import { CODE_NAMES } from '#core/rules/listening/code-names';
import type { PackPage } from '#contracts/blind-pack';
import { drawCodeNames } from '#domain/listening/pack-result';
import { packListeners } from '#domain/listening/pack-listeners';
import type { Database, Queryable } from '../platform/db/database';
import { heardSpecimens, wordCounts } from '../scale/queries/heard';
import {
  insertItem,
  insertTest,
  itemsOfTest,
  listTests,
  setLeftOut,
  setSameListener,
  setAbout,
  setRevealed,
  setTestStatus,
  sittingsOfTest,
  trialsOfTest,
  type TestDbRow,
} from './queries/listening';
import { Failure } from '../platform/failure';
import type { EventHub } from '../platform/event-hub';
import type { HeardScale } from '../scale/heard-scale';
import { newKey, newSecret } from '../platform/listening-key';
import { testResult, type SittingAnswers } from '#domain/listening/test-result';
import { arePaired } from '#domain/compare/with-without';
import { protocolSchema } from '#contracts/protocol';
import { processingOfRow } from '../runs/take-settings';
import { takesInOrder } from '../runs/takes-in-order';
import { itemsOfSetup, takesOfTest, takesRefusal } from '#domain/listening/test-setup';
import { isCopy } from '#domain/listening/trial-plan';
import type { ClipPreparation } from './clip-preparation';
import { mustFindTest } from './must-find-test';
import { mustHaveNoOpenTurn } from './panel-journal';
import { unitsById } from './queries/panel-units';
import { findBlindPack } from './queries/blind-pack';
import { tagOf } from './seal-key';
import type { ItemRow } from '#domain/listening/test-item';
import type { Clock } from '../platform/clock';

/** Listening tests as the operator sees them: set up, prepared, closed, revealed. */
export class ListeningTests {
  constructor(
    private readonly database: Database,
    private readonly clips: ClipPreparation,
    private readonly scale: HeardScale,
    private readonly hub: EventHub,
    private readonly clock: Clock,
  ) {}

  async list(): Promise<TestRow[]> {
    return (await listTests(this.database)).map(rowOf);
  }

  /**
   * Sets up a test; its clips are prepared in the background.
   *
   * @param test - what is asked of whom
   * @param day - when
   * @param secret - what orders are drawn from; given by the demo only, which has to come out alike each time
   * @throws Failure `invalid-request` for takes that make no test, `not-found`
   */
  async create(test: NewTest, day = this.clock.today(), secret = newSecret()): Promise<TestPage> {
    const isPerformed = test.panel?.source === 'performed';
    const isLive = test.design === 'performer' || isPerformed;
    const isSent = test.design === 'pack';
    const rows = await takesInOrder(this.database, takesOfTest(test));
    const takes = rows.map((row) => ({ ...row, processing: processingOfRow(row) }));
    const [one, other] = takes.slice(0, 2).map((t) => ({ ...t, document: protocolSchema.parse(t.protocol_document) }));
    const arePair = takes.length === 2 && arePaired(one, other);
    const refusal = isPerformed ? null : takesRefusal(test, takes, arePair);
    if (refusal !== null) throw new Failure('invalid-request', refusal);
    const performed = await this.performedUnits(test);
    const ordered = test.seeding === 'seeded' ? await this.scale.strongestFirst(takes, test) : takes;
    const id = await this.database.transaction(async (tx) => {
      const testId = await insertTest(tx, test, isLive ? 'open' : 'preparing', newKey(), secret, day);
      const setUp = itemsOfSetup(test, takes, ordered);
      // Of a pack, the order is the draw: the first goes out under the first code name.
      for (const [ordinal, { take, role }] of (isSent ? drawCodeNames(setUp, secret) : setUp).entries())
        await insertItem(tx, {
          test_id: testId,
          ordinal,
          specimen_id: take.specimen_id,
          take_id: isLive ? null : take.take_id,
          role,
        });
      for (const [ordinal, { id: specimenId }] of performed.entries())
        await insertItem(tx, { test_id: testId, ordinal, specimen_id: specimenId, take_id: null, role: 'unit' });
      return testId;
    });
    if (!isLive) this.clips.start(id);
    return this.page(id);
  }

  /** Units that are performed through in the room: of the kind that is asked about, in the order in which they were chosen. */
  private async performedUnits({ units, category }: NewTest): Promise<{ id: string }[]> {
    const known = await unitsById(this.database, units);
    return units.map((id) => {
      const unit = known.find((u) => u.id === id);
      if (!unit) throw new Failure('not-found', `There is no unit with the number ${id}.`);
      if (unit.category !== category) throw new Failure('invalid-request', `${unit.name} is of another kind.`);
      return unit;
    });
  }

  /** @throws Failure `not-found`, `already-running` */
  async prepareAgain(id: string): Promise<void> {
    const row = await mustFindTest(this.database, id);
    if (row.status !== 'failed') throw new Failure('already-running', 'The clips of this test are prepared already.');
    await setTestStatus(this.database, id, 'preparing');
    this.clips.start(id);
  }

  /** @throws Failure `not-found` */
  async page(id: string): Promise<TestPage> {
    const row = await mustFindTest(this.database, id);
    const settings = newTestSchema.parse(row.document);
    const items = await itemsOfTest(this.database, id);
    const answers = await this.answers(id);
    return {
      row: rowOf(row),
      settings,
      invitation: row.invitation,
      // The order of a pack's items is its key.
      items: (settings.design === 'pack' && row.revealed_at === null ? byName(items) : items).map((i) => ({
        id: i.id,
        specimenId: i.specimen_id,
        takeId: i.take_id,
        name: i.name,
        role: i.role,
        gainDb: i.gain_db,
        loudnessLufs: i.loudness_lufs,
      })),
      residualLu: residual(items),
      pack: await this.packOf(row, settings, items, answers),
      sittings: answers.map(({ sitting: s, trials }) => ({
        id: s.id,
        key: s.key,
        listener: s.listener,
        listenerId: s.listener_id,
        sameAs: s.same_as,
        answered: trials.filter((t) => t.answer !== null).length,
        finished: s.finished_at !== null,
        leftOut: s.left_out,
        cameAs: s.came_as,
        reliability: s.reliability,
        headphones: s.headphones === null ? null : headphonesSchema.parse(s.headphones),
        about: s.about === null ? null : aboutListenerSchema.parse(s.about),
      })),
      result: row.revealed_at === null ? null : this.result(settings, items, answers, await this.words(id)),
    };
  }

  /** What goes out, and what came back; null for another test, and until the key is sealed. */
  private async packOf(
    row: TestDbRow,
    settings: NewTest,
    items: readonly ItemRow[],
    answers: readonly SittingAnswers[],
  ): Promise<PackPage | null> {
    const pack = settings.pack === null ? null : await findBlindPack(this.database, row.id);
    if (!pack) return null;
    const { passed, failed, share, share90 } = packListeners(answers.map((a) => a.trials), items); // prettier-ignore
    return {
      tag: tagOf(pack.key_sha256),
      keySha256: pack.key_sha256,
      sealedOn: pack.sealed_on,
      clips: items.map((_, i) => CODE_NAMES[i]),
      openingCode: row.revealed_at === null ? null : pack.opening_code,
      answers: { listeners: answers.length, passed, failed, share, share90: [...share90] },
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
  async answers(testId: string, db: Queryable = this.database): Promise<SittingAnswers[]> {
    const trials = await trialsOfTest(db, testId);
    return (await sittingsOfTest(db, testId)).map((sitting) => ({
      sitting,
      trials: trials
        .filter((t) => t.sitting_id === sitting.id)
        .map((t) => ({
          trial: trialDocumentSchema.parse(t.document),
          answer: t.answer === null ? null : answerSchema.parse(t.answer),
        })),
    }));
  }

  /**
   * Ends a test: nobody can answer any more.
   *
   * @throws Failure `not-found`; `answer-refused` while a live panel hears a turn
   */
  async close(id: string): Promise<void> {
    await mustFindTest(this.database, id);
    await mustHaveNoOpenTurn(this.database, id);
    await setTestStatus(this.database, id, 'closed');
    this.hub.emit({ type: 'listening', testId: id });
  }

  /** Shows what was what; from then on nobody can answer. @throws Failure as {@link close} */
  async reveal(id: string): Promise<TestPage> {
    await mustFindTest(this.database, id);
    await mustHaveNoOpenTurn(this.database, id);
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
}

const byName = (items: readonly ItemRow[]): ItemRow[] =>
  [...items].sort((a, b) => a.name.localeCompare(b.name) || a.role.localeCompare(b.role));

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
