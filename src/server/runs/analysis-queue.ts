import {
  EMPTY,
  Subject,
  catchError,
  defer,
  filter,
  firstValueFrom,
  mergeMap,
  type Observable,
  type Subscription,
} from 'rxjs';
import { AudioFileError } from '#core/audio/audio-file-error';
import { ALGORITHM_VERSION, RUN_FIGURES_VERSION } from '#core/measure/registry';
import { measurementSchema } from '#contracts/measurement';
import { segmentsSchema, type Segments } from '#contracts/segments';
import { clipSummarySchema } from '#contracts/clip-summary';
import { analysisDetailSchema, type AnalyseClipResult } from '#contracts/worker-messages';
import type { ClipStore } from '../platform/archive/clip-store';
import type { Database } from '../platform/db/database';
import {
  analysisOfClip,
  failAnalysis,
  finishAnalysis,
  orderAnalysis,
  orderMissingAnalyses,
  recoverAnalyses,
  requeueAnalysis,
  requeueDoneAnalysis,
  runsOfAnalysis,
  runsOfClip,
  runsToMeasure,
  startAnalysis,
  summaryOfAnalysis,
  type ClipAnalysisRow,
} from './queries/analysis';
import { BegunWork } from './begun-work';
import { RunMeasuring } from './run-measuring';
import { findClip } from './queries/clip';
import { addSegmentChoice, latestChoice } from './queries/segment-choice';
import { Failure } from '../platform/failure';
import type { EventHub } from '../platform/event-hub';
import type { JobBoard } from '../platform/job-board';
import type { SetAside } from '../platform/set-aside';
import type { WorkerPool } from '../platform/worker-pool';

/** What is stored must be readable again: a figure that is not a number becomes null in JSON, and then nothing opens. */
function mustBeReadable(result: AnalyseClipResult): void {
  const { summary, measurements, detail } = JSON.parse(JSON.stringify(result)) as Record<string, unknown>;
  const isReadable =
    clipSummarySchema.safeParse(summary).success &&
    measurementSchema.array().safeParse(measurements).success &&
    analysisDetailSchema.safeParse(detail).success;
  if (!isReadable) throw new AudioFileError('malformed', 'Its samples give figures that are not numbers.');
}

const runName = (runId: string): string => `run ${runId}`;

/** Why an analysis failed: words of the readers and of the thread that died. */
const reasonOf = (error: unknown): string => (error instanceof Error ? error.message : String(error)).slice(0, 300);

/** Analyses waiting, running and ended: at most one per thread at a time, each survives a restart. */
export class AnalysisQueue {
  private readonly waiting = new Subject<string>();
  private readonly subscription: Subscription;
  private readonly ended = new Subject<string>();
  private readonly measuring: RunMeasuring;
  private readonly begun = new BegunWork();
  private unfinished = 0;
  private idleWaiters: (() => void)[] = [];

  constructor(
    private readonly database: Database,
    private readonly store: ClipStore,
    private readonly pool: WorkerPool,
    private readonly hub: EventHub,
    private readonly jobs: JobBoard,
    private readonly report: (error: unknown) => void,
    private readonly setAside: SetAside,
  ) {
    this.measuring = new RunMeasuring(database, store, pool, report);
    const reported = <T>(work: () => Promise<T>): Observable<T> =>
      defer(work).pipe(
        catchError((error: unknown) => {
          this.report(error);
          return EMPTY;
        }),
      );
    this.subscription = this.waiting
      .pipe(
        mergeMap((id) => reported(() => this.begin(id)), pool.threads),
        // What was measured is written down while the thread measures the next one.
        mergeMap(reported),
      )
      .subscribe();
  }

  enqueue(analysisIds: readonly string[]): void {
    this.unfinished += analysisIds.length;
    for (const id of analysisIds) this.waiting.next(id);
  }

  /**
   * Sees to it that a clip is analysed, ahead of everything that waits: somebody stands at the microphone.
   *
   * @returns what the analysis gave
   * @throws Failure `clip-refused` where the analysis fails
   */
  async ready(sha256: string): Promise<ClipAnalysisRow> {
    await orderAnalysis(this.database, sha256, ALGORITHM_VERSION);
    for (;;) {
      const done = firstValueFrom(this.ended.pipe(filter((hash) => hash === sha256)));
      const analysis = await analysisOfClip(this.database, sha256, ALGORITHM_VERSION);
      if (analysis?.status === 'done') return analysis;
      if (!analysis || analysis.status === 'failed')
        throw new Failure('clip-refused', `The clip could not be measured: ${analysis?.reason ?? 'it is gone'}`);
      if (analysis.status === 'queued') {
        this.unfinished++;
        const end = await this.begin(analysis.id);
        await end();
      } else await done;
    }
  }

  /** After a start: takes up again what the last process left. */
  async recover(): Promise<void> {
    await orderMissingAnalyses(this.database, ALGORITHM_VERSION);
    const runs = await runsToMeasure(this.database, ALGORITHM_VERSION, RUN_FIGURES_VERSION);
    this.unfinished += runs.length;
    // A new version of the figures measures all runs of an archive anew: nobody has to wait for that at a start.
    void this.measureInTurn(runs);
    this.enqueue(await recoverAnalyses(this.database));
  }

  private async measureInTurn(runs: readonly { readonly id: string; readonly specimen_id: string }[]): Promise<void> {
    for (const run of runs) {
      if (this.subscription.closed) return;
      await this.measureRun(run.id).catch((error: unknown) => this.putAside(run.id, error));
      this.hub.specimenChanged(run.specimen_id);
      this.finished();
    }
  }

  /** @throws Failure `not-found` where the analysis has not failed */
  async retry(analysisId: string): Promise<void> {
    if (!(await requeueAnalysis(this.database, analysisId)) && !(await this.requeueUnreadable(analysisId))) {
      throw new Failure('not-found', 'There is no failed analysis with this number.');
    }
    for (const { specimen_id } of await runsOfAnalysis(this.database, analysisId))
      this.hub.specimenChanged(specimen_id);
    this.enqueue([analysisId]);
  }

  /** One that is done, but cannot be read any more, may be tried again as well. */
  private async requeueUnreadable(analysisId: string): Promise<boolean> {
    const found = await summaryOfAnalysis(this.database, analysisId);
    if (!found || clipSummarySchema.safeParse(found.summary).success) return false;
    return requeueDoneAnalysis(this.database, analysisId);
  }

  /** Resolves when nothing is waiting or running. */
  async idle(): Promise<void> {
    if (this.unfinished > 0) await new Promise<void>((resolve) => this.idleWaiters.push(resolve));
  }

  close(): void {
    this.subscription.unsubscribe();
  }

  /** @returns what is left to do once the clip is measured; it must be called */
  private async begin(id: string): Promise<() => Promise<void>> {
    try {
      const end = await this.analyse(id);
      return () => end().finally(() => this.finished());
    } catch (error) {
      this.finished();
      throw error;
    }
  }

  private finished(): void {
    this.unfinished--;
    if (this.unfinished > 0) return;
    this.idleWaiters.forEach((resolve) => resolve());
    this.idleWaiters = [];
  }

  /** Measures a clip. @returns what writes it down, or why it failed, and measures its runs */
  private async analyse(id: string): Promise<() => Promise<void>> {
    const started = await startAnalysis(this.database, id);
    if (!started) return () => Promise.resolve();
    const runs = await runsOfAnalysis(this.database, id);
    const first = runs.at(0);
    const job = this.jobs.open(`Measuring ${first?.name ?? 'a clip'}`, 1, first?.specimen_id ?? null);
    runs.forEach((run) => this.hub.specimenChanged(run.specimen_id));
    const [measured] = await Promise.allSettled([
      this.measuredClip(started.clip_sha256, (share) => job.progress(share)),
    ]);
    return async () => {
      try {
        if (measured.status === 'rejected') throw measured.reason as Error;
        const result = measured.value;
        mustBeReadable(result);
        await finishAnalysis(this.database, id, result);
        await this.repeatChoice(started.clip_sha256);
        job.finish();
      } catch (error) {
        const reason = reasonOf(error);
        await failAnalysis(this.database, id, reason);
        job.fail(reason);
      }
      const known = this.begun.now();
      this.ended.next(started.clip_sha256);
      for (const run of await runsOfAnalysis(this.database, id)) {
        await this.measureRun(run.run_id, known).catch((error: unknown) => this.putAside(run.run_id, error));
        this.hub.specimenChanged(run.specimen_id);
      }
    };
  }

  private async measuredClip(sha256: string, onProgress: (share: number) => void): Promise<AnalyseClipResult> {
    const path = await this.store.verified(sha256);
    if (!path) throw new Error('The clip is not in the archive any more.');
    return this.measured(sha256, path, onProgress);
  }

  private async measured(
    sha256: string,
    path: string,
    onProgress: (share: number) => void,
    segments: Segments | null = null,
  ): Promise<AnalyseClipResult> {
    const clip = await findClip(this.database, sha256);
    return this.pool.analyse(path, onProgress, segments, { sound: clip?.origin ?? null });
  }

  /** A run that cannot be measured must stop neither the start nor the others. */
  private putAside(runId: string, error: unknown): void {
    this.report(error);
    this.setAside.note('run', runName(runId), 'Its figures cannot be made from what its takes hold.');
  }

  /** A new version of the algorithms measures by a person's segments as well. */
  private async repeatChoice(sha256: string): Promise<void> {
    const choice = await latestChoice(this.database, sha256);
    if (!choice || choice.segments === null || choice.algorithm_version === ALGORITHM_VERSION) return;
    await this.measureChoice(sha256, segmentsSchema.parse(choice.segments));
  }

  /**
   * Measures a run as soon as all of its clips are analysed; before that, does nothing. The last two clips of a run may
   * end together: it is measured once for both.
   *
   * @param runId - which run
   * @param known - moment at which everything was known that it has to be measured for
   */
  measureRun(runId: string, known = this.begun.now()): Promise<void> {
    return this.begun.unlessSince(runId, known, async () => {
      if (await this.measuring.measure(runId)) this.setAside.clear('run', runName(runId));
    });
  }

  /** Measures a clip anew by segments that a person has set (null: by the automatic ones), and its runs with it. */
  async chooseSegments(sha256: string, segments: Segments | null): Promise<void> {
    await this.measureChoice(sha256, segments);
    for (const { run_id, specimen_id } of await runsOfClip(this.database, sha256)) {
      await this.measureRun(run_id);
      this.hub.specimenChanged(specimen_id);
    }
  }

  private async measureChoice(sha256: string, segments: Segments | null): Promise<void> {
    const path = segments && (await this.store.verified(sha256));
    if (segments && !path) throw new Failure('not-found', 'The clip is not in the archive any more.');
    const result = segments && path ? await this.measured(sha256, path, () => undefined, segments) : null;
    if (result) mustBeReadable(result);
    await addSegmentChoice(this.database, sha256, ALGORITHM_VERSION, segments, result);
  }
}
