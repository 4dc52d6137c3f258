import { copyFileSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, it } from 'vitest';
import { migrationsFolder } from '../package-root';
import { temporaryFolder } from '../../testing/bench';
import { migrate } from './migrate';
import { openPglite } from './pglite-database';

it('runs each migration once, a failing one not at all, and refuses one that has changed', async () => {
  const folder = temporaryFolder();
  const files = readdirSync(migrationsFolder);
  for (const name of files) copyFileSync(join(migrationsFolder, name), join(folder, name));
  const database = await openPglite({ dump: null });
  expect(await migrate(database, folder)).toEqual(files);
  expect(await migrate(database, folder)).toEqual([]);

  writeFileSync(join(folder, '9998_bad.sql'), 'CREATE TABLE half (id int); CREATE TABLE clip (id int);');
  await expect(migrate(database, folder)).rejects.toThrow(/already exists/);
  expect(await database.query(`SELECT 1 FROM information_schema.tables WHERE table_name = 'half'`)).toEqual([]);

  writeFileSync(join(folder, '9998_bad.sql'), '-- mended\nCREATE TABLE whole (id int);');
  expect(await migrate(database, folder)).toEqual(['9998_bad.sql']);
  writeFileSync(join(folder, '9998_bad.sql'), 'CREATE TABLE other (id int);');
  await expect(migrate(database, folder)).rejects.toThrow(/9998_bad.sql was run before and has changed/);
  await database.close();
});
