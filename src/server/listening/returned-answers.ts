import { parse } from 'csv-parse/sync';
import { CODE_NAMES } from '#core/rules/listening/code-names';
import { packDocumentSchema, type KeepReturned, type ReturnedAnswer } from '#contracts/blind-pack';
import { newTestSchema, type NewTest } from '#contracts/listening';
import { packListeners } from '#domain/listening/pack-listeners';
import { knownAnswers, type KnownAnswer } from '#domain/listening/returned/known-answers';
import type { PackEars } from '#domain/listening/returned/pack-ears';
import { readComments } from '#domain/listening/returned/read-comments';
import { isHeading, readTable, type ReadAnswer } from '#domain/listening/returned/read-table';
import { saidOf, trialsOfReturned } from '#domain/listening/returned/trials-of-returned';
import type { ItemRow } from '#domain/listening/test-item';
import type { SittingAnswers } from '#domain/listening/test-result';
import type { Clock } from '../platform/clock';
import type { Database, Queryable } from '../platform/db/database';
import type { EventHub } from '../platform/event-hub';
import { Failure } from '../platform/failure';
import { newKey, newSecret } from '../platform/listening-key';
import type { HeardScale } from '../scale/heard-scale';
import { keepHeard } from './kept-answer';
import type { ListeningTests } from './listening-tests';
import { mustFindTest } from './must-find-test';
import { findBlindPack, setReliabilities } from './queries/blind-pack';
import { addTrials, answerTrial, ensureListener, ensureSitting, finishSitting, insertListener, itemsOfTest, setCameAs, trialsOfSitting, type TestDbRow } from './queries/listening'; // prettier-ignore
import { tagOf } from './seal-key';

/** Answers of one pack; more are not looked through by a person. */
const MOST_ANSWERS = 2000;

interface SentTest {
  readonly row: TestDbRow;
  readonly test: NewTest;
  readonly items: readonly ItemRow[];
  readonly ears: PackEars;
  readonly answers: readonly SittingAnswers[];
}

/** Answers to packs that were sent out, as they come back: pasted, or as a table. */
export class ReturnedAnswers {
  constructor(
    private readonly database: Database,
    private readonly tests: ListeningTests,
    private readonly scale: HeardScale,
    private readonly hub: EventHub,
    private readonly clock: Clock,
  ) {}

  /**
   * Reads answers; nothing is kept.
   *
   * @throws Failure `not-found`; `invalid-request` for a test that was not sent out, `answer-refused` once it is over
   */
  async read(id: string, text: string): Promise<{ answers: ReturnedAnswer[] }> {
    return { answers: understood(await this.open(id), text) };
  }

  /**
   * Keeps the answers that were chosen. Whoever has answered already is not taken twice.
   *
   * @throws Failure as {@link read}; `invalid-request` for lines that hold no answer, `too-many`
   */
  async keep(id: string, { text, kept }: KeepReturned): Promise<{ kept: number; skipped: number }> {
    const sent = await this.open(id);
    const byLine = new Map(understood(sent, text).map((a) => [a.line, a]));
    const problems = kept.flatMap(({ line }) => {
      const answer = byLine.get(line);
      const message = answer ? answer.problem : 'holds no answer';
      return message === null ? [] : [{ file: null, field: `line ${line}`, message }];
    });
    if (problems.length > 0)
      throw new Failure('invalid-request', 'Some of these lines cannot be kept as answers.', problems.slice(0, 50));
    if (sent.answers.length + kept.length > MOST_ANSWERS)
      throw new Failure('too-many', `A pack takes ${MOST_ANSWERS} answers; ${sent.answers.length} are there.`);
    let count = 0;
    await this.database.transaction(async (tx) => {
      let unnamed = sent.answers.filter((a) => a.sitting.listener.startsWith('unnamed ')).length;
      for (const { line, listener, isSomebodyElse } of kept) {
        const answer = byLine.get(line);
        if (!answer) continue;
        const name = listener === '' ? null : listener;
        // A name that was typed over may be that of somebody who has answered.
        const isThere = name === answer.listener ? answer.isThere : isTaken(sent, name);
        if (isThere && !isSomebodyElse) continue;
        const votes = answer.votes && Object.values(answer.votes).reduce((sum, n) => sum + n, 0);
        if (name === null && votes === null) unnamed++;
        const called = name ?? (votes === null ? `unnamed ${unnamed}` : `Poll, ${votes} votes`);
        const isKnown = name !== null && !isSomebodyElse;
        const listenerId = isKnown ? await ensureListener(tx, called) : await insertListener(tx, called, newKey());
        if (await this.keepOne(tx, sent, { listenerId, answer })) count++;
        // The database works in this thread: between two answers others have their turn.
        await new Promise((resolve) => setImmediate(resolve));
      }
      await this.weigh(tx, id, sent.items);
    });
    this.scale.changed(
      sent.items.map((i) => i.specimen_id),
      true,
    );
    this.hub.emit({ type: 'listening', testId: id });
    return { kept: count, skipped: kept.length - count };
  }

  private async keepOne(
    tx: Queryable,
    { row, test, items }: SentTest,
    { listenerId, answer }: { readonly listenerId: string; readonly answer: ReturnedAnswer },
  ): Promise<boolean> {
    const { row: sitting, isNew } = await ensureSitting(tx, row.id, listenerId, newKey(), newSecret());
    if (!isNew) return false;
    await setCameAs(tx, sitting.id, answer.text);
    const trials = trialsOfReturned(answer, items.map((i) => i.id)); // prettier-ignore
    await addTrials(tx, sitting.id, 0, trials.map((t) => t.trial)); // prettier-ignore
    for (const [i, { id }] of (await trialsOfSitting(tx, sitting.id)).entries()) {
      const { trial, answer: given, isHeard } = trials[i];
      await answerTrial(tx, id, given, {}, 0, this.clock.now());
      const by = answer.votes === null ? listenerId : null;
      if (isHeard) await keepHeard(tx, { test, day: row.day, items }, { trialId: id, listenerId: by, trial, answer: given }); // prettier-ignore
    }
    await finishSitting(tx, sitting.id, this.clock.now());
    return true;
  }

  /** Each new answer tells something of all: what they weigh is counted anew. */
  private async weigh(tx: Queryable, id: string, items: readonly ItemRow[]): Promise<void> {
    const all = await this.tests.answers(id, tx);
    const { weights } = packListeners(all.map((a) => a.trials), items); // prettier-ignore
    await setReliabilities(tx, all.map(({ sitting }, i) => ({ id: sitting.id, weight: weights[i] }))); // prettier-ignore
  }

  private async open(id: string): Promise<SentTest> {
    const row = await mustFindTest(this.database, id);
    const test = newTestSchema.parse(row.document);
    const pack = await findBlindPack(this.database, id);
    if (test.design !== 'pack') throw new Failure('invalid-request', 'This test is held here, not sent out.');
    if (!pack) throw new Failure('answer-refused', 'The clips of this pack are still being prepared.');
    if (row.revealed_at !== null)
      throw new Failure('answer-refused', 'The key of this pack is open: an answer that comes now may know it.');
    if (row.status !== 'open') throw new Failure('answer-refused', 'This test is closed; no more answers are taken.');
    const items = await itemsOfTest(this.database, id);
    const ears = {
      tag: tagOf(pack.key_sha256),
      clips: items.map((_, i) => CODE_NAMES[i]),
      units: packDocumentSchema.parse(pack.document).names,
    };
    return { row, test, items, ears, answers: await this.tests.answers(id) };
  }
}

const isTaken = ({ answers }: SentTest, name: string | null): boolean =>
  name !== null && answers.some((a) => a.sitting.listener.toLowerCase() === name.toLowerCase());

function understood({ ears, answers }: SentTest, text: string): ReturnedAnswer[] {
  const known = answers.map(({ sitting }): KnownAnswer => ({ listener: sitting.listener, cameAs: sitting.came_as }));
  return knownAnswers(readText(text, ears).map(saidOf), known);
}

/** A table where the first line names columns that are known; comments else. */
function readText(text: string, ears: PackEars): ReadAnswer[] {
  const first = text.replace(/^\uFEFF/, '').split(/\r\n?|\n/).find((l) => l.trim() !== '') ?? ''; // prettier-ignore
  const delimiter = ['\t', ';', ','].find((d) => first.includes(d) && isHeading(first.split(d).map(unquoted), ears));
  if (delimiter === undefined) return readComments(text, ears);
  try {
    const rows = parse(text, { bom: true, delimiter, info: true, relax_column_count: true, skip_empty_lines: true }) as unknown as { record: string[]; info: { lines: number } }[]; // prettier-ignore
    return readTable(rows.map(({ record, info }) => ({ line: info.lines, cells: record })), ears); // prettier-ignore
  } catch (error) {
    const { lines } = error as { lines?: unknown };
    throw new Failure('invalid-request', 'This table cannot be read.', [
      { file: null, field: typeof lines === 'number' ? `line ${lines}` : null, message: 'a quote is not closed, or stands where none can' },
    ]); // prettier-ignore
  }
}

const unquoted = (cell: string): string => cell.trim().replaceAll('"', '');
