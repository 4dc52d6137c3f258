// A thread for one task, for whoever would have no use for a pool: what workerData names is done, and its result sent.
import { parentPort, workerData } from 'node:worker_threads';
import type { TaskInput, TaskName } from './tasks';

const { task, data } = workerData as { task: TaskName; data: TaskInput<TaskName> };
const file = new URL(`${task}.js`, import.meta.url).href;
const { default: run } = (await import(file)) as { default: (order: typeof data) => unknown };
parentPort?.postMessage(await run(data));
