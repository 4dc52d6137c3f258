import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type Browser, type BrowserContext, type BrowserContextOptions, type Page } from 'playwright-core'; // prettier-ignore
import { afterAll, beforeAll, onTestFailed } from 'vitest';
import { startServer, type ServerProcess } from '#server/testing/process';
import { CHROMIUM, CHROMIUM_FLAGS } from '../tools/browser.mjs';

/** A browser and a server for the tests of one file. */
export interface Stage {
  readonly address: () => string;
  readonly folder: () => string;
  /** Another device: nothing of it is shared with the page, and it waits as long. */
  readonly context: (options?: BrowserContextOptions) => Promise<BrowserContext>;
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
  const newContext = async (options: BrowserContextOptions = {}): Promise<BrowserContext> => {
    const context = await browser.newContext(options);
    // A busy machine takes its time.
    context.setDefaultTimeout(60_000);
    return context;
  };
  return {
    address: () => server.address,
    folder: () => folder,
    context: newContext,
    open: async (path) => {
      const context = await newContext({ viewport: { width: 1280, height: 800 }, reducedMotion: 'reduce' });
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
