import { createHash } from 'node:crypto';
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { expect, it } from 'vitest';
import { editionSchema } from '#contracts/edition';
import { PLAIN_PATHS } from '#contracts/http';
import { boardExportSchema, rankingExportSchema } from '#contracts/kind-tables';
import type { ReviewDocument } from '#contracts/review';
import { serve, temporaryFolder, testApplication } from '../testing/application';
import { importUnits } from '../testing/heard-catalogue';

async function withUnits(count = 3) {
  const folder = temporaryFolder();
  const app = await testApplication({ folder });
  const units = await importUnits(app, count);
  return { app, units, folder };
}

const written = (document: ReviewDocument): ReviewDocument => ({ ...document, headline: 'Quiet', summary: 'It is quiet.' }); // prettier-ignore

it('a review is opened with what can be heard, written, frozen, and held against what comes later', async () => {
  const { app, units } = await withUnits();
  const { reviews, scoring, database } = app;
  const unit = units[0].specimenId;
  await scoring.notePrice(unit, { amount: 200, currency: 'EUR', kind: 'street', date: '2026-05-01' });
  const { id } = await reviews.open(unit);
  const opened = await reviews.get(id);
  // Proposed to be heard; not a word is written.
  expect(opened.document.decks).toHaveLength(1);
  expect(opened.document.decks[0].takes[0]).toBe(units[0].takeId);
  expect({ ...opened.document, decks: [] }).toMatchObject({ headline: '', summary: '', pros: [], cons: [], uses: [] });
  await expect(reviews.publish(id, opened.revision)).rejects.toMatchObject({ details: [{ field: 'headline' }, { field: 'summary' }] }); // prettier-ignore

  const saved = await reviews.save(id, opened.revision, written(opened.document));
  await expect(reviews.save(id, opened.revision, written(opened.document))).rejects.toThrow(/saved meanwhile/);
  await expect(reviews.publish(id, opened.revision)).rejects.toThrow(/saved meanwhile/);
  const published = await reviews.publish(id, saved.revision);
  expect(published).toMatchObject({
    isChanged: false,
    editions: [{ number: 1, publishedOn: '2026-05-10', since: [] }],
  });
  await expect(reviews.publish(id, saved.revision)).rejects.toMatchObject({ details: [{ message: 'nothing has changed since edition 1' }] }); // prettier-ignore
  await expect(reviews.discard(id)).rejects.toThrow(/what is published stays/);

  const kept = await reviews.edition(published.editions[0].id);
  expect(editionSchema.parse(JSON.parse(kept.document))).toEqual(kept.edition);
  expect(createHash('sha256').update(kept.document).digest('hex')).toBe(kept.sha256);
  const own = (await app.catalogue.sheet(unit)).runs[0].takes.find((t) => t.id === units[0].takeId);
  expect(kept.edition.decks[0].lanes[0].sha256).toBe(own?.clip.sha256);
  expect(kept.edition.price).toMatchObject({ amount: 200 });
  // The database itself lets no edition be changed.
  await expect(database.query(`UPDATE edition SET document = '{}'`)).rejects.toThrow(/never changed/);

  await scoring.notePrice(unit, { amount: 150, currency: 'EUR', kind: 'street', date: '2026-05-09' });
  const later = await reviews.get(id);
  expect(later.editions[0].since.map((c) => c.text)).toEqual(expect.arrayContaining([expect.stringMatching(/200 EUR .* → 150 EUR .*, −25 %$/)])); // prettier-ignore
  expect((await reviews.list())[0]).toMatchObject({ editions: 1, headline: 'Quiet' });
  const second = await reviews.publish(id, later.revision);
  expect(second.editions.map((e) => e.number)).toEqual([2, 1]);
  expect(second.editions[0].changes.some((c) => c.what === 'price')).toBe(true);
  // The list says it, too, against the newest edition alone: the price that edition 1 said is no news of edition 2.
  expect(await reviews.held([id])).toMatchObject([{ since: [] }]);
  await scoring.notePrice(unit, { amount: 140, currency: 'EUR', kind: 'street', date: '2026-05-10' });
  expect((await reviews.held([id]))[0].since.map((c) => c.text)).toEqual(expect.arrayContaining([expect.stringMatching(/150 EUR .* → 140 EUR/)])); // prettier-ignore
  const third = await reviews.publish(id, (await reviews.get(id)).revision);
  expect(third.editions[0].changes.filter((c) => c.what === 'price').map((c) => c.text)).toEqual([expect.stringMatching(/150 EUR .* → 140 EUR/)]); // prettier-ignore
  // What was frozen says what it said.
  expect((await reviews.edition(kept.id)).document).toBe(kept.document);
});

it('lines that rest on facts which changed are marked, and nothing that was written changes by itself', async () => {
  const { app, units } = await withUnits();
  const { reviews, relations } = app;
  const unit = units[0].specimenId;
  const { id: relation } = await relations.add(unit, { kind: 'needs', other: null, name: 'pop filter', uses: [], price: null }); // prettier-ignore
  const { id } = await reviews.open(unit);
  const review = await reviews.get(id);
  const needs = review.proposals.find((p) => p.restsOn.rule === 'needs')!;
  expect(needs.text).toBe('Needs pop filter, which is not in the price');
  const cons = [{ text: 'Buy a filter with it', restsOn: needs.restsOn }];
  const saved = await reviews.save(id, review.revision, { ...written(review.document), cons });
  expect(saved.marks).toEqual([]);
  await relations.end(relation);
  const after = await reviews.get(id);
  expect(after.marks).toMatchObject([{ restsOn: { rule: 'needs' }, now: null }]);
  expect(after.document.cons).toEqual(cons);
  expect((await reviews.held([id]))[0].marks).toBe(1);
});

it('goes with its unit: to the one that it is merged into, and with it for good', async () => {
  const { app, units } = await withUnits();
  const { reviews, corrections, removals } = app;
  const { id } = await reviews.open(units[0].specimenId);
  const review = await reviews.get(id);
  await reviews.publish(id, (await reviews.save(id, 1, written(review.document))).revision);
  await corrections.correct({ change: { kind: 'unit-merged', unit: units[0].specimenId, into: units[1].specimenId, isMerged: true }, reason: '' }); // prettier-ignore
  expect((await reviews.get(id)).unit.id).toBe(units[1].specimenId);
  const preview = await removals.preview('unit', units[1].specimenId);
  expect(preview.goes).toContain('one review, with every edition of it that was published');
  await removals.remove({ what: 'unit', id: units[1].specimenId, name: preview.unit, reason: '' });
  expect(await reviews.list()).toEqual([]);
});

it('how the desk reviews: of two that go on from one version the second is told, and no figure is made up', async () => {
  const { app } = await withUnits(1);
  const house = await app.house.current();
  expect(house.version).toBe(0);
  const saved = await app.house.save({ ...house, desk: 'Tidewrack' });
  expect(saved).toMatchObject({ version: 1, desk: 'Tidewrack' });
  await expect(app.house.save({ ...house, desk: 'Other' })).rejects.toMatchObject({ details: [{ field: 'version' }] });
  const uses = [{ name: 'x', kinds: [], wants: [{ figure: 'warmth', atLeast: 1, atMost: null }] }];
  await expect(app.house.save({ ...saved, uses })).rejects.toMatchObject({ details: [{ field: 'uses.0.wants.0.figure' }] }); // prettier-ignore
  expect((await app.house.current()).desk).toBe('Tidewrack');
});

it('hands an edition out as a page, a text, its document, and tables', async () => {
  const { app, units, folder } = await withUnits();
  const { reviews } = app;
  const { id } = await reviews.open(units[0].specimenId);
  const review = await reviews.get(id);
  const { editions } = await reviews.publish(id, (await reviews.save(id, 1, written(review.document))).revision);
  const address = await serve(app);
  const at = (name: keyof typeof PLAIN_PATHS, query = '') => fetch(address + PLAIN_PATHS[name].replace(':id', editions[0].id).replace(':category', 'microphone') + query); // prettier-ignore

  const page = await at('editionPage', '?clips=opus-64');
  expect(page.headers.get('content-disposition')).toMatch(/^attachment; filename=.*-edition-1\.html$/);
  const html = await page.text();
  const lanes = (await reviews.edition(editions[0].id)).edition.decks[0].lanes;
  expect(lanes.length).toBeGreaterThan(1);
  const clips = [...html.matchAll(/<script id="clip-[^"]+" type="text\/plain">([^<]+)</g)].map((m) => Buffer.from(m[1], 'base64')); // prettier-ignore
  expect(clips).toHaveLength(lanes.length);
  for (const clip of clips) expect(clip.subarray(0, 4).toString('latin1')).toBe('OggS');
  // Made once, kept as files, made again where they are gone.
  expect(readdirSync(join(folder, 'derived', 'handed'))).toHaveLength(lanes.length);
  expect(await (await at('editionPage', '?clips=none')).text()).not.toContain('id="clip-');
  expect((await at('editionPage', '?clips=mp3')).status).toBe(400);
  expect((await at('editionPage', '?clips=opus-511')).status).toBe(400);

  expect(await (await at('editionMarkdown')).text()).toMatch(/\*\*Quiet\*\*/);
  const film = await at('editionFilm', '?most=200');
  expect((await film.text()).length).toBeLessThanOrEqual(200);
  expect(film.headers.get('sediment-left-out')).toContain('chapters');
  const document = await (await at('editionDocument')).text();
  expect(createHash('sha256').update(document).digest('hex')).toBe(editions[0].sha256);
  const semicolons = await (await at('rankingCsv', '?style=semicolon')).text();
  expect(semicolons.split('\r\n')[0]).toMatch(/^\ufeff?place;stratum;unit;/);
  expect(semicolons.trim().split('\r\n')).toHaveLength(units.length + 1);
  expect((await (await at('boardCsv')).text()).split('\r\n')[0]).toMatch(/unit,.*Noise re speech/);
  expect((await at('boardCsv', '?style=tabs')).status).toBe(400);
  // The same facts as documents, by their schemas; a figure that is not there is null, never zero.
  const ranking = rankingExportSchema.parse(await (await at('rankingJson')).json());
  expect(ranking.units.map((u) => u.place)).toEqual(units.map((_, i) => i + 1));
  expect(ranking.units[0].points90[0]).toBeLessThanOrEqual(ranking.units[0].points);
  expect(semicolons).toContain(`;${ranking.units[0].unit};`);
  const board = boardExportSchema.parse(await (await at('boardJson')).json());
  expect(board.units).toHaveLength(units.length);
  const facts = board.units.flatMap((u) => Object.values(u.figures));
  expect(facts.every((f) => (f.value === null) === (f.notMeasured !== null))).toBe(true);
});

it('of two that publish at once one is told, and a clip that is gone is named with its step', async () => {
  const { app, units } = await withUnits();
  const { reviews, removals } = app;
  const { id } = await reviews.open(units[0].specimenId);
  const review = await reviews.get(id);
  const saved = await reviews.save(id, 1, written(review.document));
  const both = await Promise.allSettled([reviews.publish(id, saved.revision), reviews.publish(id, saved.revision)]);
  expect(both.map((b) => b.status).sort()).toEqual(['fulfilled', 'rejected']);
  const refused = both.find((b) => b.status === 'rejected');
  expect(String(refused?.reason)).toMatch(/published meanwhile|nothing has changed|cannot be published/);
  expect((await reviews.get(id)).editions).toHaveLength(1);

  const [, rival] = saved.document.decks[0].takes;
  const of = units.find((u) => u.takeId === rival);
  const preview = await removals.preview('take', rival);
  await removals.remove({ what: 'take', id: rival, name: preview.unit, reason: '' });
  const again = await reviews.save(id, saved.revision, { ...saved.document, headline: 'Other' });
  await expect(reviews.publish(id, again.revision)).rejects.toMatchObject({
    details: [{ field: 'decks.0', message: expect.stringContaining(rival) as string }],
  });
  expect(of).toBeDefined();
  const without = again.document.decks.map((d) => ({ ...d, takes: d.takes.filter((t) => t !== rival) }));
  const mended = await reviews.save(id, again.revision, { ...again.document, decks: without });
  expect((await reviews.publish(id, mended.revision)).editions).toHaveLength(2);
});

it('writes the site for callers at this machine, in an empty folder or its own', async () => {
  const { app, folder } = await withUnits(1);
  const address = await serve(app);
  const post = (body: object) => fetch(`${address}/api/site`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }); // prettier-ignore
  const first = await post({});
  expect(await first.json()).toMatchObject({ folder: join(folder, 'site'), removed: 0 });
  expect((await post({ out: 'relative' })).status).toBe(400);
  const taken = await post({ out: folder });
  expect(taken.status).toBe(400);
  expect(JSON.stringify(await taken.json())).toContain('holds no site of Sediment');
});

it('a unit says where its review stands: begun, published, thrown away; and is asked for again after another test', async () => {
  const { app, units } = await withUnits(1);
  const { reviews, catalogue } = app;
  const unit = units[0].specimenId;
  const row = () => catalogue.specimen(unit);
  expect((await row()).review).toBeNull();
  const thrown = await reviews.open(unit);
  expect((await row()).review).toEqual({ id: thrown.id, publishedOn: null });
  await reviews.discard(thrown.id);
  expect((await row()).review).toBeNull();
  const { id } = await reviews.open(unit);
  const { document, revision } = await reviews.get(id);
  const saved = await reviews.save(id, revision, written(document));
  await reviews.publish(id, saved.revision);
  expect(await row()).toMatchObject({ review: { id, publishedOn: '2026-05-10' } });
  // A second one that was only begun does not hide the one that is published.
  await reviews.open(unit);
  expect((await row()).review?.id).toBe(id);
  expect(await reviews.held([id, '999', id])).toEqual([{ id, marks: 0, since: [] }]);
  expect((await reviews.listOf(unit)).map((r) => r.editions)).toEqual([0, 1]);
});
