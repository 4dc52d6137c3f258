// npm test: everything that has to hold, on a fresh checkout. Ends with one line that counts the tests.
// npm run test:changed: the checks, and the tests that a change asks for at once (against HEAD, or a commit that is named).
// npm run test:deep: what takes long: simulations as large as their bounds need, processes that are killed, journeys
// through the demo.
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, relative } from 'node:path';
import { ensureBrowser } from './browser.mjs';
import { changedFiles, quickTests, readInRoot, testsOf } from './changed.mjs';
import { ensureNodeBuild, ensurePackages, ensureWebBuild, root } from './prepare.mjs';

const mode = process.argv[2] ?? 'all';
ensurePackages();
if (mode !== 'changed') ensureBrowser();

const reports = mkdtempSync(join(tmpdir(), 'sediment-report-'));
// What did not change since the last run is not looked at again; on a clean checkout there is nothing kept.
const cache = join(root, 'node_modules', '.cache', 'sediment-checks');
mkdirSync(cache, { recursive: true });
const bin = (name, file) => [process.execPath, join(root, 'node_modules', name, file)];
const tsc = (project) => [
  ...bin('typescript', 'bin/tsc'),
  ...['-p', `tsconfig.${project}.json`, '--noEmit', '--incremental'],
  ...['--tsBuildInfoFile', join(cache, `${project}.tsbuildinfo`)],
];
const vitest = (name, args) => [
  ...bin('vitest', 'vitest.mjs'),
  'run',
  '--reporter=default',
  '--reporter=json',
  `--outputFile.json=${join(reports, `${name}.json`)}`,
  ...args,
];
const eslint = (...files) => [
  ...bin('eslint', 'bin/eslint.js'),
  ...['--max-warnings', '0', '--cache', '--cache-strategy', 'content', '--cache-location', join(cache, 'eslint')],
  ...['--no-warn-ignored', ...files],
];
const prettier = (...files) => [
  ...bin('prettier', 'bin/prettier.cjs'),
  ...['--cache', '--cache-strategy', 'content', '--cache-location', join(cache, 'prettier')],
  ...['--check', '--ignore-unknown', ...files],
];

const types = [
  ['types: core', tsc('core')],
  ['types: server', tsc('node')],
  ['types: page', tsc('web')],
  ['types: page tests', tsc('web-test')],
  ['types: web workers', tsc('web-worker')],
  ['types: reader', tsc('reader')],
];
const structure = [
  [
    'layer rules',
    [...bin('dependency-cruiser', 'bin/dependency-cruise.mjs'), 'src', '--config', '.dependency-cruiser.cjs'],
  ],
  ['dead code', bin('knip', 'bin/knip.js')],
];

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
      if (code !== 0) process.stdout.write(`${failures(name) ?? output}\n`);
      resolve({ name, ok: code === 0 });
    });
  });
}

async function runLane(stages) {
  const results = [];
  for (const stage of stages) results.push(await runStage(stage));
  return results;
}

const reportOf = (name) => {
  const file = join(reports, `${name}.json`);
  return existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : null;
};

/** What failed and why, without what passed: a log that is cut in the middle still says it. */
function failures(name) {
  const report = reportOf(name);
  if (!report) return null;
  const texts = report.testResults.flatMap((file) => [
    ...(file.status === 'failed' && file.assertionResults.every((t) => t.status !== 'failed')
      ? [`FAILED ${relative(root, file.name)}\n${file.message}`]
      : []),
    ...file.assertionResults
      .filter((test) => test.status === 'failed')
      .map((test) => `FAILED ${relative(root, file.name)} > ${test.fullName}\n${test.failureMessages.join('\n')}`),
  ]);
  return texts.length > 0 ? texts.join('\n\n') : null;
}

/** One lane for each core; each takes what comes next, the long things first, so that none of them waits for the other. */
async function all() {
  await ensureNodeBuild();
  // The page is checked as it is built.
  const checked = types.filter(([name]) => name !== 'types: page');
  const first = [
    ['unit tests', vitest('unit tests', ['--project', 'unit'])],
    ['lint', eslint('.')],
    ...checked,
    ...structure,
    ['formatting', prettier('.')],
  ];
  const queue = [
    ...first.map((stage) => () => runStage(stage)),
    async () => {
      await ensureWebBuild();
      return runStage(['journeys', vitest('journeys', ['--project', 'journeys'])]);
    },
    // They wait for threads and disks between their questions.
    () => runStage(['server tests', vitest('server tests', ['--project', 'server', '--maxWorkers', '3'])]),
    () => runStage(['page tests', vitest('page tests', ['--project', 'web'])]),
  ];
  const results = [];
  const lane = async () => {
    for (let next = queue.shift(); next; next = queue.shift()) results.push(await next());
  };
  await Promise.all([lane(), lane()]);
  return results;
}

async function changed(base) {
  const files = changedFiles(base);
  const tests = testsOf(files, quickTests(), readInRoot);
  process.stdout.write(`${files.length} files changed; tests: ${tests.join(', ') || 'none'}\n`);
  const code = files.filter((file) => file.endsWith('.ts'));
  const results = await Promise.all([
    runLane([...types, ...structure, ['formatting', prettier(...(files.length > 0 ? files : ['package.json']))]]),
    runLane([
      ...(tests.length > 0
        ? [['tests', vitest('tests', ['--project=unit', '--project=web', '--project=server', ...tests])]]
        : []),
      ...(code.length > 0 ? [['lint', eslint(...code)]] : []),
    ]),
  ]);
  return results.flat();
}

/** Journeys wait for states, so that they may run beside the rest. */
async function deep() {
  await ensureNodeBuild();
  await ensureWebBuild();
  const lanes = [
    runLane([['deep journeys', vitest('deep journeys', ['--project', 'deep-journeys'])]]),
    runLane([
      ['deep tests', vitest('deep tests', ['--project', 'deep'])],
      ['deep server tests', vitest('deep server tests', ['--project', 'deep-server'])],
    ]),
  ];
  return (await Promise.all(lanes)).flat();
}

const results = await (mode === 'deep' ? deep() : mode === 'changed' ? changed(process.argv[3]) : all());

const count = { passed: 0, failed: 0 };
const slow = [];
for (const { name } of results) {
  const report = reportOf(name);
  if (!report) continue;
  count.passed += report.numPassedTests;
  count.failed += report.numFailedTests;
  for (const file of report.testResults)
    for (const test of file.assertionResults) slow.push([test.duration ?? 0, relative(root, file.name), test.title]);
}
rmSync(reports, { recursive: true });
slow.sort((a, b) => b[0] - a[0]);
if (slow.length > 10) process.stdout.write('slowest:\n');
for (const [ms, file, title] of slow.length > 10 ? slow.slice(0, 10) : [])
  process.stdout.write(`  ${(ms / 1000).toFixed(1).padStart(6)} s  ${file} > ${title}\n`);
const failed = results.filter((r) => !r.ok).map((r) => r.name);
const verdict = failed.length === 0 ? 'all well' : `FAILED: ${failed.join(', ')}`;
process.stdout.write(
  `sediment: ${count.passed} tests passed, ${count.failed} failed; ${results.length} stages, ${verdict}\n`,
);
process.exit(failed.length === 0 ? 0 : 1);
