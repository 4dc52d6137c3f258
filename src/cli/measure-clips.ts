import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { Worker, type Transferable } from 'node:worker_threads';
import { workerFolder } from '#server/platform/package-root';
import { bytesOf, helpersFor, withHelpers, type Sharing } from '#server/platform/shared-clip';
import type { AnalyseClipResult, AnalyseClipTask } from '#contracts/worker-messages';
import { noneTaken } from '#worker/taken-count';
import type { TaskInput, TaskName, TaskOutput } from '#worker/tasks';
import type { ClipOutcome } from '#worker/tasks/analyse-clips';

/** What a clip came to, or why it came to nothing. */
export type Measured = { readonly result: AnalyseClipResult } | { readonly refused: string };

/** Who measures. */
interface Measuring extends Sharing {
  /** Threads, with this one. */
  readonly threads?: number;
  /** Where the tasks of the other threads lie. */
  readonly workers?: string;
}

/**
 * Measures clips on all cores. This thread takes part: a file alone waits for no other thread to start, and a pool would
 * take longer to start than a short file takes to be measured.
 *
 * @param tasks - one per clip
 * @param measuring - who measures
 * @returns what each came to, in their order
 */
export async function measureClips(
  tasks: readonly AnalyseClipTask[],
  measuring: Measuring = {},
): Promise<readonly Measured[]> {
  const { threads = availableParallelism(), workers = workerFolder } = measuring;
  // The longest go first, so that none of them is left for the end.
  const clips = tasks
    .map((task, place) => ({ task, place, bytes: bytesOf(task.path) }))
    .sort((a, b) => b.bytes - a.bytes);
  const measured: Measured[] = [];
  const left: typeof clips = [];
  let after = clips.reduce((s, clip) => s + clip.bytes, 0);
  for (const clip of clips) {
    after -= clip.bytes;
    // Fewer clips than threads, or one that is longer than all others together: dealt out whole they would leave threads idle.
    const isWanted = clips.length < threads || (clip === clips[0] && clip.bytes > after);
    const helpers = isWanted ? helpersFor(clip.bytes, 1, threads, measuring) : 0;
    if (helpers > 0) measured[clip.place] = await measureShared(clip.task, helpers, measuring, workers);
    else left.push(clip);
  }
  const outcomes = await measureInTurn(
    left.map(({ task }) => task),
    threads,
    workers,
  );
  outcomes.forEach((outcome, i) => (measured[left[i].place] = outcome));
  return measured;
}

/** All threads take one clip after the other from the front. */
async function measureInTurn(
  clips: readonly AnalyseClipTask[],
  threads: number,
  workers: string,
): Promise<readonly Measured[]> {
  if (clips.length === 0) return [];
  const order = { clips, taken: noneTaken() };
  const others = Array.from({ length: Math.min(threads, clips.length) - 1 }, () =>
    inThread(workers, 'analyse-clips', order),
  );
  const lanes = await Promise.allSettled([here(order), ...others]);
  const found = new Map<number, Measured>();
  for (const lane of lanes) if (lane.status === 'fulfilled') for (const o of lane.value) found.set(o.place, o);
  // What a thread had taken when it ended is lost with it.
  const [lost] = lanes.flatMap((lane) => (lane.status === 'rejected' ? [messageOf(lane.reason)] : []));
  return clips.map((_, i) => found.get(i) ?? { refused: lost });
}

/** Other threads help with the stretches of a long clip. */
async function measureShared(
  task: AnalyseClipTask,
  helpers: number,
  sharing: Sharing,
  workers: string,
): Promise<Measured> {
  try {
    const result = await withHelpers(
      helpers,
      sharing,
      (shared, to) => inThread(workers, 'read-stretches', { path: task.path, to, ...shared }, [to]),
      async (shared, others) => {
        const { default: analyseClip } = await import('#worker/tasks/analyse-clip');
        return analyseClip({ ...task, shared, others });
      },
    );
    return { result };
  } catch (error) {
    return { refused: messageOf(error) };
  }
}

/** Measuring is loaded while the other threads start. */
async function here(order: TaskInput<'analyse-clips'>): Promise<readonly ClipOutcome[]> {
  const { default: analyseClips } = await import('#worker/tasks/analyse-clips');
  return analyseClips(order);
}

function inThread<Name extends TaskName>(
  workers: string,
  task: Name,
  data: TaskInput<Name>,
  transferList: Transferable[] = [],
): Promise<TaskOutput<Name>> {
  return new Promise((resolve, reject) => {
    const thread = new Worker(join(workers, 'thread.js'), { workerData: { task, data }, transferList });
    thread.once('message', resolve);
    thread.once('error', reject);
    thread.once('exit', (code) => reject(new Error(`A thread ended with ${code}.`)));
  });
}

const messageOf = (reason: unknown): string => (reason instanceof Error ? reason.message : String(reason));
