// Makes a fresh checkout ready: packages as the lock file says, and builds that are no older than their sources.
// Uses nothing but Node, since it runs before any package is there. All messages go to stderr: the command line's
// standard output belongs to its results.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { join, relative } from 'node:path';

export const root = join(import.meta.dirname, '..');
const say = (text) => process.stderr.write(`${text}\n`);

function fail(text) {
  say(text);
  process.exit(1);
}

/** Runs a command with its output on stderr; ends the process with a message when it fails. */
export function run(command, args, what) {
  const result = spawnSync(command, args, { cwd: root, stdio: ['ignore', 2, 2] });
  if (result.status !== 0) fail(`${what} failed (${command} ${args.join(' ')}).`);
}

function checkNode() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19))
    fail(`Sediment needs Node 20.19 or newer; this is ${process.versions.node}.`);
}

/** Of texts in their order. Loading cryptography takes a tenth of a short command's time, and is seldom needed. */
function hashOf(texts) {
  const hash = process.getBuiltinModule('node:crypto').createHash('sha256');
  for (const text of texts) hash.update(text);
  return hash.digest('hex');
}

/** When each was last touched, sizes and names: files that look the same need not be read. */
const lookOf = (paths) =>
  paths.map((path) => {
    const { size, ctimeMs } = statSync(path);
    return `${ctimeMs} ${size} ${path}`;
  });

/** Whether all that a look tells of is as it was. */
function isUnchanged(look) {
  for (const line of look) {
    const size = line.indexOf(' ') + 1;
    const path = line.indexOf(' ', size) + 1;
    const stat = statSync(line.slice(path), { throwIfNoEntry: false });
    if (stat?.ctimeMs !== Number(line.slice(0, size)) || stat.size !== Number(line.slice(size, path))) return false;
  }
  return look.length > 0;
}

/** What a stamp says: the hash of what something was made of, which places that was, and how all in them looked. */
function readStamp(path) {
  const [hash = '', of = '', ...look] = existsSync(path) ? readFileSync(path, 'utf8').split('\n') : [];
  return { hash, of, look };
}

function writeStamp(path, hash, of, look) {
  writeFileSync(path, [hash, of, ...look].join('\n'));
}

/** Installs packages when the lock file is another one than at the last time. */
export function ensurePackages() {
  checkNode();
  const lock = join(root, 'package-lock.json');
  const stamp = join(root, 'node_modules', '.sediment-packages');
  const installed = readStamp(stamp);
  if (installed.of === lock && isUnchanged(installed.look)) return;
  const look = lookOf([lock]);
  const hash = hashOf([readFileSync(lock)]);
  if (hash !== installed.hash) {
    say('Installing packages …');
    run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], 'Installing packages');
  }
  writeStamp(stamp, hash, lock, look);
}

/** Every file of the sources, always in the same order, and the folders that they are in. */
function filesOf(folder, paths) {
  const files = [];
  const folders = [];
  const visit = (path) => {
    folders.push(path);
    for (const entry of readdirSync(path, { withFileTypes: true }).sort((a, b) => (a.name < b.name ? -1 : 1))) {
      const full = join(path, entry.name);
      if (entry.isDirectory()) visit(full);
      else if (!entry.name.endsWith('.test.ts')) files.push(full);
    }
  };
  for (const path of paths) {
    const full = join(folder, path);
    if (existsSync(full) && !path.includes('.')) visit(full);
    else files.push(full);
  }
  return { files, folders };
}

/** Builds where a source is another one than at the last time; `dist` of the folder keeps what it was built from. */
export async function ensureBuild(name, sources, build, force = false, folder = root) {
  const stamp = join(folder, 'dist', `.${name}`);
  const built = readStamp(stamp);
  const of = [folder, ...sources].join(' ');
  // What comes to a folder or leaves it shows in the folder.
  if (!force && built.of === of && isUnchanged(built.look)) return;
  const { files, folders } = filesOf(folder, sources);
  const look = lookOf([...folders, ...files]);
  const hash = hashOf(files.flatMap((file) => [relative(folder, file), readFileSync(file)]));
  if (force || hash !== built.hash) {
    say(`Building the ${name} …`);
    // A build that is broken off leaves nothing that counts as built, also where its sources are put back.
    rmSync(stamp, { force: true });
    await build();
  }
  mkdirSync(join(folder, 'dist'), { recursive: true });
  writeStamp(stamp, hash, of, look);
}

const shared = ['package.json', 'package-lock.json', 'tsconfig.base.json', 'src/core', 'src/contracts', 'src/domain'];

/** Server, workers and command line. */
export const ensureNodeBuild = (force = false) =>
  ensureBuild(
    'server',
    [
      ...shared,
      'src/rig',
      'src/worker',
      'src/press',
      'src/reader',
      'src/web/app/audio',
      'src/server',
      'src/cli',
      'demo',
      'tools/build-node.mjs',
    ],
    async () => (await import('./build-node.mjs')).buildNode(),
    force,
  );

/** The page. */
export const ensureWebBuild = (force = false) =>
  ensureBuild(
    'page',
    [...shared, 'src/web', 'angular.json', 'tsconfig.web.json', 'tsconfig.web-worker.json'],
    async () => run(process.execPath, ['node_modules/@angular/cli/bin/ng.js', 'build'], 'Building the page'),
    force,
  );

if (process.argv[1] === import.meta.filename) {
  const force = process.argv.includes('--force');
  ensurePackages();
  await ensureNodeBuild(force);
  await ensureWebBuild(force);
}
