import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import type { TaskName } from '#worker/tasks';
import { workerFolder } from '../platform/package-root';
import { openWorkerPool, type WorkerPool } from '../platform/worker-pool';

// The same few takes are measured and rendered in a hundred tests. What a task gives depends on nothing but its bytes
// and its order, so each is done once in a worker of the tests, by the threads that do it for anybody, and remembered.

/** Tasks that give the same for the same order, and write nothing. */
const PURE: ReadonlySet<TaskName> = new Set(['render-bench-take'] as const);

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

/** The threads of all tests of this process; closing leaves them to the next test. */
export function rememberingPool(): WorkerPool {
  const pool = (shared ??= openWorkerPool(workerFolder));
  return {
    ...pool,
    run: (task, data) =>
      PURE.has(task) ? once(`${task} ${JSON.stringify(data)}`, () => pool.run(task, data)) : pool.run(task, data),
    analyse: (path, onProgress, segments = null, options = {}) => {
      const bytes = createHash('sha256').update(readFileSync(path)).digest('hex');
      return once(`analyse ${bytes} ${JSON.stringify([segments, options])}`, () =>
        pool.analyse(path, onProgress, segments, options),
      );
    },
    close: () => Promise.resolve(),
  };
}
