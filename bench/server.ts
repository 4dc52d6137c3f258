import { mkdtempSync, rmSync } from 'node:fs';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Table from 'cli-table3';
import { PGlite } from '@electric-sql/pglite';
import { openPglite } from '#server/platform/db/pglite-database';
import { webFolder } from '#server/platform/package-root';
import { httpServer, listeningServer } from '#server/routes/server';
import { openApplication } from '#server/wiring';

// What an acknowledged fact costs, and how long others wait while somebody asks for much. Ratios within one run.

const folder = mkdtempSync(join(tmpdir(), 'sediment-bench-server-'));
const table = new Table({ head: ['what', 'result', 'aim'], style: { head: [], border: [] } });
const FACTS = 300;

/** Milliseconds per fact. */
async function perFact(work: () => Promise<unknown>): Promise<number> {
  const began = performance.now();
  await work();
  return (performance.now() - began) / FACTS;
}

async function facts(): Promise<void> {
  let flushes = 0;
  const kept = await openPglite({ folder: join(folder, 'kept'), onFlush: () => flushes++ });
  const loose = await PGlite.create({ dataDir: join(folder, 'loose') });
  await kept.script('CREATE TABLE fact (n int)');
  await loose.exec('CREATE TABLE fact (n int)');
  const numbers = Array.from({ length: FACTS }, (_, n) => n);
  const before = await perFact(async () => {
    for (const n of numbers) await loose.query('INSERT INTO fact VALUES ($1)', [n]);
  });
  flushes = 0;
  const one = await perFact(async () => {
    for (const n of numbers) await kept.query('INSERT INTO fact VALUES ($1)', [n]);
  });
  const oneFlushes = flushes;
  flushes = 0;
  const together = await perFact(() =>
    Promise.all(numbers.map((n) => kept.query('INSERT INTO fact VALUES ($1)', [n]))),
  );
  const say = (ms: number, count: number): string =>
    `${ms.toFixed(2)} ms, ${(ms / before).toFixed(1)} × without flushing; ${count} flushes for ${FACTS}`;
  table.push(['a fact, one after another', say(one, oneFlushes), 'one flush each']);
  table.push(['a fact, all at once', say(together, flushes), 'few flushes']);
  await kept.close();
  await loose.close();
}

async function waiting(): Promise<void> {
  const application = await openApplication({ folder: join(folder, 'data') });
  const server: Server = listeningServer(
    httpServer(application, { host: '127.0.0.1', webFolder, report: (error) => console.error(error) }),
  );
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  const post = (path: string, body: unknown): Promise<Response> =>
    fetch(address + path, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
  const csv = `winner,loser,count\n${Array.from({ length: 160_000 }, (_, i) => `unit ${i % 9},unit ${i % 7},1`).join('\n')}`;
  const takes = Array.from({ length: 60_000 }, (_, i) => ({ step: 'none', file: `take ${i}.wav`, gainDb: 'much' }));
  const longRuns = {
    document: { format: 'sediment-run/1', protocol: 'desk-voice', protocolVersion: 1, takes },
    clips: {},
  };
  const values = { document: { format: 'sediment-run/1', takes: takes.slice(0, 4_000) }, clips: {} };
  const asked: [string, () => Promise<Response>][] = [
    ['nothing else', () => fetch(`${address}/api/jobs`)],
    ['a sweep at 192 kHz', () => fetch(`${address}/api/protocols/desk-voice/1/sweep.wav?rate=192000`)],
    [`a CSV of ${(csv.length / 1e6).toFixed(1)} MB`, () => post('/api/scale/import', { csv: csv.slice(0, 2_900_000), attribute: 'preference', category: 'microphone' })], // prettier-ignore
    [`a run document of ${(JSON.stringify(longRuns).length / 1e6).toFixed(1)} MB`, () => post('/api/runs', longRuns)],
    ['a run document of 4,000 bad takes', () => post('/api/runs', values)],
  ];
  for (const [what, ask] of asked) {
    let isOver = false;
    const began = performance.now();
    const whole = ask().then(async (response) => {
      await response.arrayBuffer();
      isOver = true;
      return response.status;
    });
    let worst = 0;
    let asks = 0;
    do {
      const at = performance.now();
      await (await fetch(`${address}/api/status`)).text();
      worst = Math.max(worst, performance.now() - at);
      asks++;
    } while (!isOver || asks < 20);
    const status = await whole;
    const took = ((performance.now() - began) / 1000).toFixed(1);
    table.push([`status route while somebody asks for ${what}`, `worst ${worst.toFixed(0)} ms (${took} s, answered ${status})`, '≤ 50 ms beside an idle one']); // prettier-ignore
  }
  server.closeAllConnections();
  server.close();
  await application.close();
}

try {
  await facts();
  await waiting();
  process.stdout.write(`${table.toString()}\n`);
} finally {
  rmSync(folder, { recursive: true, force: true });
}
