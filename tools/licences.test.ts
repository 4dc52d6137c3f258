import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, it } from 'vitest';
import { isPermissive, licenceTable, shippedPackages } from './licences.mjs';

it('everything that ships may be passed on as it is, and stands in docs/licences.md', () => {
  const packages = shippedPackages();
  expect(packages.length).toBeGreaterThan(50);
  expect(packages.filter((p) => !isPermissive(p.licence))).toEqual([]);
  expect(readFileSync(join(import.meta.dirname, '../docs/licences.md'), 'utf8')).toBe(licenceTable());
});

it('tells licences apart that ask for more', () => {
  expect(['LGPL-3.0-or-later', 'MIT AND GPL-2.0', 'SEE LICENSE IN LICENSE.md', 'unknown'].filter(isPermissive)).toEqual(
    [],
  );
  expect(['(MIT OR GPL-3.0)', 'MIT AND ISC', 'Apache-2.0'].filter(isPermissive)).toHaveLength(3);
});
