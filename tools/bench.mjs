// npm run bench: speed and memory, as ratios against reference programs in the same run.
// npm run bench server: cost of an acknowledged fact, and how long others wait while somebody asks for much.
// npm run bench publish [reviews]: a site of many reviews, the first time, again, and with one new edition.
// npm run coverage: how often each ± holds a truth that is known; writes docs/coverage.md.
// npm run crosscheck: agreement with them, per quantity. Neither installs a reference.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { ensureNodeBuild, ensurePackages, root } from './prepare.mjs';

ensurePackages();
await ensureNodeBuild();
const { build } = await import('esbuild');
const name = ['crosscheck', 'server', 'coverage', 'publish'].includes(process.argv[2]) ? process.argv[2] : 'measure';
const outfile = join(root, `dist/node/${name}.js`);
await build({
  absWorkingDir: root,
  entryPoints: [`bench/${name}.ts`],
  bundle: true,
  platform: 'node',
  target: 'node20',
  format: 'esm',
  packages: 'external',
  outfile,
  logLevel: 'error',
  jsx: 'automatic',
  jsxImportSource: 'preact',
});
const parts = name === 'measure' ? process.argv.slice(2) : process.argv.slice(3);
process.exit(spawnSync(process.execPath, [outfile, ...parts], { stdio: 'inherit' }).status ?? 1);
