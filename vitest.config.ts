import { availableParallelism } from 'node:os';
import { defineConfig } from 'vitest/config';

/** A state is waited for as long as a busy machine may take; no test says how long that is. */
const patient = { testTimeout: 120_000, hookTimeout: 180_000, expect: { poll: { timeout: 60_000 } } };

/** Pages that are published are written as Preact, and rendered to text. */
const press = { esbuild: { jsx: 'automatic', jsxImportSource: 'preact' } } as const;

/** What takes long beside what it finds on an ordinary day: npm run test:deep. */
const DEEP = ['**/*.deep.test.ts'];

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
        // Simulations as large as their bounds need.
        test: {
          name: 'deep',
          include: ['src/{core,contracts,domain,rig,worker,press,reader}/**/*.deep.test.ts'],
          isolate: false,
          testTimeout: 900_000,
        },
      },
      {
        // The page's plain parts; its components are walked in Chromium by the journeys.
        test: {
          name: 'web',
          include: ['src/web/**/*.test.ts'],
          environment: 'jsdom',
          setupFiles: 'src/web/test-setup.ts',
          // Making a document for each file took thirty times as long as its tests.
          isolate: false,
        },
      },
      {
        ...press,
        test: {
          name: 'server',
          include: ['src/{server,cli}/**/*.test.ts'],
          exclude: DEEP,
          globalSetup: 'src/server/testing/global-setup.ts',
          // Files of one worker share modules, and with them the databases that are open already.
          isolate: false,
          ...patient,
        },
      },
      {
        // Processes that are killed, disks that fill up, commands beside a server.
        test: {
          name: 'deep-server',
          include: ['src/{server,cli}/**/*.deep.test.ts'],
          globalSetup: 'src/server/testing/global-setup.ts',
          isolate: false,
          ...patient,
        },
      },
      // From an empty archive; those of the demo, and the long ones, are deep.
      { test: { name: 'journeys', include: ['e2e/**/*.test.ts'], exclude: DEEP, ...patient } },
      {
        test: {
          name: 'deep-journeys',
          include: ['e2e/**/*.deep.test.ts'],
          globalSetup: 'e2e/global-setup.ts',
          ...patient,
        },
      },
    ],
  },
});
