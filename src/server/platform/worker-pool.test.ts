import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, it, onTestFinished } from 'vitest';
import { encodeWav } from '#core/audio/wav-write';
import { lcgNoise } from '#core/testing/signals';
import { noneTaken } from '#worker/taken-count';
import type { RankUnitsTask } from '#worker/tasks/rank-units';
import { temporaryFolder } from '../testing/application';
import { workerFolder } from './package-root';
import { openRememberingThread, openWorkerPool, type WorkerPool } from './worker-pool';

/** A task that ends its thread, or says how often this thread was asked. */
const TASK = `let asked = 0;
export default ({ key }) => {
  if (key === 'die') process.exit(3);
  return ++asked;
};
`;

function thread(open: (folder: string) => WorkerPool = openRememberingThread) {
  const folder = temporaryFolder();
  writeFileSync(join(folder, 'package.json'), '{ "type": "module" }');
  for (const name of ['inspect-clip', 'rank-units']) writeFileSync(join(folder, `${name}.js`), TASK);
  const pool = open(folder);
  onTestFinished(() => pool.close());
  const task = (key: string) => pool.run('rank-units', { key } as RankUnitsTask) as Promise<unknown>;
  return task;
}

it('a thread remembers from one task to the next', async () => {
  const task = thread();
  expect([await task('a'), await task('b'), await task('c')]).toEqual([1, 2, 3]);
  expect(await Promise.all([task('d'), task('e')])).toEqual([4, 5]);
});

it('what waits behind a thread that dies is done by the next one', async () => {
  const task = thread();
  await task('a');
  const [dead, next] = await Promise.allSettled([task('die'), task('b')]);
  expect(dead.status).toBe('rejected');
  expect(next).toEqual({ status: 'fulfilled', value: 1 });
});

it('what waits behind several threads that die together is done by the next ones', async () => {
  // One thread for measuring, and the one that is kept for questions.
  const task = thread((folder) => openWorkerPool(folder, 1));
  await Promise.all([task('a'), task('b')]);
  const outcomes = await Promise.allSettled([task('die'), task('die'), task('c'), task('d')]);
  expect(outcomes.map((o) => o.status)).toEqual(['rejected', 'rejected', 'fulfilled', 'fulfilled']);
});

it('says so where no thread can be started, and works again once one can', async () => {
  const folder = temporaryFolder();
  writeFileSync(join(folder, 'package.json'), '{ "type": "module" }');
  // The file that every thread begins with is broken: as where files are replaced under a running server.
  writeFileSync(join(folder, 'inspect-clip.js'), 'import "./part-that-is-gone.js";');
  writeFileSync(join(folder, 'rank-units.js'), TASK);
  const pool = openRememberingThread(folder);
  onTestFinished(() => pool.close());
  const task = () => pool.run('rank-units', { key: 'a' } as RankUnitsTask) as Promise<unknown>;
  const outcomes = await Promise.allSettled([task(), task()]);
  for (const outcome of outcomes) {
    expect(outcome.status).toBe('rejected');
    if (outcome.status === 'rejected') expect(outcome.reason).toMatchObject({ code: 'no-thread', message: expect.stringMatching(/rank-units.*part-that-is-gone/) as string }); // prettier-ignore
  }
  writeFileSync(join(folder, 'inspect-clip.js'), TASK);
  expect(await task()).toBe(1);
});

it('measures a clip that threads share as one thread does, and tells how far it is', async () => {
  const path = join(temporaryFolder(), 'take.wav');
  const [left, right] = ['left', 'right'].map((seed) => lcgNoise(130 * 8000, 0.1, seed.length));
  writeFileSync(path, encodeWav([left, right], 8000, 'pcm24'));
  const pool = openWorkerPool(workerFolder, 3, { bytesPerThread: 1000, longFrom: 1 });
  onTestFinished(() => pool.close());
  const told: number[] = [];
  const segments = { speech: [{ startS: 0.5, endS: 1.5 }], silence: [{ startS: 2, endS: 3.5 }], events: [] };
  const part = { startS: 1, endS: 2 };
  const alone = await pool.run('analyse-clip', {
    path,
    progress: null,
    segments,
    part,
    shared: { taken: noneTaken(), longFrom: 1 },
  });
  // More often than there are threads: a helper that did not go would keep its own.
  for (let i = 0; i < 3; i++) {
    const shared = await pool.analyse(path, (share) => told.push(share), segments, { part });
    expect(shared).toEqual(alone);
  }
  expect(told.length).toBeGreaterThan(0);
  // What cannot be read is refused by either thread; the pool goes on.
  writeFileSync(path, Buffer.alloc(5000));
  await expect(pool.analyse(path, () => undefined)).rejects.toMatchObject({ code: 'other-format' });
});
