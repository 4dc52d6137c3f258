// Which tests a change asks for at once: those beside the changed files, and those that import one of them.
import { execFileSync } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
import { dirname, join, normalize } from 'node:path';
import { root } from './prepare.mjs';

const git = (...args) =>
  execFileSync('git', args, { cwd: root, encoding: 'utf8' })
    .split('\n')
    .filter((line) => line !== '');

/** Files that differ from a commit, and those that git does not know yet; as they are named in the repository. */
export function changedFiles(base = 'HEAD') {
  const differing = git('diff', '--name-only', '--diff-filter=d', base);
  return [...new Set([...differing, ...git('ls-files', '--others', '--exclude-standard')])].sort();
}

/** Where the specifier of an import leads, without its ending; null for packages. */
export function importedPath(file, specifier) {
  if (specifier.startsWith('#')) return `src/${specifier.slice(1)}`;
  if (specifier.startsWith('.')) return normalize(join(dirname(file), specifier)).replace(/\.(ts|mjs)$/, '');
  return null;
}

const importsOf = (file, text) =>
  [...text.matchAll(/from '([^']+)'/g)].flatMap(([, specifier]) => importedPath(file, specifier) ?? []);

/**
 * @param changed - files
 * @param tests - all test files
 * @param read - gives a file's text
 * @returns the test files that are run for the change
 */
export function testsOf(changed, tests, read) {
  const stems = new Set(changed.map((file) => file.replace(/(\.deep)?(\.test)?\.(ts|mjs|html|css)$/, '')));
  return tests.filter(
    (file) =>
      stems.has(file.replace(/(\.deep)?\.test\.ts$/, '')) ||
      importsOf(file, read(file)).some((path) => stems.has(path)),
  );
}

/** All test files but the deep ones and the journeys. */
export const quickTests = () =>
  git('ls-files', '--cached', '--others', '--exclude-standard', '*.test.ts').filter(
    (file) => !file.startsWith('e2e/') && !file.includes('.deep.') && existsSync(join(root, file)),
  );

export const readInRoot = (file) => readFileSync(join(root, file), 'utf8');
