import { spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';

const root = join(import.meta.dirname, '..');
const folder = mkdtempSync(join(tmpdir(), 'sediment-layers-'));
afterAll(() => rmSync(folder, { recursive: true }));

/** A small tree of the same rooms, checked with the project's own rules. */
function check(files: Readonly<Record<string, string>>): { status: number | null; output: string } {
  rmSync(join(folder, 'src'), { recursive: true, force: true });
  const all = {
    'package.json': JSON.stringify({ imports: { '#core/*': './src/core/*.ts', '#server/*': './src/server/*.ts' } }),
    'tsconfig.base.json': JSON.stringify({ compilerOptions: { moduleResolution: 'bundler', module: 'esnext' } }),
    ...files,
  };
  for (const [name, text] of Object.entries(all)) {
    mkdirSync(dirname(join(folder, name)), { recursive: true });
    writeFileSync(join(folder, name), text);
  }
  rmSync(join(folder, 'node_modules'), { force: true });
  symlinkSync(join(root, 'node_modules'), join(folder, 'node_modules'));
  const { status, stdout, stderr } = spawnSync(
    process.execPath,
    [
      join(root, 'node_modules/dependency-cruiser/bin/dependency-cruise.mjs'),
      'src',
      '--config',
      join(root, '.dependency-cruiser.cjs'),
    ],
    { cwd: folder, encoding: 'utf8' },
  );
  return { status, output: stdout + stderr };
}

const OUTSIDE = {
  'src/server/platform/failure.ts': 'export const x = 1;\n',
  'src/core/a.ts': 'export const a = 1;\n',
};

describe('the layer rules', () => {
  it('let through what follows the direction', () => {
    const { status, output } = check({
      ...OUTSIDE,
      'src/server/b.ts': "import { a } from '#core/a';\nexport const b = a;\n",
    });
    expect(output).toContain('no dependency violations found');
    expect(status).toBe(0);
  });

  /** Each breaks one rule; all are planted at once, because starting the checker is what takes time. */
  const PLANTED: readonly (readonly [rule: string, file: string, text: string])[] = [
    ['core-imports', 'src/core/bad.ts', "import { x } from '#server/platform/failure';\nexport const y = x;\n"],
    ['web-imports', 'src/web/app/bad.ts', "import { x } from '../../server/platform/failure';\nexport const y = x;\n"],
    [
      'core-stands-alone',
      'src/core/bad-files.ts',
      "import { readFileSync } from 'node:fs';\nexport const y = readFileSync;\n",
    ],
    ['core-stands-alone', 'src/core/bad-package.ts', "import { z } from 'zod';\nexport const y = z;\n"],
    ['domain-imports', 'src/domain/bad.ts', "import { x } from '#server/platform/failure';\nexport const y = x;\n"],
    ['domain-is-plain', 'src/domain/bad-package.ts', "import { z } from 'zod';\nexport const y = z;\n"],
    [
      'platform-knows-no-subject',
      'src/server/platform/bad.ts',
      "import { c } from '../catalogue/c';\nexport const y = c;\n",
    ],
    ['server-knows-no-demo', 'src/server/bad.ts', "import { d } from '../../demo/d';\nexport const y = d;\n"],
    ['sql-only-in-queries', 'src/server/routes/bad.ts', "import { q } from '../platform/db/q';\nexport const y = q;\n"],
  ];
  let found: string[] = [];
  beforeAll(() => {
    const { output } = check({
      ...OUTSIDE,
      'src/server/platform/db/q.ts': 'export const q = 1;\n',
      'src/server/catalogue/c.ts': 'export const c = 1;\n',
      'demo/d.ts': 'export const d = 1;\n',
      ...Object.fromEntries(PLANTED.map(([, file, text]) => [file, text])),
    });
    found = [...output.matchAll(/error ([\w-]+): (\S+) →/g)].map(([, rule, file]) => `${rule}: ${file}`);
  });

  it.each(PLANTED)('catch a planted violation of %s in %s', (rule, file) => {
    expect(found).toContain(`${rule}: ${file}`);
  });

  it('catch no file that breaks none', () => {
    expect([...new Set(found.map((f) => f.split(': ')[1]))].sort()).toEqual(PLANTED.map(([, file]) => file).sort());
  });
});
