import { mkdirSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join, normalize } from 'node:path';
import { HtmlValidate } from 'html-validate';
import { encode } from 'jpeg-js';
import { JSDOM } from 'jsdom';
import { expect, it } from 'vitest';
import { PLAIN_PATHS } from '#contracts/http';
import { serve, temporaryFolder, testApplication } from '../testing/application';
import { importUnits } from '../testing/heard-catalogue';
import { publishedReview } from '../testing/published-review';
import { SiteFolder } from './site-folder';

const OPUS = { codec: 'opus', kbps: 48 } as const;

/** An archive with two reviews that are published, the first of them in two editions. */
async function published() {
  const app = await testApplication();
  const units = await importUnits(app, 3);
  const house = await app.house.current();
  await app.house.save({ ...house, desk: 'Tidewrack & Co', address: 'https://tidewrack.example/reviews/' });
  const { review: first } = await publishedReview(app, units[0].specimenId, { headline: 'The first & best' });
  await publishedReview(app, units[1].specimenId, { headline: 'The <second>' });
  const review = await app.reviews.get(first);
  const again = await app.reviews.save(first, review.revision, { ...review.document, headline: 'The first, again' });
  await app.reviews.publish(first, again.revision);
  return { app, units, first };
}

const filesIn = (folder: string): string[] =>
  readdirSync(folder, { recursive: true })
    .map(String)
    .filter((name) => statSync(join(folder, name)).isFile())
    .sort();

it('writes pages that are valid, and leads nowhere that is not there', async () => {
  const { app } = await published();
  const out = join(temporaryFolder(), 'site');
  const report = await app.site.publish(out, OPUS);
  const files = filesIn(out);
  expect(report).toMatchObject({ pages: files.filter((f) => f.endsWith('.html')).length, kept: 0, removed: 0 });
  expect(files).toEqual(expect.arrayContaining(['index.html', 'all.html', 'blind.html', 'feed.xml', 'sitemap.xml', 'kinds/microphone.html'])); // prettier-ignore
  expect(files.filter((f) => f.endsWith('.opus')).length).toBeGreaterThan(1);
  const validator = new HtmlValidate({
    extends: ['html-validate:standard'],
    rules: { 'void-style': 'off', 'long-title': 'off', 'no-inline-style': 'error' },
  });
  const at = new Set(files);
  for (const page of files.filter((f) => f.endsWith('.html'))) {
    const html = readFileSync(join(out, page), 'utf8');
    const { results } = await validator.validateString(html, page);
    expect(results.flatMap((r) => r.messages.map((m) => `${page}: ${m.ruleId} ${m.message}`))).toEqual([]);
    const { document } = new JSDOM(html).window;
    const ways = [...document.querySelectorAll('[href], [src]')].map((e) => e.getAttribute('href') ?? e.getAttribute('src') ?? ''); // prettier-ignore
    const data = [...document.querySelectorAll('[data-lanes]')].flatMap((e) => (JSON.parse(e.textContent ?? '') as { lanes: { source: { file: string } }[] }).lanes.map((l) => l.source.file)); // prettier-ignore
    for (const way of [...ways, ...data].filter((w) => !w.startsWith('https://'))) {
      const [path, place] = way.split('#');
      const full = path === '' ? page : normalize(join(dirname(page), path));
      expect(at.has(full), `${page} leads to ${full}`).toBe(true);
      if (place !== undefined && place !== '') expect(readFileSync(join(out, full), 'utf8')).toContain(`id="${place}"`); // prettier-ignore
    }
    // Nothing of another site is loaded.
    expect([...document.querySelectorAll('script[src], link[rel=stylesheet], img')].filter((e) => /^https?:/.test(e.getAttribute('src') ?? e.getAttribute('href') ?? ''))).toEqual([]); // prettier-ignore
  }
});

it('has a feed, a map, data and pictures that machines read', async () => {
  const { app } = await published();
  const out = join(temporaryFolder(), 'site');
  await app.site.publish(out, OPUS);
  const xml = (name: string) => new JSDOM(readFileSync(join(out, name), 'utf8'), { contentType: 'text/xml' }).window.document; // prettier-ignore
  // RFC 4287, sections 4.1.1 and 4.1.2: what a feed and its entries must have, once each.
  const feed = xml('feed.xml').documentElement;
  expect([feed.namespaceURI, feed.localName]).toEqual(['http://www.w3.org/2005/Atom', 'feed']);
  const children = (of: Element, name: string): Element[] => [...of.children].filter((c) => c.localName === name);
  for (const name of ['id', 'title', 'updated', 'author']) expect(children(feed, name), name).toHaveLength(1);
  expect(children(feed, 'title')[0].textContent).toBe('Tidewrack & Co');
  expect(children(feed, 'link')[0].getAttribute('rel')).toBe('self');
  const entries = children(feed, 'entry');
  // Three editions of two reviews.
  expect(entries).toHaveLength(3);
  for (const entry of entries) {
    for (const name of ['id', 'title', 'updated']) expect(children(entry, name), name).toHaveLength(1);
    expect(children(entry, 'updated')[0].textContent).toMatch(/^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\dZ$/);
    expect(children(entry, 'link')[0].getAttribute('href')).toMatch(
      /^https:\/\/tidewrack\.example\/reviews\/reviews\//,
    );
  }
  expect(new Set(entries.map((e) => children(e, 'id')[0].textContent)).size).toBe(3);
  const locations = [...xml('sitemap.xml').querySelectorAll('loc')].map((l) => l.textContent ?? '');
  expect(locations.filter((l) => !l.startsWith('https://tidewrack.example/reviews/'))).toEqual([]);
  expect(locations.length).toBeGreaterThan(4);
  const [page] = filesIn(out).filter((f) => /reviews\/oarlock-purser.*index\.html$/.test(f));
  const { document } = new JSDOM(readFileSync(join(out, page), 'utf8')).window;
  const data = JSON.parse(document.querySelector('script[type="application/ld+json"]')?.textContent ?? '') as object;
  expect(data).toMatchObject({
    '@context': 'https://schema.org',
    '@type': 'Review',
    name: 'The first, again',
    version: 2,
    author: { '@type': 'Organization', name: 'Tidewrack & Co' },
    itemReviewed: { '@type': 'Product', name: 'Oarlock Purser' },
    reviewRating: { '@type': 'Rating', bestRating: 5, worstRating: 0 },
  });
  // A link to it has its picture (ogp.me, "Structured properties"), which is a PNG of the size that is said.
  const said = (name: string) => document.querySelector(`meta[property="og:image${name}"]`)?.getAttribute('content');
  const picture = (said('') ?? '').replace('https://tidewrack.example/reviews/', '');
  const png = readFileSync(join(out, picture));
  expect(png.toString('latin1', 1, 4)).toBe('PNG');
  expect([png.readUInt32BE(16), png.readUInt32BE(20)].map(String)).toEqual([said(':width'), said(':height')]);
  expect([said(':type'), said(':alt')]).toEqual(['image/png', document.title]);
  expect(filesIn(out).filter((f) => f.endsWith('.png'))).toHaveLength(3);
});

it('writes again only what has changed, and takes away what is no more, but nothing of anybody else’s', async () => {
  const { app, units } = await published();
  const out = join(temporaryFolder(), 'site');
  const first = await app.site.publish(out, OPUS);
  writeFileSync(join(out, 'CNAME'), 'tidewrack.example');
  const again = await app.site.publish(out, OPUS);
  expect(again).toMatchObject({ written: 0, removed: 0, kept: first.written, pages: first.pages });
  // A price of one unit: its own page says so, and what lists it; older editions and clips stay.
  await app.scoring.notePrice(units[1].specimenId, { amount: 10, currency: 'EUR', kind: 'street', date: '2026-05-09' });
  const before = new Map(filesIn(out).map((f) => [f, readFileSync(join(out, f), 'utf8')]));
  const third = await app.site.publish(out, OPUS);
  const changed = filesIn(out).filter((f) => f !== 'sediment-site.json' && before.get(f) !== readFileSync(join(out, f), 'utf8')); // prettier-ignore
  expect(changed.some((f) => f.startsWith('reviews/oarlock-bosun'))).toBe(true);
  expect(changed.filter((f) => /edition-1|clips|assets/.test(f))).toEqual([]);
  expect(third.written).toBeGreaterThanOrEqual(changed.length);
  expect(third.written).toBeLessThan(first.written);
  // A file that somebody has taken away comes back.
  writeFileSync(join(out, 'all.html.part'), 'half');
  rmSync(join(out, 'all.html'));
  expect((await app.site.publish(out, OPUS)).written).toBe(1);
  // The unit goes for good, and its pages with it.
  const preview = await app.removals.preview('unit', units[1].specimenId);
  await app.removals.remove({ what: 'unit', id: units[1].specimenId, name: preview.unit, reason: '' });
  const last = await app.site.publish(out, OPUS);
  expect(last.removed).toBeGreaterThan(0);
  expect(filesIn(out).filter((f) => f.includes('oarlock-bosun'))).toEqual([]);
  expect(readFileSync(join(out, 'CNAME'), 'utf8')).toBe('tidewrack.example');
});

it('what is written again is what would be written anew, whatever has changed', async () => {
  const { app, units } = await published();
  const out = join(temporaryFolder(), 'site');
  await app.site.publish(out, OPUS);
  const sheet = await app.catalogue.sheet(units[2].specimenId);
  const speech = sheet.runs[0].takes.find((t) => t.id === units[2].takeId);
  const changes: Record<string, () => Promise<unknown>> = {
    'a price': () => app.scoring.notePrice(units[0].specimenId, { amount: 77, currency: 'EUR', kind: 'street', date: '2026-05-09' }), // prettier-ignore
    // Pages that name it lead to it from now on.
    'a review of a unit that others name': async () => {
      await publishedReview(app, units[2].specimenId, { headline: 'Third' });
    },
    // Its clip was heard on every page.
    'a take that is deleted': async () => {
      const { unit } = await app.removals.preview('take', speech?.id ?? '');
      await app.removals.remove({ what: 'take', id: speech?.id ?? '', name: unit, reason: '' });
    },
    'another name of the desk': async () => app.house.save({ ...(await app.house.current()), desk: 'Other desk' }),
    // Two that were alike are better now: the first falls behind them.
    'points by hand': async () => {
      for (const { specimenId } of units.slice(1))
        for (const criterion of ['sound', 'build', 'features'])
          await app.scoring.givePoints(specimenId, { criterion, value: 5 });
    },
  };
  for (const [what, change] of Object.entries(changes)) {
    await change();
    await app.site.publish(out, OPUS);
    const anew = join(temporaryFolder(), 'site');
    await app.site.publish(anew, OPUS);
    const text = (folder: string): string[][] =>
      filesIn(folder).filter((f) => f !== 'sediment-site.json').map((f) => [f, readFileSync(join(folder, f), 'latin1')]); // prettier-ignore
    expect(text(out), what).toEqual(text(anew));
  }
  expect(readFileSync(join(out, 'index.html'), 'utf8')).toContain('Other desk');
  // What changed among its kind is told beside what changed of itself.
  const [page] = filesIn(out).filter((f) => /oarlock-purser.*\/index\.html$/.test(f));
  const html = readFileSync(join(out, page), 'utf8');
  expect(html).toContain('77 EUR');
  expect(html).toMatch(/Place \d of \d → \d of \d|[Aa]bove it now|told apart above it/);
});

it('of two that write one site at once the second waits: what both leave is whole', async () => {
  const { app } = await published();
  const out = join(temporaryFolder(), 'site');
  const [first, second] = await Promise.all([app.site.publish(out, OPUS), app.site.publish(out, OPUS)]);
  expect(second).toEqual({ ...first, written: 0, kept: first.written });
  expect(filesIn(out).filter((f) => f.endsWith('.part'))).toEqual([]);
});

it('photographs of an edition go out with it, and go when they are deleted', async () => {
  const { app, units } = await published();
  const address = await serve(app);
  const picture = new Uint8Array(encode({ data: Buffer.alloc(16 * 8 * 4, 90), width: 16, height: 8 }, 90).data);
  const path = PLAIN_PATHS.photoUpload.replace(':id', units[2].specimenId);
  const sent = await fetch(`${address}${path}?subject=unit&caption=held&date=2026-05-01`, { method: 'POST', body: picture as BodyInit }); // prettier-ignore
  const { sha256 } = (await sent.json()) as { sha256: string };
  await publishedReview(app, units[2].specimenId, { headline: 'Third' });
  const out = join(temporaryFolder(), 'site');
  await app.site.publish(out, OPUS);
  const kept = await app.photographs.find(sha256);
  expect(readFileSync(join(out, `photos/${sha256}.jpeg`)).equals(readFileSync(kept?.path ?? ''))).toBe(true);
  const [page] = filesIn(out).filter((f) => /oarlock-steward.*index\.html$/.test(f));
  expect(readFileSync(join(out, page), 'utf8')).toContain(`photos/${sha256}.jpeg`);
  const [{ id: photo }] = (await app.catalogue.sheet(units[2].specimenId)).photographs;
  const { unit } = await app.removals.preview('photograph', photo);
  await app.removals.remove({ what: 'photograph', id: photo, name: unit, reason: '' });
  await app.site.publish(out, OPUS);
  expect(filesIn(out).filter((f) => f.startsWith('photos/'))).toEqual([]);
  expect(readFileSync(join(out, page), 'utf8')).not.toContain('photos/');
});

it('refuses a folder that holds something else, and changes nothing there', async () => {
  const { app } = await published();
  const out = temporaryFolder();
  mkdirSync(join(out, 'photos'));
  writeFileSync(join(out, 'index.html'), 'mine');
  await expect(app.site.publish(out, OPUS)).rejects.toThrow(/is not empty and holds no site/);
  expect(filesIn(out)).toEqual(['index.html']);
});

it('an archive with nothing published makes a site that says so', async () => {
  const app = await testApplication();
  const out = join(temporaryFolder(), 'site');
  await app.site.publish(out, OPUS);
  expect(readFileSync(join(out, 'index.html'), 'utf8')).toContain('Nothing is published yet.');
  expect(filesIn(out)).not.toContain('sitemap.xml');
});

it('a process that ended half-way leaves a folder that is published to again', async () => {
  const out = join(temporaryFolder(), 'site');
  await SiteFolder.open(out);
  writeFileSync(join(out, 'index.html.part'), 'half');
  const app = await testApplication();
  expect((await app.site.publish(out, OPUS)).written).toBeGreaterThan(0);
});
