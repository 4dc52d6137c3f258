import { existsSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

/** The folder of package.json, found upwards from this file: it is the same from source and from the bundle. */
export const packageRoot = ((): string => {
  let folder = dirname(fileURLToPath(import.meta.url));
  while (!existsSync(join(folder, 'package.json'))) folder = dirname(folder);
  return folder;
})();

export const packageVersion = (
  JSON.parse(readFileSync(join(packageRoot, 'package.json'), 'utf8')) as { version: string }
).version;
export const migrationsFolder = join(packageRoot, 'src/server/platform/db/migrations');
export const seedFolder = join(packageRoot, 'src/server/seed');
export const workerFolder = join(packageRoot, 'dist/node/worker');
/** What fills an archive with the demo. */
export const demoBundle = join(packageRoot, 'dist/node/demo.js');
/** The scripts of published pages. */
export const readerScript = join(packageRoot, 'dist/node/press/reader.js');
export const packScript = join(packageRoot, 'dist/node/press/pack.js');
export const searchScript = join(packageRoot, 'dist/node/press/search.js');
export const webFolder = join(packageRoot, 'dist/web');

/** Dry voices for the simulated bench. */
export const speechFolder = join(packageRoot, 'demo', 'speech');
