import { copyFileSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, it } from 'vitest';
import { migrationsFolder } from '../package-root';
import { temporaryFolder } from '../../testing/application';
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
  writeFileSync(join(folder, '9998_bad.sql'), '-- mended\r\nCREATE TABLE whole (id int);');
  expect(await migrate(database, folder)).toEqual([]);

  // A checkout with other line ends, dashes and semicolons in texts, functions between dollars.
  for (const name of files)
    writeFileSync(join(folder, name), readFileSync(join(folder, name), 'utf8').replaceAll('\n', '\r\n'));
  writeFileSync(
    join(folder, '9999_texts.sql'),
    [
      "CREATE TABLE said (what text DEFAULT 'a -- b; c');",
      'CREATE FUNCTION twice(n int) RETURNS int LANGUAGE plpgsql AS $$ BEGIN RETURN 2 * n; END; $$;',
      'INSERT INTO said DEFAULT VALUES;',
    ].join('\r\n'),
  );
  expect(await migrate(database, folder)).toEqual(['9999_texts.sql']);
  expect(await database.query('SELECT what, twice(21) AS n FROM said')).toEqual([{ what: 'a -- b; c', n: 42 }]);
  await database.close();
});
