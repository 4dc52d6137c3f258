import { expect, it } from 'vitest';
import { importedPath, testsOf } from './changed.mjs';

const FILES: Record<string, string> = {
  'src/core/rules/rank.test.ts': "import { rank } from './rank';\nimport { close } from '../stats/close';",
  'src/server/services/catalogue.test.ts': "import { rank } from '#core/rules/rank';",
  'tools/kernels.test.ts': "import { kernels } from './kernels.mjs';",
  'src/web/app/ui/ui.test.ts': "import { it } from 'vitest';",
};
const of = (...changed: string[]): string[] => testsOf(changed, Object.keys(FILES), (file) => FILES[file]);

it('a change asks for the test beside it, and for those that import it', () => {
  expect(of('src/core/rules/rank.ts')).toEqual([
    'src/core/rules/rank.test.ts',
    'src/server/services/catalogue.test.ts',
  ]);
  expect(of('src/core/stats/close.ts')).toEqual(['src/core/rules/rank.test.ts']);
  expect(of('tools/kernels.mjs')).toEqual(['tools/kernels.test.ts']);
  expect(of('src/web/app/ui/ui.test.ts')).toEqual(['src/web/app/ui/ui.test.ts']);
  expect(of('README.md', 'src/core/units.ts')).toEqual([]);
});

it('imports lead to files, packages lead nowhere', () => {
  expect(importedPath('src/a/b.ts', '../c/d')).toBe('src/c/d');
  expect(importedPath('src/a/b.ts', '#core/x/y')).toBe('src/core/x/y');
  expect(importedPath('src/a/b.ts', 'vitest')).toBeNull();
});
