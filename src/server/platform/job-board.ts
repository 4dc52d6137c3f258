import { Subject, throttleTime } from 'rxjs';
import type { Job } from '#contracts/events';
import type { EventHub } from './event-hub';

/** Finished jobs stay on the board for a moment, so that a page can show that they ended. */
const LINGER_MS = 4_000;
/** Progress goes out at most this often. */
const TELL_EVERY_MS = 200;

/** A job on the board, to be moved on by whoever does it. */
export interface JobHandle {
  progress(done: number): void;
  /** More (or less) to do than was thought. */
  setTotal(total: number): void;
  finish(): void;
  fail(reason: string): void;
}

/** Everything that runs in the background, with its progress. */
export class JobBoard {
  private readonly jobs = new Map<string, Job>();
  private readonly changes = new Subject<void>();
  private count = 0;

  constructor(
    hub: EventHub,
    private readonly now: () => Date,
  ) {
    this.changes
      .pipe(throttleTime(TELL_EVERY_MS, undefined, { leading: true, trailing: true }))
      .subscribe(() => hub.emit({ type: 'jobs', jobs: this.list() }));
  }

  list(): Job[] {
    return [...this.jobs.values()];
  }

  open(label: string, total: number, specimenId: string | null): JobHandle {
    const id = String(++this.count);
    const change = (part: Partial<Job>): void => {
      const job = this.jobs.get(id);
      if (!job) return;
      this.jobs.set(id, { ...job, ...part });
      this.changes.next();
    };
    this.jobs.set(id, {
      id,
      label,
      done: 0,
      total,
      state: 'running',
      reason: null,
      startedAt: this.now().toISOString(),
      specimenId,
    });
    this.changes.next();
    const end = (part: Partial<Job>): void => {
      change(part);
      setTimeout(() => {
        this.jobs.delete(id);
        this.changes.next();
      }, LINGER_MS).unref();
    };
    return {
      progress: (done) => change({ done }),
      setTotal: (value) => change({ total: value }),
      finish: () => end({ state: 'done', done: this.jobs.get(id)?.total ?? 0 }),
      fail: (reason) => end({ state: 'failed', reason }),
    };
  }
}
