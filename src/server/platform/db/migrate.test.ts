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

it('claims become entries of the sheet, and what was an instrument source becomes a microphone', async () => {
  const folder = temporaryFolder();
  const files = readdirSync(migrationsFolder);
  const [sheets] = files.filter((name) => name.endsWith('_sheets.sql'));
  for (const name of files.filter((f) => f < sheets)) copyFileSync(join(migrationsFolder, name), join(folder, name));
  const database = await openPglite({ dump: null });
  await migrate(database, folder);
  await database.query(
    `INSERT INTO model (maker, name, category) VALUES
       ('Oarlock', 'Tally', 'interface'), ('Oarlock', 'Fife', 'microphone'), ('Oarlock', 'Fife', 'instrument-source'),
       ('Oarlock', 'Drum', 'instrument-source')`,
  );
  await database.query(
    `INSERT INTO specimen (model_id, label) VALUES (1, 'A'), (2, 'A'), (3, 'A'), (3, 'B'), (4, 'A')`,
  );
  await database.query(
    `INSERT INTO claim (specimen_id, quantity, value, unit, condition, effective_on) VALUES
       (1, 'einA', -128, 'dBu(A)', '150 Ω', '2026-01-01'), (1, 'einZ', -125, 'dBu', '', '2026-01-02'),
       (2, 'selfNoise', 14, 'dB SPL (A)', 'A-weighted', '2026-01-03')`,
  );
  copyFileSync(join(migrationsFolder, sheets), join(folder, sheets));
  await migrate(database, folder);
  expect(await database.query(`SELECT specimen_id, field, value, effective_on AS day FROM sheet_entry ORDER BY id`)).toEqual([
    { specimen_id: '1', field: 'einA', value: { type: 'number', value: -128, unit: 'dBu', condition: 'A-weighted, 150 Ω' }, day: '2026-01-01' },
    { specimen_id: '1', field: 'einZ', value: { type: 'number', value: -125, unit: 'dBu', condition: '' }, day: '2026-01-02' },
    { specimen_id: '2', field: 'selfNoise', value: { type: 'number', value: 14, unit: 'dB SPL', condition: 'A-weighted' }, day: '2026-01-03' },
  ]); // prettier-ignore
  expect(await database.query(`SELECT id, name, category FROM unit ORDER BY id`)).toEqual([
    { id: '1', name: 'Oarlock Tally · A', category: 'interface' },
    { id: '2', name: 'Oarlock Fife · A', category: 'microphone' },
    // Two units of one name are two units.
    { id: '3', name: 'Oarlock Fife · A (instrument)', category: 'microphone' },
    { id: '4', name: 'Oarlock Fife · B', category: 'microphone' },
    { id: '5', name: 'Oarlock Drum · A', category: 'microphone' },
  ]);
  await database.close();
});
