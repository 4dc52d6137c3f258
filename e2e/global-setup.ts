import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startServer } from '#server/testing/process';
import { hasKeptDemo, keepDemo } from './demo-cache';

/** Longer than any machine takes; then something is wrong. */
const MOST_MS = 30 * 60_000;

/** Renders the demo before anything else wants the processor, unless it is kept from an earlier run. */
export default async function setup(): Promise<void> {
  if (hasKeptDemo()) return;
  const folder = mkdtempSync(join(tmpdir(), 'sediment-demo-'));
  const server = await startServer(folder, ['--demo'], false);
  const ask = async <T>(path: string): Promise<T> => (await (await fetch(server.address + path)).json()) as T;
  const began = Date.now();
  try {
    let wasTold = false;
    for (;;) {
      const jobs = await ask<{ label: string }[]>('/api/jobs');
      wasTold ||= jobs.some((j) => j.label.startsWith('Recording the demo catalogue'));
      const tests = await ask<{ status: string }[]>('/api/listening');
      // Reviews come last, after listening, which moves places as answers come in.
      const reviews = await ask<unknown[]>('/api/reviews');
      if (
        tests.length === 11 &&
        tests.every((t) => t.status !== 'preparing') &&
        reviews.length === 3 &&
        jobs.length === 0
      )
        break;
      if (Date.now() - began > MOST_MS) throw new Error(`the demo is not done: ${JSON.stringify({ jobs, tests })}`);
      if (server.child.exitCode !== null) throw new Error(`the server ended: ${server.output()}`);
      await new Promise((resolve) => setTimeout(resolve, 500));
    }
    if (!wasTold) throw new Error('nobody was told that the demo is being recorded');
    keepDemo(folder);
  } finally {
    await server.kill('SIGTERM');
    rmSync(folder, { recursive: true, force: true });
  }
}
