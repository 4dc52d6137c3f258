import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { encode } from 'jpeg-js';
import { expect, it } from 'vitest';
import { PLAIN_PATHS } from '#contracts/http';
import { photographSchema } from '#contracts/photograph';
import { problemSchema } from '#contracts/problem';
import { serve, temporaryFolder, testApplication } from '../testing/application';

const picture = (shade: number): Uint8Array =>
  new Uint8Array(encode({ data: Buffer.alloc(16 * 8 * 4, shade), width: 16, height: 8 }, 90).data);

async function open() {
  const folder = temporaryFolder();
  const app = await testApplication({ folder });
  const address = await serve(app);
  const add = (label: string) => app.scoring.addUnit({ maker: 'Oarlock', model: 'Purser', label, category: 'microphone' }); // prettier-ignore
  const { id } = await add('A');
  const send = (unit: string, body: Uint8Array | string, query = 'subject=unit&date=2026-05-01') =>
    fetch(`${address}${PLAIN_PATHS.photoUpload.replace(':id', unit)}?${query}`, {
      method: 'POST',
      body: body as BodyInit,
    });
  const files = () =>
    existsSync(join(folder, 'photos')) ? readdirSync(join(folder, 'photos')).flatMap((s) => readdirSync(join(folder, 'photos', s))) : []; // prettier-ignore
  return { app, address, folder, id, add, send, files };
}

it('keeps a photograph by its hash, shows it with its caption, and leaves it out and back', async () => {
  const { app, address, id, send, files } = await open();
  const response = await send(id, picture(40), 'subject=box&caption=with%20its%20case&date=2026-05-01');
  const photo = photographSchema.parse(await response.json());
  expect(photo).toMatchObject({
    subject: 'box',
    caption: 'with its case',
    date: '2026-05-01',
    widthPx: 16,
    heightPx: 8,
  });
  // The same again is one file.
  await send(id, picture(40));
  expect(files()).toEqual([`${photo.sha256}.jpeg`]);
  const shown = await fetch(address + PLAIN_PATHS.photo.replace(':sha256', photo.sha256));
  expect([shown.status, shown.headers.get('content-type')]).toEqual([200, 'image/jpeg']);
  expect((await shown.arrayBuffer()).byteLength).toBe(photo.bytes);
  const sheet = async () => (await app.catalogue.sheet(id)).photographs.map((p) => p.subject);
  expect(await sheet()).toEqual(['unit', 'box']);
  const change = { kind: 'photograph-left-out', photograph: photo.id, isOut: true } as const;
  const { id: correction } = await app.corrections.correct({ change, reason: '' });
  expect(await sheet()).toEqual(['unit']);
  expect((await app.corrections.list(id))[0].text).toBe('Photograph of 2026-05-01 “with its case” left out');
  await app.corrections.undo(correction);
  expect(await sheet()).toEqual(['unit', 'box']);
});

it('refuses what is no picture, no unit and no day, in words, and keeps nothing of it', async () => {
  const { id, send, files, folder, address } = await open();
  const problem = async (response: Response) => problemSchema.parse(await response.json()).error.message;
  const half = picture(40).subarray(0, 200);
  const refused = await send(id, half);
  expect([refused.status, await problem(refused)]).toEqual([422, 'This JPEG is not whole: it ends before its picture does.']); // prettier-ignore
  expect(await problem(await send(id, 'words'))).toMatch(/no picture that is known/);
  expect((await send('99', picture(40))).status).toBe(404);
  expect((await send(id, picture(40), 'subject=cat&date=2026-05-01')).status).toBe(400);
  expect((await send(id, picture(40), 'subject=unit')).status).toBe(400);
  expect(files()).toEqual([]);
  expect(readdirSync(join(folder, 'incoming'))).toEqual([]);
  expect((await fetch(address + PLAIN_PATHS.photo.replace(':sha256', 'f'.repeat(64)))).status).toBe(404);
});

it('goes for good by itself or with its unit; a file that is another unit’s as well stays', async () => {
  const { app, id, add, send, files } = await open();
  const { id: other } = await add('B');
  const photo = photographSchema.parse(await (await send(id, picture(40))).json());
  await send(other, picture(40));
  await send(id, picture(90));
  expect(files()).toHaveLength(2);
  const name = 'Oarlock Purser A';
  expect((await app.removals.preview('photograph', photo.id)).goes).toEqual(['one photograph']);
  await app.removals.remove({ what: 'photograph', id: photo.id, name, reason: '' });
  expect(files()).toHaveLength(2);
  expect((await app.removals.preview('unit', id)).goes).toEqual(['the unit itself', 'one photograph']);
  await app.removals.remove({ what: 'unit', id, name, reason: '' });
  expect(files()).toEqual([`${photo.sha256}.jpeg`]);
  expect((await app.removals.list()).map((r) => r.text)).toEqual([
    'Oarlock Purser · A',
    'Photograph of 2026-05-01, of Oarlock Purser · A',
  ]);
});
