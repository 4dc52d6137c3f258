// Bundles the server, its worker tasks and the command line into dist/node. Packages stay outside.
import { readdirSync, rmSync } from 'node:fs';
import { basename, join } from 'node:path';
import { build } from 'esbuild';

const root = join(import.meta.dirname, '..');
const tasks = readdirSync(join(root, 'src/worker/tasks')).filter((f) => f.endsWith('.ts') && !f.endsWith('.test.ts'));

export async function buildNode() {
  rmSync(join(root, 'dist/node'), { recursive: true, force: true });
  const options = {
    absWorkingDir: root,
    bundle: true,
    platform: 'node',
    target: 'node20',
    format: 'esm',
    packages: 'external',
    sourcemap: true,
    logLevel: 'error',
    jsx: 'automatic',
    jsxImportSource: 'preact',
  };
  await build({
    ...options,
    entryPoints: { main: 'src/server/main.ts', cli: 'src/cli/main.ts', demo: 'demo/build-demo.ts' },
    outdir: 'dist/node',
    // What a command does not need is not even read.
    splitting: true,
    chunkNames: 'part-[hash]',
  });
  await build({
    ...options,
    entryPoints: {
      thread: 'src/worker/thread.ts',
      ...Object.fromEntries(tasks.map((f) => [basename(f, '.ts'), `src/worker/tasks/${f}`])),
    },
    outdir: 'dist/node/worker',
  });
  // The scripts of published pages: each whole, for any browser of today, and small.
  await build({
    absWorkingDir: root,
    bundle: true,
    minify: true,
    format: 'iife',
    target: 'es2022',
    logLevel: 'error',
    entryPoints: { reader: 'src/reader/reader.ts', pack: 'src/reader/pack.ts', search: 'src/reader/search.ts' },
    outdir: 'dist/node/press',
  });
}
