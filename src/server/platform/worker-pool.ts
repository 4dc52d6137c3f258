import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { MessageChannel, type Transferable } from 'node:worker_threads';
import { Piscina } from 'piscina';
import { asAudioFileError } from '#core/audio/audio-file-error';
import type { Segments } from '#contracts/segments';
import {
  progressMessageSchema,
  type AnalyseClipResult,
  type AnalyseClipTask,
  type InspectClipResult,
  type InspectClipTask,
  type SalvageClipTask,
} from '#contracts/worker-messages';
import type { TaskInput, TaskName, TaskOutput } from '#worker/tasks';
import { Failure } from './failure';
import { bytesOf, helpersFor, withHelpers, type Sharing } from './shared-clip';
import { WorkLane } from './work-lane';

/** Heavy work, off the main thread. */
export interface WorkerPool {
  readonly threads: number;
  analyse(
    path: string,
    onProgress: (share: number) => void,
    segments?: Segments | null,
    options?: Pick<AnalyseClipTask, 'dualMono' | 'part' | 'sound'>,
  ): Promise<AnalyseClipResult>;
  inspect(task: InspectClipTask, signal?: AbortSignal): Promise<InspectClipResult>;
  salvage(task: SalvageClipTask): Promise<void>;
  /** Runs a task in a thread. */
  run<Name extends TaskName>(task: Name, data: TaskInput<Name>): Promise<TaskOutput<Name>>;
  close(): Promise<void>;
}

/** How much of a kind is done at once and may wait; kinds that are not named are quick, or their callers keep count. */
const LANES: Readonly<Partial<Record<TaskName, readonly [atOnce: number, waiting: number]>>> = {
  'inspect-clip': [2, 200],
  'decode-clip': [1, 200],
  'render-blind-clip': [2, 400],
  'render-sweep': [1, 8],
  'render-comparison-zip': [1, 8],
  'render-bench-take': [1, 16],
  'draw-spectrogram': [1, 64],
  'cut-matched-clip': [1, 64],
  'cut-clip': [1, 16],
  'split-channels': [1, 16],
  'cut-listening-clips': [1, 64],
  'measure-clip-difference': [1, 64],
  'parse-answers': [1, 8],
};

/**
 * A pool of threads, one per core, over the task files of a folder.
 * When a thread dies, its task is rejected and the pool starts another one.
 */
export function openWorkerPool(folder: string, threads = availableParallelism(), sharing: Sharing = {}): WorkerPool {
  // One more than measuring ever takes, so that a question does not wait behind a long clip.
  return openPool(folder, { threads, maxThreads: threads + 1, idleTimeout: IDLE_MS, sharing });
}

/** A pool of one thread, for tasks that go on from the last one: what it remembers goes when it has long been idle. */
export const openRememberingThread = (folder: string): WorkerPool =>
  openPool(folder, { threads: 1, maxThreads: 1, idleTimeout: REMEMBERS_MS, mostWaiting: MOST_WAITING });

/** Questions to one thread; more would be answered too late for anybody. */
const MOST_WAITING = 500;
/** Somebody at the microphone waits for the next verdict; a thread takes a while to start. */
const IDLE_MS = 60_000;
const REMEMBERS_MS = 15 * 60_000;

interface PoolSettings {
  /** That measure at once. */
  readonly threads: number;
  readonly maxThreads: number;
  readonly idleTimeout: number;
  readonly mostWaiting?: number;
  readonly sharing?: Sharing;
}

function openPool(folder: string, settings: PoolSettings): WorkerPool {
  const { threads, maxThreads, idleTimeout, mostWaiting = Infinity, sharing = {} } = settings;
  const pool = new Piscina({
    filename: join(folder, 'inspect-clip.js'),
    minThreads: 0,
    maxThreads,
    idleTimeout,
    concurrentTasksPerWorker: 1,
  });
  // A dead thread also raises "error" here; its task was rejected, which is where it is dealt with. But a thread that
  // could not even start (its files were replaced meanwhile, or memory ran out) has taken no task yet: what waits for it
  // would wait for ever.
  const waiting = new Set<(reason: unknown) => void>();
  pool.on('error', (error: unknown) => {
    if (pool.threads.length === 0) for (const cannotStart of waiting) cannotStart(error);
  });
  // What waits in the pool's own queue when the last thread dies is not taken up before somebody asks again: so nothing
  // waits there, only here.
  const entry = new WorkLane(maxThreads, mostWaiting);
  const lanes = new Map(
    Object.entries(LANES).map(([task, [atOnce, waiting]]) => [task, new WorkLane(atOnce, waiting)]),
  );
  const run = async <Name extends TaskName>(
    task: Name,
    data: TaskInput<Name>,
    transferList: Transferable[] = [],
    signal?: AbortSignal,
  ): Promise<TaskOutput<Name>> => {
    const started = async (): Promise<TaskOutput<Name>> => {
      const stop = new AbortController();
      const giveUp = (): void => stop.abort(signal?.reason);
      const unstarted: unknown[] = [];
      const cannotStart = (reason: unknown): void => {
        unstarted.push(reason);
        stop.abort(reason);
      };
      waiting.add(cannotStart);
      signal?.addEventListener('abort', giveUp, { once: true });
      try {
        return (await pool.run(data, { filename: join(folder, `${task}.js`), transferList, signal: stop.signal })) as TaskOutput<Name>; // prettier-ignore
      } catch (error) {
        if (unstarted.length === 0) throw error;
        const [reason] = unstarted;
        throw new Failure('no-thread', `No thread could be started for "${task}": ${reason instanceof Error ? reason.message : String(reason)}`); // prettier-ignore
      } finally {
        waiting.delete(cannotStart);
        signal?.removeEventListener('abort', giveUp);
      }
    };
    const work = (): Promise<TaskOutput<Name>> => entry.run(started, signal);
    try {
      return await (lanes.get(task)?.run(work, signal) ?? work());
    } catch (error) {
      throw asAudioFileError(error);
    }
  };
  let analysing = 0;
  return {
    threads,
    run: (task, data) => run(task, data),
    inspect: (task, signal) => run('inspect-clip', task, [], signal),
    salvage: (task) => run('salvage-clip', task),
    async analyse(path, onProgress, segments = null, options = {}) {
      const { port1, port2 } = new MessageChannel();
      port1.on('message', (message) => onProgress(progressMessageSchema.parse(message).share));
      port1.unref();
      try {
        analysing++;
        const helpers = helpersFor(bytesOf(path), analysing, threads, sharing);
        const order = { path, progress: port2, segments, ...options };
        if (helpers === 0) return await run('analyse-clip', order, [port2]);
        return await withHelpers(
          helpers,
          sharing,
          (shared, to) => run('read-stretches', { path, to, ...shared }, [to]),
          (shared, others) => run('analyse-clip', { ...order, shared, others }, [port2, ...others]),
        );
      } finally {
        analysing--;
        port1.close();
      }
    },
    close: () => pool.destroy(),
  };
}
