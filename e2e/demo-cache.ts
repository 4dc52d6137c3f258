import { createHash } from 'node:crypto';
import { cpSync, existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { packageRoot } from '#server/platform/package-root';

// Rendering the demo takes minutes and depends on nothing but the sources that make it, and on the day. It is done
// once for each state of them, and kept where packages are kept.

const CACHE = join(packageRoot, 'node_modules', '.cache', 'sediment-demo');
const SOURCES = ['src/core', 'src/contracts', 'src/domain', 'src/rig', 'src/worker', 'src/server', 'demo'];

/** Names the demo that these sources make today: sessions that are ahead are planned from now. */
function demoKey(): string {
  const hash = createHash('sha256').update(new Date().toISOString().slice(0, 10));
  for (const source of SOURCES) {
    for (const name of readdirSync(join(packageRoot, source), { recursive: true }).map(String).sort()) {
      if (!/\.(ts|sql|json|flac)$/.test(name) || /\.test\.ts$|testing\//.test(name)) continue;
      hash.update(name).update(readFileSync(join(packageRoot, source, name)));
    }
  }
  return hash.digest('hex').slice(0, 24);
}

export const hasKeptDemo = (): boolean => existsSync(join(CACHE, demoKey()));

/** Puts the rendered demo into a folder. */
export const takeKeptDemo = (folder: string): void => cpSync(join(CACHE, demoKey()), folder, { recursive: true });

/** Keeps a folder whose server has nothing to write: what it then holds is what a power cut would leave. */
export function keepDemo(folder: string): void {
  const half = join(CACHE, `half-${process.pid}`);
  mkdirSync(CACHE, { recursive: true });
  // The server says every few seconds that it lives, by way of a file that is gone again before it can be copied.
  cpSync(folder, half, { recursive: true, filter: (path) => !/in-use\.json|postmaster\.pid$/.test(path) });
  for (const name of readdirSync(CACHE)) if (!name.startsWith('half-')) rmSync(join(CACHE, name), { recursive: true });
  renameSync(half, join(CACHE, demoKey()));
}
