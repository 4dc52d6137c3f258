// npm test: everything that has to hold, on a fresh checkout. Ends with one line that counts the tests.
import { spawn } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ensureBrowser } from './browser.mjs';
import { ensureNodeBuild, ensurePackages, ensureWebBuild, root } from './prepare.mjs';

ensurePackages();
ensureBrowser();

const reports = mkdtempSync(join(tmpdir(), 'sediment-report-'));
const bin = (name, file) => [process.execPath, join(root, 'node_modules', name, file)];
const tsc = (project) => [...bin('typescript', 'bin/tsc'), '-p', `tsconfig.${project}.json`];
const vitest = (project) => [
  ...bin('vitest', 'vitest.mjs'),
  'run',
  '--project',
  project,
  '--reporter=default',
  '--reporter=json',
  `--outputFile.json=${join(reports, `${project}.json`)}`,
];

/** What is run, and what must not run beside it is in the same lane. */
const lanes = [
  [
    ['types: core', tsc('core')],
    ['types: server', tsc('node')],
    ['types: page', tsc('web')],
    ['types: page tests', tsc('web-test')],
    ['types: web workers', tsc('web-worker')],
    [
      'layer rules',
      [...bin('dependency-cruiser', 'bin/dependency-cruise.mjs'), 'src', '--config', '.dependency-cruiser.cjs'],
    ],
    ['dead code', bin('knip', 'bin/knip.js')],
    ['formatting', [...bin('prettier', 'bin/prettier.cjs'), '--check', '.']],
    ['lint', [...bin('eslint', 'bin/eslint.js'), '.']],
  ],
  [
    ['unit tests', vitest('unit')],
    ['page tests', vitest('web')],
    ['server tests', vitest('server')],
  ],
];
const last = [['journeys in Chromium', vitest('journeys')]];

function runStage([name, [command, ...args]]) {
  return new Promise((resolve) => {
    const started = Date.now();
    const child = spawn(command, args, { cwd: root, env: { ...process.env, FORCE_COLOR: '0', CI: '1' } });
    let output = '';
    child.stdout.on('data', (part) => (output += part));
    child.stderr.on('data', (part) => (output += part));
    child.on('close', (code) => {
      const seconds = ((Date.now() - started) / 1000).toFixed(0);
      process.stdout.write(`${code === 0 ? 'ok  ' : 'FAIL'} ${name} (${seconds} s)\n`);
      if (code !== 0) process.stdout.write(`${output}\n`);
      resolve({ name, ok: code === 0 });
    });
  });
}

async function runLane(stages) {
  const results = [];
  for (const stage of stages) results.push(await runStage(stage));
  return results;
}

await ensureNodeBuild();
const results = (await Promise.all(lanes.map(runLane))).flat();
await ensureWebBuild();
results.push(...(await runLane(last)));

const count = { passed: 0, failed: 0 };
for (const project of ['unit', 'web', 'server', 'journeys']) {
  const file = join(reports, `${project}.json`);
  if (!existsSync(file)) continue;
  const report = JSON.parse(readFileSync(file, 'utf8'));
  count.passed += report.numPassedTests;
  count.failed += report.numFailedTests;
}
rmSync(reports, { recursive: true });
const failed = results.filter((r) => !r.ok).map((r) => r.name);
const verdict = failed.length === 0 ? 'all well' : `FAILED: ${failed.join(', ')}`;
process.stdout.write(
  `sediment: ${count.passed} tests passed, ${count.failed} failed; ${results.length} stages, ${verdict}\n`,
);
process.exit(failed.length === 0 ? 0 : 1);
