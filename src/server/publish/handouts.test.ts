import { encode } from 'jpeg-js';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { runInNewContext } from 'node:vm';
import { expect, it } from 'vitest';
import { PLAIN_PATHS } from '#contracts/http';
import { serve, testApplication } from '../testing/application';
import { importUnits } from '../testing/heard-catalogue';
import { publishedReview } from '../testing/published-review';
import { unzipped } from '../testing/unzipped';
import { scriptFile } from './clip-scripts';
import { mustFitInside } from './handouts';
import { withinBudget } from './within-budget';

it('a photograph goes inside the one file, byte by byte', async () => {
  const app = await testApplication();
  const [unit] = await importUnits(app, 1);
  const address = await serve(app);
  const picture = new Uint8Array(encode({ data: Buffer.alloc(16 * 8 * 4, 90), width: 16, height: 8 }, 90).data);
  const path = PLAIN_PATHS.photoUpload.replace(':id', unit.specimenId);
  const sent = await fetch(`${address}${path}?subject=unit&caption=in%20the%20hand&date=2026-05-01`, { method: 'POST', body: picture as BodyInit }); // prettier-ignore
  const { sha256 } = (await sent.json()) as { sha256: string };
  const { edition } = await publishedReview(app, unit.specimenId);
  const { html } = await app.handouts.page(edition, null);
  const [, base64] = /<img src="data:image\/jpeg;base64,([^"]+)" alt="in the hand"/.exec(html) ?? [];
  const kept = await app.photographs.find(sha256);
  expect(Buffer.from(base64 ?? '', 'base64').equals(readFileSync(kept?.path ?? ''))).toBe(true);
  expect(html).toContain('<figcaption>in the hand</figcaption>');
});

it('a page that is handed out later says what has changed since', async () => {
  const app = await testApplication();
  const [unit] = await importUnits(app, 1);
  const { edition } = await publishedReview(app, unit.specimenId);
  const html = async (): Promise<string> => (await app.handouts.page(edition, null)).html;
  expect(await html()).toContain('Nothing that counts has changed');
  await app.scoring.notePrice(unit.specimenId, { amount: 77, currency: 'EUR', kind: 'street', date: '2026-05-09' });
  expect(await html()).toMatch(/Price: .*77 EUR/);
});

it('goes out as a download alone: on this address its script would run beside the archive', async () => {
  const app = await testApplication();
  const [unit] = await importUnits(app, 1);
  const { edition } = await publishedReview(app, unit.specimenId);
  const address = await serve(app);
  for (const name of ['editionPage', 'editionFolder', 'editionMarkdown', 'editionFilm', 'editionDocument'] as const) {
    const answer = await fetch(address + PLAIN_PATHS[name].replace(':id', edition));
    expect(answer.headers.get('content-disposition'), name).toMatch(
      /^attachment; filename="?oarlock-purser-a-edition-1/,
    );
    await answer.body?.cancel();
  }
  // A spreadsheet takes a table for UTF-8 by the mark that it begins with.
  const csv = await fetch(address + PLAIN_PATHS.rankingCsv.replace(':category', 'microphone'));
  expect([...new Uint8Array(await csv.arrayBuffer()).slice(0, 3)]).toEqual([0xef, 0xbb, 0xbf]);
});

it('what does not fit is passed over, what fits behind it is taken', () => {
  const of = (...bytes: number[]) => bytes.map((b) => ({ bytes: b }));
  expect(withinBudget(of(5, 7, 4, 1), 10)).toEqual(of(5, 4, 1));
  expect(withinBudget(of(10), 10)).toEqual(of(10));
  expect(withinBudget(of(11), 10)).toEqual([]);
});

/** What a page gets to hear from a script of a clip, by running it. */
function handedOver(script: string): { href: string; bytes: Buffer } {
  let handed = { href: '', bytes: Buffer.alloc(0) };
  runInNewContext(script, {
    sedimentClip: (href: string, base64: string) => {
      handed = { href, bytes: Buffer.from(base64, 'base64') };
    },
  });
  return handed;
}

it.each([0, 1, 2, 3, 196_607, 196_608, 196_609, 500_000])('a clip of %i bytes comes out of its script as it went in', async (bytes) => {
  const path = join(mkdtempSync(join(tmpdir(), 'sediment-script-')), 'clip.flac');
  const body = Buffer.from(Uint8Array.from({ length: bytes }, (_, i) => (i * 7 + (i >> 8)) & 255));
  writeFileSync(path, body);
  const file = await scriptFile('clips/a.js', path);
  const parts: Buffer[] = [];
  for await (const part of file.open()) parts.push(part as Buffer);
  const script = Buffer.concat(parts);
  expect(script.length).toBe(file.bytes);
  const handed = handedOver(script.toString('utf8'));
  expect(handed.href).toBe('clips/a.js');
  expect(handed.bytes.equals(body)).toBe(true);
}); // prettier-ignore

it('a page with its clips beside it names every one of them, and has each as it is handed out', async () => {
  const app = await testApplication();
  const [unit] = await importUnits(app, 3);
  const { edition } = await publishedReview(app, unit.specimenId);
  const { decks } = (await app.reviews.edition(edition)).edition;
  const url = (await serve(app)) + PLAIN_PATHS.editionFolder.replace(':id', edition);
  const answer = await fetch(`${url}?clips=opus-64`);
  const zip = Buffer.from(await answer.arrayBuffer());
  expect(Number(answer.headers.get('content-length'))).toBe(zip.length);
  const files = new Map([...(await unzipped(zip))].map(([path, body]) => [path.split('/').slice(1).join('/'), body]));
  const html = [...files].find(([path]) => path.endsWith('.html'))?.[1].toString('utf8') ?? '';
  const named = [...html.matchAll(/"script":"(clips\/[^"]+)"/g)].map(([, path]) => path);
  expect(named).toHaveLength(decks.flatMap((d) => d.lanes).length);
  expect(new Set(named)).toEqual(new Set([...files.keys()].filter((p) => p.startsWith('clips/'))));
  for (const path of named) expect(handedOver(files.get(path)?.toString('utf8') ?? '').bytes.toString('latin1', 0, 4), path).toBe('OggS'); // prettier-ignore
  // Nothing stands inside, and only what the page's own script asks for may run beside it.
  expect(html).not.toContain('type="text/plain"');
  expect(html).toMatch(
    /script-src &#39;sha256-[^&]+&#39; &#39;strict-dynamic&#39;;|script-src 'sha256-[^']+' 'strict-dynamic';/,
  );
  // One file allows no such thing, and has the size that was told.
  const one = (await app.handouts.page(edition, { codec: 'flac' })).html;
  expect(one).not.toContain('strict-dynamic');
  const inside = [...one.matchAll(/type="text\/plain">([^<]+)</g)].reduce((sum, [, base64]) => sum + base64.length, 0);
  expect(await app.handouts.pageSize(edition, { codec: 'flac' })).toEqual({ bytes: inside, most: 60e6 });
  expect(inside).toBeGreaterThan(10_000);
});

it('clips that would make a page too large are refused, with what can be done', () => {
  expect(() => mustFitInside(60e6)).not.toThrow();
  expect(() => mustFitInside(60e6 + 1)).toThrow(/would have 61 MB; up to 60 MB/);
});
