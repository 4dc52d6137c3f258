import { expect, inject, it } from 'vitest';
import { databaseClone } from '../../testing/database-clones';
import { isOutdated, TableStatistics } from './table-statistics';
import { knownStatistics, renewStatistics } from './renew-statistics';

it('are renewed after fifty rows and a tenth of all', () => {
  expect([50, 51].map((n) => isOutdated(n, null))).toEqual([false, true]);
  expect([1050, 1051].map((n) => isOutdated(n, 10_000))).toEqual([false, true]);
});

it('wait for a pause between writes, and then are renewed once', async () => {
  let renewed = 0;
  const statistics = new TableStatistics({
    known: () => Promise.resolve(null),
    renew: () => Promise.resolve(++renewed * 1000),
    report: (error) => {
      throw error;
    },
    quietMs: 30,
  });
  await statistics.start();
  for (let i = 0; i < 20; i++) statistics.note(100);
  expect(renewed).toBe(1);
  await expect.poll(() => renewed).toBe(2);
  // 2000 rows now: two hundred more are not many.
  statistics.note(200);
  await statistics.close();
  statistics.note(9999);
  expect(renewed).toBe(2);
});

it('that are known at the start are not renewed', async () => {
  const statistics = new TableStatistics({
    known: () => Promise.resolve(1000),
    renew: () => Promise.reject(new Error('renewed')),
    report: (error) => {
      throw error;
    },
    quietMs: 0,
  });
  await statistics.start();
  statistics.note(150);
  await statistics.close();
});

it('go on where a renewal failed, and say so', async () => {
  const told: unknown[] = [];
  const statistics = new TableStatistics({
    known: () => Promise.resolve(null),
    renew: () => Promise.reject(new Error('no room')),
    report: (error) => told.push(error),
  });
  await statistics.start();
  await statistics.close();
  expect(told).toEqual([new Error('no room')]);
});

it('tell the planner how many rows there are, and take dead ones away', async () => {
  const database = await databaseClone(inject('databaseDump'));
  const known = async (): Promise<number> =>
    (await database.query<{ n: number }>("SELECT reltuples::int AS n FROM pg_class WHERE relname = 'model'"))[0].n;
  await database.query(
    "INSERT INTO model (maker, name, category) SELECT 'Oarlock', 'Model ' || i, 'microphone' FROM generate_series(1, 700) i",
  );
  expect(await renewStatistics(database)).toBeGreaterThanOrEqual(700);
  expect(await known()).toBe(700);
  const told = (await knownStatistics(database)).rows;
  expect(told).toBeGreaterThanOrEqual(700);
  await database.query(
    "INSERT INTO model (maker, name, category) SELECT 'Marlfen', 'Model ' || i, 'microphone' FROM generate_series(1, 700) i",
  );
  // Grown by more than a tenth: as if it had never been told.
  expect((await knownStatistics(database)).rows).toBeNull();
  await database.query('DELETE FROM model');
  await renewStatistics(database);
  expect(await known()).toBe(0);
  await database.close();
});
