import { readFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import { compileFft, kernelModule, moduleText } from './kernels.mjs';

it('the FFT kernel in the core is what its source compiles to (npm run kernels)', async () => {
  expect(readFileSync(kernelModule, 'utf8')).toBe(moduleText(await compileFft()));
});
