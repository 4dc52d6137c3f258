import { defineConfig } from 'vitest/config';

const heavy = { testTimeout: 120_000, hookTimeout: 180_000 };

export default defineConfig({
  test: {
    projects: [
      {
        test: {
          name: 'unit',
          include: ['src/{core,contracts,rig,worker}/**/*.test.ts', 'tools/**/*.test.ts', 'demo/**/*.test.ts'],
          testTimeout: 60_000,
        },
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
        test: {
          name: 'server',
          include: ['src/{server,cli}/**/*.test.ts'],
          globalSetup: 'src/server/testing/global-setup.ts',
          ...heavy,
        },
      },
      { test: { name: 'journeys', include: ['e2e/**/*.test.ts'], ...heavy, fileParallelism: false } },
    ],
  },
});
