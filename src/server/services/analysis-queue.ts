import { EMPTY, Subject, catchError, defer, mergeMap, type Subscription } from 'rxjs';
import { runMeasurements, type AnalysedTake } from '#core/measure/run-measurements';
import { ALGORITHM_VERSION } from '#core/measure/registry';
import { analysisDetailSchema } from '#contracts/worker-messages';
import type { ClipStore } from '../archive/clip-store';
import type { Database } from '../db/database';
import {
  analysedTakes,
  failAnalysis,
  finishAnalysis,
  recoverAnalyses,
  requeueAnalysis,
  runsOfAnalysis,
  runsToMeasure,
  startAnalysis,
  type AnalysedTakeRow,
} from '../db/queries/analysis';
import { storeMeasurements } from '../db/queries/measurement';
import { Failure } from '../failures';
import type { EventHub } from './event-hub';
import type { JobBoard } from './job-board';
import type { WorkerPool } from './worker-pool';

/** Analyses waiting, running and ended: at most one per thread at a time, each survives a restart. */
export class AnalysisQueue {
  private readonly waiting = new Subject<string>();
  private readonly subscription: Subscription;
  private unfinished = 0;
  private idleWaiters: (() => void)[] = [];

  constructor(
    private readonly database: Database,
    private readonly store: ClipStore,
    private readonly pool: WorkerPool,
    private readonly hub: EventHub,
    private readonly jobs: JobBoard,
    private readonly report: (error: unknown) => void,
  ) {
    this.subscription = this.waiting
      .pipe(
        mergeMap(
          (id) =>
            defer(() => this.work(id)).pipe(
              catchError((error: unknown) => {
                this.report(error);
                return EMPTY;
              }),
            ),
          pool.threads,
        ),
      )
      .subscribe();
  }

  enqueue(analysisIds: readonly string[]): void {
    this.unfinished += analysisIds.length;
    for (const id of analysisIds) this.waiting.next(id);
  }

  /** After a start: takes up again what the last process left. */
  async recover(): Promise<void> {
    for (const runId of await runsToMeasure(this.database, ALGORITHM_VERSION)) await this.measureRun(runId);
    this.enqueue(await recoverAnalyses(this.database));
  }

  /** @throws Failure `not-found` where the analysis has not failed */
  async retry(analysisId: string): Promise<void> {
    if (!(await requeueAnalysis(this.database, analysisId))) {
      throw new Failure('not-found', 'There is no failed analysis with this number.');
    }
    for (const { specimen_id } of await runsOfAnalysis(this.database, analysisId))
      this.hub.specimenChanged(specimen_id);
    this.enqueue([analysisId]);
  }

  /** Resolves when nothing is waiting or running. */
  async idle(): Promise<void> {
    if (this.unfinished > 0) await new Promise<void>((resolve) => this.idleWaiters.push(resolve));
  }

  close(): void {
    this.subscription.unsubscribe();
  }

  private async work(id: string): Promise<void> {
    try {
      await this.analyse(id);
    } finally {
      this.unfinished--;
      if (this.unfinished === 0) {
        this.idleWaiters.forEach((resolve) => resolve());
        this.idleWaiters = [];
      }
    }
  }

  private async analyse(id: string): Promise<void> {
    const started = await startAnalysis(this.database, id);
    if (!started) return;
    const runs = await runsOfAnalysis(this.database, id);
    const first = runs.at(0);
    const job = this.jobs.open(`Measuring ${first?.name ?? 'a clip'}`, 1, first?.specimen_id ?? null);
    runs.forEach((run) => this.hub.specimenChanged(run.specimen_id));
    try {
      const path = await this.store.find(started.clip_sha256);
      if (!path) throw new Error('The clip is not in the archive any more.');
      const result = await this.pool.analyse(path, (share) => job.progress(share));
      await finishAnalysis(this.database, id, result);
      job.finish();
    } catch (error) {
      const reason = error instanceof Error ? error.message : String(error);
      await failAnalysis(this.database, id, reason);
      job.fail(reason);
    }
    for (const run of await runsOfAnalysis(this.database, id)) {
      await this.measureRun(run.run_id);
      this.hub.specimenChanged(run.specimen_id);
    }
  }

  /** Measures a run as soon as all of its clips are analysed; before that, does nothing. */
  async measureRun(runId: string): Promise<void> {
    const takes = await analysedTakes(this.database, runId, ALGORITHM_VERSION);
    if (takes.length === 0 || takes.some((t) => t.status !== 'done')) return;
    const figures = runMeasurements(takes.map(analysedTake));
    await this.database.transaction((tx) => storeMeasurements(tx, runId, ALGORITHM_VERSION, figures));
  }
}

function analysedTake(row: AnalysedTakeRow): AnalysedTake {
  const { loudness, noise, speechS } = analysisDetailSchema.parse(row.detail);
  const bytes = row.step_powers ?? new Uint8Array();
  // A fresh copy: views of the driver's buffer need not be aligned to eight bytes.
  return {
    step: row.step,
    gainDb: row.gain_db,
    loudness,
    noise,
    speechS,
    stepPowers: new Float64Array(bytes.slice().buffer),
  } as AnalysedTake;
}
