import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { MessageChannel } from 'node:worker_threads';
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

/** Heavy work, off the main thread. */
export interface WorkerPool {
  readonly threads: number;
  analyse(
    path: string,
    onProgress: (share: number) => void,
    segments?: Segments | null,
    options?: Pick<AnalyseClipTask, 'dualMono' | 'part'>,
  ): Promise<AnalyseClipResult>;
  inspect(task: InspectClipTask): Promise<InspectClipResult>;
  salvage(task: SalvageClipTask): Promise<void>;
  /** Runs any other task file of the folder. */
  run<Result = undefined>(task: string, data: unknown): Promise<Result>;
  close(): Promise<void>;
}

/**
 * A pool of threads, one per core, over the task files of a folder.
 * When a thread dies, its task is rejected and the pool starts another one.
 */
export function openWorkerPool(folder: string, threads = availableParallelism()): WorkerPool {
  const pool = new Piscina({
    filename: join(folder, 'inspect-clip.js'),
    minThreads: 0,
    maxThreads: threads,
    // Somebody at the microphone waits for the next verdict; a thread takes a while to start.
    idleTimeout: 60_000,
    concurrentTasksPerWorker: 1,
  });
  // A dead thread also raises "error" here; its task was rejected, which is where it is dealt with.
  pool.on('error', () => undefined);
  const run = <Result>(task: string, data: unknown, transferList: MessageChannel['port1'][] = []): Promise<Result> =>
    (pool.run(data, { filename: join(folder, `${task}.js`), transferList }) as Promise<Result>).catch(
      (error: unknown) => {
        throw asAudioFileError(error);
      },
    );
  return {
    threads,
    run,
    inspect: (task) => run('inspect-clip', task),
    salvage: (task) => run('salvage-clip', task),
    async analyse(path, onProgress, segments = null, options = {}) {
      const { port1, port2 } = new MessageChannel();
      port1.on('message', (message) => onProgress(progressMessageSchema.parse(message).share));
      port1.unref();
      try {
        const task: AnalyseClipTask = { path, progress: port2, segments, ...options };
        return await run<AnalyseClipResult>('analyse-clip', task, [port2]);
      } finally {
        port1.close();
      }
    },
    close: () => pool.destroy(),
  };
}
