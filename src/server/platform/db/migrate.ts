import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { StartRefused } from '../start-refused';
import type { Database } from './database';

/**
 * Brings the schema up to date: every file 0001_name.sql of the folder that has not been run yet, in order, each in
 * its own transaction. Files are append-only: a file that was run and has changed since is refused.
 *
 * @param database - where
 * @param folder - the migrations
 * @returns names of the files that were run now
 * @throws {@link StartRefused} for a schema of a later version, and for a file that has changed
 */
export async function migrate(database: Database, folder: string): Promise<string[]> {
  await database.script(
    'CREATE TABLE IF NOT EXISTS schema_migration (name text PRIMARY KEY, body text NOT NULL, run_at timestamptz NOT NULL DEFAULT now())',
  );
  const done = new Map(
    (await database.query<{ name: string; body: string }>('SELECT name, body FROM schema_migration')).map((r) => [
      r.name,
      r.body,
    ]),
  );
  const files = (await readdir(folder)).filter((name) => /^\d{4}_\w+\.sql$/.test(name)).sort();
  const unknown = [...done.keys()].filter((name) => !files.includes(name));
  if (unknown.length > 0)
    throw new StartRefused(
      `This archive was written by a newer Sediment (it knows ${unknown.join(', ')}). Nothing was changed. Start it with that version or a later one.`,
    );
  const ran: string[] = [];
  for (const name of files) {
    // A checkout may have put other line ends into them: that changes nothing.
    const body = withUnixLines(await readFile(join(folder, name), 'utf8'));
    const before = done.get(name);
    if (before !== undefined && withUnixLines(before) === body) continue;
    if (before !== undefined)
      throw new StartRefused(`Migration ${name} was run before and has changed since; add a new file instead.`);
    await database.transaction(async (tx) => {
      await tx.script(body);
      await tx.query('INSERT INTO schema_migration (name, body) VALUES ($1, $2)', [name, body]);
    });
    ran.push(name);
  }
  return ran;
}

const withUnixLines = (text: string): string => text.replaceAll('\r\n', '\n');
