import { expect, it } from 'vitest';
import { scaleRequestSchema } from '#contracts/scale';
import type { RankHeardTask } from '#worker/tasks/rank-heard';
import { clockIn } from '../platform/clock';
import type { Database } from '../platform/db/database';
import { EventHub } from '../platform/event-hub';
import { Memories } from '../platform/memory';
import type { WorkerPool } from '../platform/worker-pool';
import type { Gathered } from './heard-answers';
import { ScaleFit } from './scale-fit';

/** What the thread was told, task by task: with what it has already, or whole. */
function fitOf() {
  const told: (RankHeardTask['after'] | 'whole')[] = [];
  const waiting: (() => void)[] = [];
  const pool = {
    run: (_name: string, task: RankHeardTask) => {
      told.push(task.after ?? 'whole');
      return new Promise((resolve) => waiting.push(() => resolve({ items: [] })));
    },
  } as unknown as WorkerPool;
  const memories = new Memories(new EventHub());
  const database = { query: () => Promise.resolve([]) } as unknown as Database;
  const fit = new ScaleFit(database, pool, clockIn('UTC'), memories);
  const gathered = { units: [], blind: [{ id: 7 }, { id: 9 }], sighted: [], rows: [] } as unknown as Gathered;
  const ask = () => fit.rank(scaleRequestSchema.parse({}), gathered, null);
  const answered = async (asked: Promise<unknown>, meanwhile = (): void => undefined) => {
    await expect.poll(() => waiting.length).toBe(1);
    meanwhile();
    waiting.shift()?.();
    await asked;
  };
  return { told, memories, ask, answered };
}

it('sends the thread what it does not have, and all of it when answers were taken back', async () => {
  const { told, memories, ask, answered } = fitOf();
  await answered(ask());
  await answered(ask());
  memories.tell({ cause: 'answers' });
  await answered(ask());
  expect(told).toEqual(['whole', { count: 2, lastId: 9 }, 'whole']);
});

it('a fit that was on its way when answers were taken back does not count as told', async () => {
  const { told, memories, ask, answered } = fitOf();
  await answered(ask(), () => memories.tell({ cause: 'answers' }));
  await answered(ask());
  expect(told).toEqual(['whole', 'whole']);
});
