import { ALGORITHM_VERSION } from '#core/measure/registry';
import { changeSchema, type Change, type Correction, type NewCorrection } from '#contracts/correction';
import type { Database, Queryable } from '../platform/db/database';
import type { EventHub } from '../platform/event-hub';
import { Failure } from '../platform/failure';
import type { AnalysisQueue } from '../runs/analysis-queue';
import type { ClipIngest } from '../runs/clip-ingest';
import { orderAnalysis } from '../runs/queries/analysis';
import type { HeardScale } from '../scale/heard-scale';
import { leaveAnswer } from './answer-changes';
import { leavePhotograph, leaveUnused, rerig } from './other-changes';
import { refused, type PreparedChange } from './prepared-change';
import { leavePrice, reprice } from './price-changes';
import { addCorrection, findCorrection, listCorrections, markUndone } from './queries/correction';
import { leaveRun, moveToUnit, refillTable } from './run-changes';
import { leaveTake, putFiles, retake } from './take-changes';
import { mergeUnits, renameUnitChange } from './unit-changes';
import { changeVariant } from './variant-changes';

/** Corrects what was brought in. Every correction is kept with what stood before it, and can be undone. */
export class Corrections {
  constructor(
    private readonly database: Database,
    private readonly ingest: ClipIngest,
    private readonly queue: AnalysisQueue,
    private readonly scale: HeardScale,
    private readonly hub: EventHub,
    private readonly now: () => Date,
  ) {}

  async list(specimenId: string | null): Promise<Correction[]> {
    return (await listCorrections(this.database, specimenId)).map((row) => ({
      id: row.id,
      kind: changeSchema.parse(row.change).kind,
      text: row.text,
      reason: row.reason,
      madeAt: row.made_at.toISOString(),
      undoneAt: row.undone_at?.toISOString() ?? null,
      specimens: row.specimens as string[],
    }));
  }

  /** @throws Failure `not-found`, `correction-refused` */
  async correct({ change, reason }: NewCorrection): Promise<{ id: string }> {
    const prepared = await this.prepare(change);
    const { before, text, specimens } = prepared;
    const done = await this.apply(prepared, (tx) =>
      addCorrection(tx, { change, before, text, reason, specimens, at: this.now() }),
    );
    await this.follow(change, prepared, done.ordered);
    return { id: done.kept };
  }

  /**
   * Puts back what stood before a correction.
   *
   * @throws Failure `not-found`, `correction-refused` where something was corrected again since
   */
  async undo(id: string): Promise<void> {
    const row = await findCorrection(this.database, id);
    if (!row) throw new Failure('not-found', 'There is no such correction.');
    if (row.undone_at !== null) throw refused('This correction has been undone already.');
    const [change, back] = [changeSchema.parse(row.change), changeSchema.parse(row.before)];
    const prepared = await this.prepare(back);
    if (!isSame(prepared.before, change))
      throw refused('The same was corrected again since; undo the later correction first.');
    const { ordered } = await this.apply(prepared, (tx) => markUndone(tx, id, this.now()));
    await this.follow(back, prepared, ordered);
  }

  /** The change and its record: both or none. */
  private apply<T>(
    { apply, clips = [] }: PreparedChange,
    keep: (tx: Queryable) => Promise<T>,
  ): Promise<{ readonly kept: T; readonly ordered: readonly string[] }> {
    return this.database.transaction(async (tx) => {
      await apply(tx);
      const ordered: string[] = [];
      for (const sha256 of clips) {
        const id = await orderAnalysis(tx, sha256, ALGORITHM_VERSION);
        if (id) ordered.push(id);
      }
      return { kept: await keep(tx), ordered };
    });
  }

  /** Measures anew what hangs on it, and tells the pages. */
  private async follow(
    change: Change,
    { runs, specimens, movesAnswers = false }: PreparedChange,
    ordered: readonly string[],
  ): Promise<void> {
    this.queue.enqueue(ordered);
    for (const run of runs) await this.queue.measureRun(run);
    this.scale.changed(specimens, movesAnswers);
    if (change.kind === 'rig') this.hub.rulesChanged();
    if (change.kind === 'session-left-out') this.hub.planChanged(change.session);
    if (change.kind === 'test-left-out') this.hub.emit({ type: 'listening', testId: change.test });
  }

  private prepare(change: Change): Promise<PreparedChange> {
    const { database: db } = this;
    switch (change.kind) {
      case 'unit-name':
        return renameUnitChange(db, change);
      case 'unit-merged':
        return mergeUnits(db, change, this.now);
      case 'unit-variant':
        return changeVariant(db, change);
      case 'take':
        return retake(db, change);
      case 'take-files':
        return putFiles(db, change, (sha256) => this.ingest.isSound(sha256));
      case 'take-left-out':
        return leaveTake(db, change);
      case 'run-left-out':
        return leaveRun(db, change);
      case 'run-table':
        return refillTable(db, change);
      case 'run-moved':
        return moveToUnit(db, change);
      case 'price':
        return reprice(db, change);
      case 'price-left-out':
        return leavePrice(db, change);
      case 'photograph-left-out':
        return leavePhotograph(db, change);
      case 'answer-left-out':
        return leaveAnswer(db, change, this.now);
      case 'rig':
        return rerig(db, change);
      case 'session-left-out':
        return leaveUnused(db, 'session', change.session, change);
      case 'test-left-out':
        return leaveUnused(db, 'test', change.test, change);
    }
  }
}

const isSame = (a: Change, b: Change): boolean => canonical(a) === canonical(b);

/** The order of fields says nothing. */
function canonical(value: unknown): string {
  return JSON.stringify(value, (_, v: unknown) =>
    typeof v === 'object' && v !== null && !Array.isArray(v)
      ? Object.fromEntries(Object.entries(v).sort(([a], [b]) => (a < b ? -1 : 1)))
      : v,
  );
}
