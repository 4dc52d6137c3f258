// npm run bench: speed and memory, as ratios against reference programs in the same run.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { ensureNodeBuild, ensurePackages, root } from './prepare.mjs';

ensurePackages();
await ensureNodeBuild();
const { build } = await import('esbuild');
const outfile = join(root, 'dist/node/bench.js');
await build({
  absWorkingDir: root,
  entryPoints: ['bench/measure.ts'],
  bundle: true,
  platform: 'node',
  target: 'node20',
  format: 'esm',
  packages: 'external',
  outfile,
  logLevel: 'error',
});
process.exit(spawnSync(process.execPath, [outfile], { stdio: 'inherit' }).status ?? 1);
