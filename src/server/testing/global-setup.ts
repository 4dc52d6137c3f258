import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { TestProject } from 'vitest/node';
import { migrate } from '../platform/db/migrate';
import { openPglite } from '../platform/db/pglite-database';
import { migrationsFolder, seedFolder } from '../platform/package-root';
import { seedRules } from '../catalogue/seed';
import { openApplication } from '../wiring';

declare module 'vitest' {
  interface ProvidedContext {
    databaseDump: string;
    emptyArchive: string;
  }
}

/** Builds the workers that the tests run, and makes one migrated database and one empty archive that tests clone. */
export default async function setup(project: TestProject): Promise<() => void> {
  const { ensureNodeBuild } = (await import('../../../tools/prepare.mjs')) as { ensureNodeBuild: () => Promise<void> };
  await ensureNodeBuild();
  const folder = mkdtempSync(join(tmpdir(), 'sediment-dump-'));
  const database = await openPglite({ dump: null });
  await migrate(database, migrationsFolder);
  await seedRules(database, seedFolder, true);
  const path = join(folder, 'database.tar');
  writeFileSync(path, Buffer.from(await (await database.pglite.dumpDataDir('none')).arrayBuffer()));
  await database.close();
  project.provide('databaseDump', path);
  const archive = join(folder, 'archive');
  mkdirSync(archive);
  await (await openApplication({ folder: archive })).close();
  project.provide('emptyArchive', archive);
  return () => rmSync(folder, { recursive: true, force: true });
}
