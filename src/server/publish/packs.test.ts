import { createHash } from 'node:crypto';
import { expect, it } from 'vitest';
import { bagTags, tagManifest } from '#press/press';
import { PLAIN_PATHS } from '#contracts/http';
import { rangeFrom } from '../routes/send-pack';
import { serve, testApplication } from '../testing/application';
import { importUnits } from '../testing/heard-catalogue';
import { publishedReview } from '../testing/published-review';
import { unzipped } from '../testing/unzipped';

const sha256 = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

/** What is wrong with a bag, by the sections of RFC 8493; empty for a valid one. */
function bagProblems(all: ReadonlyMap<string, Buffer>): string[] {
  const problems: string[] = [];
  // Section 4.2: a serialised bag is one folder.
  const tops = new Set([...all.keys()].map((path) => path.split('/')[0]));
  if (tops.size !== 1) problems.push('more than one folder');
  const files = new Map([...all].map(([path, bytes]) => [path.split('/').slice(1).join('/'), bytes]));
  const text = (path: string): string => files.get(path)?.toString('utf8') ?? '';
  if (text('bagit.txt') !== 'BagIt-Version: 1.0\nTag-File-Character-Encoding: UTF-8\n') problems.push('2.1.1: bagit.txt'); // prettier-ignore
  const listed = (manifest: string): [string, string][] =>
    text(manifest).split('\n').filter((l) => l !== '').map((line) => {
      const found = /^([0-9a-f]{64})\s+(\S.*)$/.exec(line);
      if (!found) problems.push(`2.1.3: ${line}`);
      const path = (found?.[2] ?? '').replaceAll('%0A', '\n').replaceAll('%0D', '\r').replaceAll('%25', '%');
      return [path, found?.[1] ?? ''];
    }); // prettier-ignore
  const payload = new Map(listed('manifest-sha256.txt'));
  // Section 3: every payload file is listed, every listed file is there, and its hash is that.
  for (const [path, hash] of payload) {
    const bytes = files.get(path);
    if (!bytes) problems.push(`missing: ${path}`);
    else if (sha256(bytes) !== hash) problems.push(`changed: ${path}`);
    if (/^~|\.\./.test(path) || !path.startsWith('data/')) problems.push(`2.1.3: ${path}`);
  }
  for (const path of files.keys()) if (path.startsWith('data/') && !payload.has(path)) problems.push(`not listed: ${path}`); // prettier-ignore
  const tags = new Map(listed('tagmanifest-sha256.txt'));
  for (const path of [...files.keys()].filter((p) => !p.startsWith('data/') && !p.startsWith('tagmanifest')))
    if (tags.get(path) !== sha256(files.get(path) ?? Buffer.alloc(0))) problems.push(`2.2.1: ${path}`);
  const oxum = /^Payload-Oxum: (\d+)\.(\d+)$/m.exec(text('bag-info.txt'));
  const octets = [...payload.keys()].reduce((sum, path) => sum + (files.get(path)?.length ?? 0), 0);
  if (Number(oxum?.[1]) !== octets || Number(oxum?.[2]) !== payload.size) problems.push('2.2.2: Payload-Oxum');
  return problems;
}

async function pack() {
  const app = await testApplication();
  const units = await importUnits(app, 3);
  const { review: id, edition } = await publishedReview(app, units[0].specimenId);
  const address = await serve(app);
  const url = address + PLAIN_PATHS.editionPack.replace(':id', edition);
  return { app, units, url, id };
}

it('is a valid bag of everything that stands behind an edition', async () => {
  const { app, units, url } = await pack();
  const answer = await fetch(url);
  const bytes = Buffer.from(await answer.arrayBuffer());
  expect(Number(answer.headers.get('content-length'))).toBe(bytes.length);
  const files = await unzipped(bytes);
  expect(bagProblems(files)).toEqual([]);
  const paths = [...files.keys()].map((p) => p.split('/').slice(2).join('/'));
  expect(paths).toEqual(expect.arrayContaining(['edition.json', 'review.md', 'measurements.json', 'measurements.csv', 'licence.txt', 'protocols/desk-voice-1.json'])); // prettier-ignore
  expect(paths).not.toContain('missing.txt');
  // Recordings as they came: three takes of the unit, and what it was heard beside.
  const originals = [...files].filter(([path]) => path.includes('/originals/'));
  const takes = (await app.catalogue.sheet(units[0].specimenId)).runs[0].takes;
  expect(originals.length).toBeGreaterThan(takes.length);
  const hashes = originals.map(([, body]) => sha256(body));
  for (const take of takes) expect(hashes).toContain(take.clip.sha256);
  expect([...files.keys()].filter((p) => p.includes('/matched/') && p.endsWith('.flac')).length).toBeGreaterThan(1);
});

it('a changed byte, a file that is not listed and one that is gone are found by the check above', async () => {
  const files = await unzipped(Buffer.from(await (await fetch((await pack()).url)).arrayBuffer()));
  const at = [...files.keys()].find((p) => p.endsWith('/data/licence.txt'))!;
  const changed = new Map(files).set(at, Buffer.from('other'));
  expect(bagProblems(changed)).toEqual(expect.arrayContaining([expect.stringMatching(/^changed: data\/licence/)]));
  const fewer = new Map([...files].filter(([p]) => p !== at));
  expect(bagProblems(fewer)).toEqual(expect.arrayContaining([expect.stringMatching(/^missing/)]));
  expect(bagProblems(new Map(files).set(at.replace('licence', 'more'), Buffer.from('x')))).toHaveLength(1);
});

it('goes on where a transfer broke off, as long as it is the same pack', async () => {
  const { app, units, url, id } = await pack();
  const whole = Buffer.from(await (await fetch(url)).arrayBuffer());
  const first = await fetch(url);
  const tag = first.headers.get('etag') ?? '';
  await first.body?.cancel();
  for (const from of [1, 1000, whole.length - 1]) {
    const rest = await fetch(url, { headers: { range: `bytes=${from}-`, 'if-range': tag } });
    expect([rest.status, rest.headers.get('content-range')]).toEqual([206, `bytes ${from}-${whole.length - 1}/${whole.length}`]); // prettier-ignore
    expect(Buffer.from(await rest.arrayBuffer()).equals(whole.subarray(from))).toBe(true);
  }
  const other = await fetch(url, { headers: { range: 'bytes=1000-', 'if-range': '"another"' } });
  expect([other.status, (await other.arrayBuffer()).byteLength]).toEqual([200, whole.length]);
  expect((await fetch(url, { headers: { range: `bytes=${whole.length}-` } })).status).toBe(416);
  // A recording is deleted: the pack says so, and is another one.
  const take = (await app.catalogue.sheet(units[1].specimenId)).runs[0].takes.find((t) => t.step === 'speech');
  const preview = await app.removals.preview('take', take?.id ?? '');
  await app.removals.remove({ what: 'take', id: take?.id ?? '', name: preview.unit, reason: '' });
  const after = await fetch(url);
  expect(after.headers.get('etag')).not.toBe(tag);
  const files = await unzipped(Buffer.from(await after.arrayBuffer()));
  expect(bagProblems(files)).toEqual([]);
  const missing = [...files].find(([p]) => p.endsWith('missing.txt'))?.[1].toString('utf8') ?? '';
  expect(missing).toContain(take?.clip.sha256 ?? 'nothing');
  expect((await app.reviews.get(id)).editions).toHaveLength(1);
});

it('understands ranges that go on to the end, and no others', () => {
  expect(rangeFrom('bytes=10-', 100)).toBe(10);
  expect(rangeFrom('bytes=10-99', 100)).toBe(10);
  expect(rangeFrom('bytes=100-', 100)).toBe('beyond');
  for (const header of [undefined, '', 'bytes=10-20', 'bytes=-10', 'bytes=1-,5-', 'lines=1-']) expect(rangeFrom(header, 100)).toBeNull(); // prettier-ignore
});

it('names with signs that end a line are encoded, and values stand on one line', () => {
  const file = { path: 'a%b\nc\rd.wav', bytes: 3, sha256: 'f'.repeat(64) };
  const info = {
    organisation: 'Desk\nBag-Size: 1',
    day: '2025-05-24',
    identifier: 'x',
    description: '',
    software: 's',
  };
  const tags = bagTags([file], info);
  expect(tags['manifest-sha256.txt']).toBe(`${'f'.repeat(64)}  data/a%25b%0Ac%0Dd.wav\n`);
  expect(tags['bag-info.txt']).toBe('Source-Organization: Desk Bag-Size: 1\nExternal-Identifier: x\nBagging-Date: 2025-05-24\nBag-Software-Agent: s\nPayload-Oxum: 3.1\n'); // prettier-ignore
  expect(tagManifest([{ path: 'bagit.txt', sha256: 'e'.repeat(64) }])).toBe(`${'e'.repeat(64)}  bagit.txt\n`);
});
