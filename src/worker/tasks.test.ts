import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, it } from 'vitest';

it('every task that is built stands in the map of types, under the name of its file', () => {
  const files = readdirSync(join(import.meta.dirname, 'tasks')).filter((f) => !f.endsWith('.test.ts'));
  const map = readFileSync(join(import.meta.dirname, 'tasks.ts'), 'utf8');
  const named = [...map.matchAll(/^ {2}'([a-z-]+)': typeof import\('\.\/tasks\/([a-z-]+)'\)\.default;$/gm)];
  expect(named.map((m) => `${m[1]}.ts`).sort()).toEqual(files.sort());
  expect(named.every(([, name, file]) => name === file)).toBe(true);
});
