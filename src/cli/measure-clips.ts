import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { MessageChannel, Worker, type Transferable } from 'node:worker_threads';
import { workerFolder } from '#server/platform/package-root';
import { bytesOf, isShared } from '#server/platform/shared-clip';
import type { AnalyseClipResult, AnalyseClipTask } from '#contracts/worker-messages';
import type { TaskInput, TaskName, TaskOutput } from '#worker/tasks';
import type { ClipOutcome } from '#worker/tasks/analyse-clips';

/** What a clip came to, or why it came to nothing. */
export type Measured = { readonly result: AnalyseClipResult } | { readonly refused: string };

/**
 * Measures clips on all cores. This thread takes part: a file alone waits for no other thread to start, and a pool would
 * take longer to start than a short file takes to be measured.
 *
 * @param tasks - one per clip
 * @param threads - that measure, with this one
 * @param longFrom - from how many bytes on two threads share a clip
 * @returns what each came to, in their order
 */
export async function measureClips(
  tasks: readonly AnalyseClipTask[],
  threads = availableParallelism(),
  longFrom?: number,
): Promise<readonly Measured[]> {
  const [first] = tasks;
  if (tasks.length === 1 && isShared(bytesOf(first.path), 1, threads, longFrom)) return [await measureShared(first)];
  // The longest go first, so that none of them is left for the end.
  const bytes = tasks.map(({ path }) => bytesOf(path));
  const order = tasks.map((_, i) => i).sort((a, b) => bytes[b] - bytes[a]);
  const clips = order.map((i) => tasks[i]);
  const taken = new Int32Array(new SharedArrayBuffer(4));
  const others = Array.from({ length: Math.min(threads, tasks.length) - 1 }, () =>
    inThread('analyse-clips', { clips, taken }),
  );
  const lanes = await Promise.allSettled([here({ clips, taken }), ...others]);
  const measured = new Map<number, ClipOutcome>();
  for (const lane of lanes) {
    if (lane.status === 'fulfilled') for (const outcome of lane.value) measured.set(order[outcome.place], outcome);
  }
  const [lost] = lanes.flatMap((lane) => (lane.status === 'rejected' ? [messageOf(lane.reason)] : []));
  return tasks.map((_, i) => measured.get(i) ?? { refused: lost });
}

/** Another thread takes the spectra of a long clip; all else is done here. */
async function measureShared(task: AnalyseClipTask): Promise<Measured> {
  const { port1, port2 } = new MessageChannel();
  const taken = new Int32Array(new SharedArrayBuffer(4));
  const [half, [whole]] = await Promise.all([
    inThread('read-spectra', { path: task.path, levels: port2, sound: task.sound }, [port2]).then(
      () => null,
      (reason: unknown) => ({ refused: messageOf(reason) }),
    ),
    here({ clips: [{ ...task, spectra: port1 }], taken }),
  ]);
  // That the spectra did not come says less than why.
  return half ?? whole;
}

/** Measuring is loaded while the other threads start. */
async function here(order: TaskInput<'analyse-clips'>): Promise<readonly ClipOutcome[]> {
  const { default: analyseClips } = await import('#worker/tasks/analyse-clips');
  return analyseClips(order);
}

function inThread<Name extends TaskName>(
  task: Name,
  data: TaskInput<Name>,
  transferList: Transferable[] = [],
): Promise<TaskOutput<Name>> {
  return new Promise((resolve, reject) => {
    const thread = new Worker(join(workerFolder, 'thread.js'), { workerData: { task, data }, transferList });
    thread.once('message', resolve);
    thread.once('error', reject);
    thread.once('exit', (code) => reject(new Error(`A thread ended with ${code}.`)));
  });
}

const messageOf = (reason: unknown): string => (reason instanceof Error ? reason.message : String(reason));
