import { cpSync, existsSync, mkdirSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { expect, it } from 'vitest';
import { seededBits, uniform } from '#core/stats/random';
import { openDiskReserve, RESERVE_BYTES } from '../archive/disk-reserve';
import { asFailure } from '../as-failure';
import { emptyArchive, temporaryFolder } from '../../testing/application';
import { canMount, smallDisk } from '../../testing/small-disk';
import type { Database } from './database';
import { openPglite } from './pglite-database';

/**
 * A disk that a power cut may take at any moment: beside the cluster lies a copy that holds, of each file, what was
 * flushed last. A cut leaves that copy, with some of the later bytes of some files, as a real disk does.
 */
function cuttableFolder(): { folder: string; onFlush: (path: string) => void; cut: (seed: string) => string } {
  const root = emptyArchive();
  const folder = join(root, 'database');
  const onDisk = join(root, 'on-disk');
  const copy = (from: string, to: string): void => {
    if (!existsSync(from) || statSync(from).isDirectory()) return;
    mkdirSync(dirname(to), { recursive: true });
    cpSync(from, to);
  };
  return {
    folder,
    onFlush: (path) => {
      const own = path.replace(/^\/pglite\/data\/?/, '');
      copy(join(folder, own), join(onDisk, own));
    },
    cut: (seed) => {
      const left = join(root, `left-${seed}`);
      cpSync(onDisk, left, { recursive: true });
      const bits = seededBits(seed);
      for (const entry of readdirSync(folder, { recursive: true, withFileTypes: true })) {
        const own = join(entry.parentPath, entry.name).slice(folder.length + 1);
        if (entry.isDirectory()) mkdirSync(join(left, own), { recursive: true });
        // The system may have written any file by itself; the log is cut where it was flushed.
        else if (!own.startsWith('pg_wal') && uniform(bits) < 0.5) copy(join(folder, own), join(left, own));
      }
      return left;
    },
  };
}

const rows = async (database: Database): Promise<number[]> =>
  (await database.query<{ n: number }>('SELECT n FROM fact ORDER BY n')).map((r) => r.n);

it('starts with fsync on, flushes once per commit, and shares a flush between commits that wait together', async () => {
  let flushes = 0;
  const folder = join(emptyArchive(), 'database');
  const database = await openPglite({ folder, onFlush: () => flushes++, quietMs: 600_000 });
  expect(await database.query('SHOW fsync')).toEqual([{ fsync: 'on' }]);
  expect(await database.query('SHOW wal_sync_method')).toEqual([{ wal_sync_method: 'fsync' }]);
  expect(await database.query('SHOW full_page_writes')).toEqual([{ full_page_writes: 'on' }]);
  expect(await database.query('SHOW data_checksums')).toEqual([{ data_checksums: 'on' }]);
  await database.script('CREATE TABLE fact (n int)');
  flushes = 0;
  for (let n = 0; n < 50; n++) await database.query('INSERT INTO fact VALUES ($1)', [n]);
  expect(flushes).toBe(50);
  flushes = 0;
  for (let n = 0; n < 20; n++) await database.query('SELECT count(*) FROM fact');
  expect(flushes).toBe(0);
  await Promise.all(Array.from({ length: 50 }, (_, n) => database.query('INSERT INTO fact VALUES ($1)', [50 + n])));
  expect(flushes).toBeGreaterThanOrEqual(1);
  expect(flushes).toBeLessThan(10);
  await database.close();
});

it('keeps every acknowledged fact over power cuts, and none of a transaction that was not', async () => {
  const disk = cuttableFolder();
  const database = await openPglite({ folder: disk.folder, onFlush: disk.onFlush });
  // A new cluster was flushed whole before it took its place.
  cpSync(disk.folder, join(disk.folder, '..', 'on-disk'), { recursive: true });
  await database.script('CREATE TABLE fact (n int); CREATE TABLE other (n int)');
  const acknowledged: number[] = [];
  for (let cut = 0; cut < 4; cut++) {
    const begun = Array.from({ length: 8 }, (_, i) => {
      const n = cut * 8 + i;
      const insert =
        i % 2 === 0
          ? database.query('INSERT INTO fact VALUES ($1)', [n])
          : database.transaction(async (tx) => {
              await tx.query('INSERT INTO fact VALUES ($1)', [n]);
              await tx.query('INSERT INTO other VALUES ($1)', [n]);
            });
      return insert.then(() => acknowledged.push(n));
    });
    await Promise.all(begun);
    const open = database.transaction(async (tx) => {
      await tx.query('INSERT INTO fact VALUES (-1)');
      const left = disk.cut(`cut ${cut}`);
      const after = await openPglite({ folder: left });
      const found = await rows(after);
      expect(found).toEqual([...acknowledged].sort((a, b) => a - b));
      expect(await after.query('SELECT n FROM other ORDER BY n')).toEqual(
        found.filter((n) => n % 2 === 1).map((n) => ({ n })),
      );
      await after.close();
      throw new Error('not committed');
    });
    await expect(open).rejects.toThrow('not committed');
    if (cut === 1) await database.query('CHECKPOINT');
  }
  await database.close();
});

it.runIf(canMount)(
  'a disk that fills up in the middle of work costs that work, and neither hangs nor breaks the database',
  async () => {
    const disk = smallDisk(190);
    cpSync(emptyArchive(), disk.folder, { recursive: true });
    const reserve = openDiskReserve(disk.folder);
    const database = await openPglite({
      folder: join(disk.folder, 'database'),
      onFull: () => reserve.release(),
      hasRoom: () => reserve.hasRoom(),
    });
    await database.script('CREATE TABLE fact (n int, body text); CREATE TABLE kept (n int)');
    await database.query('INSERT INTO kept VALUES (1)');
    // Room to begin, and not enough for the log of what follows.
    disk.fill(17 * 2 ** 20);
    const bits = seededBits('bodies');
    const body = (): string => Array.from({ length: 2000 }, () => uniform(bits).toString(36).slice(2)).join('');
    let refused: unknown = null;
    for (let n = 0; n < 3000 && refused === null; n++)
      await database
        .query('INSERT INTO fact VALUES ($1, $2)', [n, body()])
        .catch((error: unknown) => (refused = error));
    expect(asFailure(refused).code).toBe('storage-full');
    // Rows are taken away and written again: that needs log, but no room in the tables.
    await expect(
      database.transaction(async (tx) => {
        for (let n = 0; n < 1500; n++) await tx.query('UPDATE fact SET body = $1 WHERE n = $2', [body(), n % 40]);
      }),
    ).rejects.toThrow();
    expect(await database.query('SELECT n FROM kept')).toEqual([{ n: 1 }]);
    disk.free();
    await database.query('INSERT INTO kept VALUES (2)');
    expect(await database.query('SELECT n FROM kept ORDER BY n')).toEqual([{ n: 1 }, { n: 2 }]);
    await database.close();
  },
);

it('gives its reserve up when the log cannot be written, and takes it again when there is room', () => {
  const folder = temporaryFolder();
  const reserve = openDiskReserve(folder);
  expect(statSync(join(folder, 'disk-reserve')).size).toBe(RESERVE_BYTES);
  expect(reserve.hasRoom()).toBe(true);
  expect(reserve.release()).toBe(true);
  expect(reserve.release()).toBe(false);
  expect(existsSync(join(folder, 'disk-reserve'))).toBe(false);
  expect(reserve.hasRoom()).toBe(true);
  expect(statSync(join(folder, 'disk-reserve')).size).toBe(RESERVE_BYTES);
});

it('starts beside what a cut has left of a process', async () => {
  const folder = join(emptyArchive(), 'database');
  writeFileSync(join(folder, 'postmaster.pid'), '');
  await (await openPglite({ folder })).close();
});
