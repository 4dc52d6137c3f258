import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type Browser, type Page } from 'playwright-core';
import { afterAll, beforeAll, onTestFailed } from 'vitest';
import { startServer, type ServerProcess } from '#server/testing/process';
import { CHROMIUM, CHROMIUM_FLAGS } from '../tools/browser.mjs';

/** A browser and a server for the tests of one file. */
export interface Stage {
  readonly address: () => string;
  readonly folder: () => string;
  readonly browser: () => Browser;
  /** A page with fresh storage; what it says in the console as an error fails the test that looks. */
  readonly open: (path: string) => Promise<{ page: Page; errors: string[] }>;
}

/**
 * @param prepare - fills the data folder before the server starts
 * @param args - of the server
 * @param flags - further ones of Chromium
 */
export function stage(
  prepare: (folder: string) => unknown = () => undefined,
  args: readonly string[] = [],
  flags: readonly string[] = [],
): Stage {
  let browser: Browser;
  let server: ServerProcess;
  let folder = '';
  beforeAll(async () => {
    folder = mkdtempSync(join(tmpdir(), 'sediment-journey-'));
    prepare(folder);
    server = await startServer(folder, args, false);
    browser = await chromium.launch({ executablePath: CHROMIUM, args: [...CHROMIUM_FLAGS, ...flags] });
  });
  afterAll(async () => {
    await browser.close();
    await server.kill('SIGTERM');
    rmSync(folder, { recursive: true, force: true });
  });
  return {
    address: () => server.address,
    folder: () => folder,
    browser: () => browser,
    open: async (path) => {
      const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, reducedMotion: 'reduce' });
      // A busy machine takes its time.
      context.setDefaultTimeout(60_000);
      const page = await context.newPage();
      const errors: string[] = [];
      page.on('pageerror', (error) => errors.push(error.message));
      page.on('console', (message) => {
        if (message.type() === 'error') errors.push(message.text());
      });
      onTestFailed(async () => {
        const shots = join(tmpdir(), 'sediment-failed');
        mkdirSync(shots, { recursive: true });
        await page.screenshot({ path: join(shots, `${Date.now()}.png`) }).catch(() => undefined);
      });
      await page.goto(server.address + path);
      return { page, errors };
    },
  };
}

/** Writes files to a folder for a file chooser. */
export function filesIn(folder: string, files: Readonly<Record<string, Uint8Array | string>>): string[] {
  mkdirSync(folder, { recursive: true });
  return Object.entries(files).map(([name, bytes]) => {
    writeFileSync(join(folder, name), bytes);
    return join(folder, name);
  });
}
