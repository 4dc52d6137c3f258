// Which packages ship with Sediment, and under which licences. Run as a command, it writes docs/licences.md.
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const root = join(import.meta.dirname, '..');

/** Licences under which a package may be passed on with this one, without further conditions than naming them. MPL-2.0 holds file by file: what is passed on unchanged asks for no more than where its source is. */
export const PERMISSIVE = ['MIT', 'Apache-2.0', 'ISC', 'BSD-2-Clause', 'BSD-3-Clause', '0BSD', 'OFL-1.1', 'Unlicense', 'BlueOak-1.0.0', 'CC0-1.0', 'Python-2.0', 'Zlib', 'MPL-2.0']; // prettier-ignore

/** All packages that the dependencies of package.json bring in, as the lock file has them. */
export function shippedPackages() {
  const lock = JSON.parse(readFileSync(join(root, 'package-lock.json'), 'utf8'));
  return Object.entries(lock.packages)
    .filter(([path, entry]) => path.startsWith('node_modules/') && !entry.dev && !entry.devOptional && !entry.peer)
    .map(([path, entry]) => {
      const manifest = join(root, path, 'package.json');
      const own = existsSync(manifest) ? JSON.parse(readFileSync(manifest, 'utf8')).license : undefined;
      return {
        name: path.slice(path.lastIndexOf('node_modules/') + 'node_modules/'.length),
        version: entry.version,
        licence: named(String(own?.type ?? own ?? entry.license ?? 'unknown'), join(root, path)),
      };
    })
    .sort((a, b) => (a.name < b.name ? -1 : 1));
}

/** Where a package points to a file, what that file is. */
function named(licence, folder) {
  const file = /^SEE LICENSE IN (\S+)$/.exec(licence)?.[1];
  if (!file || !existsSync(join(folder, file))) return licence;
  const text = readFileSync(join(folder, file), 'utf8').replaceAll(/\s+/g, ' ');
  const isMit = /Permission is hereby granted, free of charge, to any person obtaining a copy/.test(text);
  return isMit && !/commercial licen[cs]e/i.test(text) ? 'MIT' : licence;
}

/** "(MIT OR GPL-3.0)" lets us choose; "A AND B" asks for both. */
export const isPermissive = (licence) =>
  licence
    .replaceAll(/[()]/g, '')
    .split(' AND ')
    .every((part) => part.split(' OR ').some((one) => PERMISSIVE.includes(one.trim())));

export function licenceTable() {
  const rows = shippedPackages().map((p) => `| ${p.name} | ${p.version} | ${p.licence} |`);
  return ['# Licences of what ships', '', 'Made by `npm run docs` from the lock file. All are passed on unchanged; the source of each, of those under MPL-2.0 too, is in the npm package of that name and version.', '', '| package | version | licence |', '| --- | --- | --- |', ...rows, ''].join('\n'); // prettier-ignore
}

if (process.argv[1] === import.meta.filename) writeFileSync(join(root, 'docs/licences.md'), licenceTable());
