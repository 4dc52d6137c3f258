import { readFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import { KERNELS, compiledModule, moduleOf } from './kernels.mjs';

it.each(Object.keys(KERNELS))(
  'the kernel %s in the core is what its source compiles to (npm run kernels)',
  async (kernel) => {
    expect(readFileSync(moduleOf(kernel), 'utf8')).toBe(await compiledModule(kernel));
  },
);
