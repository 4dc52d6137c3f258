import { readFileSync } from 'node:fs';
import { encode } from 'jpeg-js';
import { expect, it } from 'vitest';
import { PLAIN_PATHS } from '#contracts/http';
import { serve, testApplication } from '../testing/application';
import { importUnits } from '../testing/heard-catalogue';
import { withinBudget } from './within-budget';

it('a photograph goes inside the one file, byte by byte', async () => {
  const app = await testApplication();
  const [unit] = await importUnits(app, 1);
  const address = await serve(app);
  const picture = new Uint8Array(encode({ data: Buffer.alloc(16 * 8 * 4, 90), width: 16, height: 8 }, 90).data);
  const path = PLAIN_PATHS.photoUpload.replace(':id', unit.specimenId);
  const sent = await fetch(`${address}${path}?subject=unit&caption=in%20the%20hand&date=2026-05-01`, { method: 'POST', body: picture as BodyInit }); // prettier-ignore
  const { sha256 } = (await sent.json()) as { sha256: string };
  const { id } = await app.reviews.open(unit.specimenId);
  const { document, revision } = await app.reviews.get(id);
  const saved = await app.reviews.save(id, revision, { ...document, headline: 'Quiet', summary: 'x' });
  const { editions } = await app.reviews.publish(id, saved.revision);
  const { html } = await app.handouts.page(editions[0].id, null);
  const [, base64] = /<img src="data:image\/jpeg;base64,([^"]+)" alt="in the hand"/.exec(html) ?? [];
  const kept = await app.photographs.find(sha256);
  expect(Buffer.from(base64 ?? '', 'base64').equals(readFileSync(kept?.path ?? ''))).toBe(true);
  expect(html).toContain('<figcaption>in the hand</figcaption>');
});

it('what does not fit is passed over, what fits behind it is taken', () => {
  const of = (...bytes: number[]) => bytes.map((b) => ({ bytes: b }));
  expect(withinBudget(of(5, 7, 4, 1), 10)).toEqual(of(5, 4, 1));
  expect(withinBudget(of(10), 10)).toEqual(of(10));
  expect(withinBudget(of(11), 10)).toEqual([]);
});
