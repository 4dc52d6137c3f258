import { availableParallelism } from 'node:os';
import { defineConfig } from 'vitest/config';

/** A state is waited for as long as a busy machine may take; no test says how long that is. */
const patient = { testTimeout: 120_000, hookTimeout: 180_000, expect: { poll: { timeout: 60_000 } } };

/** Pages that are published are written as Preact, and rendered to text. */
const press = { esbuild: { jsx: 'automatic', jsxImportSource: 'preact' } } as const;

const DEEP = ['src/**/*.deep.test.ts'];

export default defineConfig({
  test: {
    maxWorkers: availableParallelism(),
    projects: [
      {
        ...press,
        test: {
          name: 'unit',
          include: [
            'src/{core,contracts,domain,rig,worker,press,reader}/**/*.test.ts',
            'tools/**/*.test.ts',
            'demo/**/*.test.ts',
          ],
          exclude: DEEP,
          isolate: false,
          testTimeout: 120_000,
        },
      },
      {
        // Simulations as large as their bounds need: npm run test:deep.
        test: { name: 'deep', include: DEEP, isolate: false, testTimeout: 900_000 },
      },
      {
        // The page's plain parts; its components are walked in Chromium by the journeys.
        test: {
          name: 'web',
          include: ['src/web/**/*.test.ts'],
          environment: 'jsdom',
          setupFiles: 'src/web/test-setup.ts',
        },
      },
      {
        ...press,
        test: {
          name: 'server',
          include: ['src/{server,cli}/**/*.test.ts'],
          globalSetup: 'src/server/testing/global-setup.ts',
          // Files of one worker share modules, and with them the databases that are open already.
          isolate: false,
          ...patient,
        },
      },
      { test: { name: 'journeys', include: ['e2e/**/*.test.ts'], globalSetup: 'e2e/global-setup.ts', ...patient } },
    ],
  },
});
