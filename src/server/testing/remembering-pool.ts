import { createHash } from 'node:crypto';
import { readFileSync, statSync } from 'node:fs';
import { isAbsolute } from 'node:path';
import type { TaskName } from '#worker/tasks';
import { workerFolder } from '../platform/package-root';
import { openWorkerPool, type WorkerPool } from '../platform/worker-pool';

// The same few takes are measured and rendered in a hundred tests. What a task gives depends on nothing but its bytes
// and its order, so each is done once in a worker of the tests, by the threads that do it for anybody, and remembered.

/** Tasks that write nothing, and give the same for the same order where its clips are the same. */
const PURE: ReadonlySet<TaskName> = new Set([
  'kind-standing',
  'measure-clip-difference',
  'measure-pair',
  'measure-reading',
  'measure-sweep',
  'measure-tone',
  'rank-for-uses',
  'render-bench-take',
] as const);

const remembered = new Map<string, Promise<unknown>>();
let shared: WorkerPool | null = null;

async function once<Result>(key: string, work: () => Promise<Result>): Promise<Result> {
  let result = remembered.get(key) as Promise<Result> | undefined;
  if (!result) {
    result = work();
    // A failure may be of the moment.
    result.catch(() => remembered.delete(key));
    remembered.set(key, result);
  }
  return structuredClone(await result);
}

const bytesOf = (path: string): string => createHash('sha256').update(readFileSync(path)).digest('hex');

const isFile = (path: string): boolean => statSync(path, { throwIfNoEntry: false })?.isFile() ?? false;

/** An order with the bytes of its clips in place of where they lie. */
const orderOf = (data: unknown): string =>
  JSON.stringify(data, (_key, value: unknown) =>
    typeof value === 'string' && isAbsolute(value) && isFile(value) ? bytesOf(value) : value,
  );

/** The threads of all tests of this process; closing leaves them to the next test. */
export function rememberingPool(): WorkerPool {
  const pool = (shared ??= openWorkerPool(workerFolder));
  return {
    ...pool,
    run: (task, data) =>
      PURE.has(task) ? once(`${task} ${orderOf(data)}`, () => pool.run(task, data)) : pool.run(task, data),
    analyse: (path, onProgress, segments = null, options = {}) =>
      once(`analyse ${bytesOf(path)} ${JSON.stringify([segments, options])}`, () =>
        pool.analyse(path, onProgress, segments, options),
      ),
    close: () => Promise.resolve(),
  };
}
