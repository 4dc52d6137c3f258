import { createHash } from 'node:crypto';
import { mkdirSync, readdirSync, utimesSync, writeFileSync } from 'node:fs';
import { request } from 'node:http';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { describe, expect, it } from 'vitest';
import { ENDPOINTS, PLAIN_PATHS } from '#contracts/http';
import { serve, takeWav, temporaryFolder, testApplication } from '../testing/application';

const WAV = takeWav(-14, -70);
const part = (from: number, to: number): Readable => Readable.from([Buffer.from(WAV.subarray(from, to))]);

describe('an upload in parts', () => {
  it('becomes the clip that was sent, whatever breaks off between', async () => {
    const app = await testApplication();
    const address = await serve(app);
    const { id } = await app.uploads.begin({ name: 'long.wav', bytes: WAV.length });
    expect((await app.uploads.add(id, 0, part(0, 50_000))).offset).toBe(50_000);
    await expect(app.uploads.add(id, 40_000, part(40_000, 60_000))).rejects.toThrow('50000 bytes are there');
    await expect(app.uploads.finish(id, { keepPart: false, decoded: null })).rejects.toThrow(/50000 of \d+ bytes/);
    // A connection that dies in the middle of a part leaves what has arrived of it.
    const { hostname, port } = new URL(address);
    const path = PLAIN_PATHS.uploadPart.replace(':id', id).replace(':offset', '50000');
    await new Promise<void>((resolve) => {
      const sending = request({ hostname, port, path, method: 'PATCH', headers: { 'content-length': 100_000 } });
      sending.on('error', () => resolve());
      sending.on('close', () => resolve());
      sending.write(Buffer.from(WAV.subarray(50_000, 80_000)));
      setTimeout(() => sending.destroy(), 300);
    });
    await expect.poll(async () => (await app.uploads.state(id)).offset).toBe(80_000);
    // Until the server has noticed that the connection is gone, the old part is still on its way.
    const rest = (): Promise<string> => app.uploads.add(id, 80_000, part(80_000, WAV.length)).then(() => 'added', (e: unknown) => String(e)); // prettier-ignore
    await expect.poll(rest, { timeout: 10_000 }).toBe('added');
    const { sha256 } = await app.uploads.finish(id, { keepPart: false, decoded: null });
    expect(sha256).toBe(createHash('sha256').update(WAV).digest('hex'));
    expect(await app.store.check(sha256)).toBeNull();
    expect(readdirSync(join(app.status.dataFolder, 'uploads'))).toEqual([]);
    const state = await fetch(address + ENDPOINTS.uploadState.path.replace(':id', id));
    expect(state.status).toBe(404);
  });

  it('takes no more than was said, and stays where its sound is refused, so that a part can be kept', async () => {
    const app = await testApplication();
    const cut = WAV.slice(0, 44 + 3 * 24_000);
    const { id } = await app.uploads.begin({ name: 'cut.wav', bytes: cut.length });
    await expect(app.uploads.add(id, 0, part(0, cut.length + 10))).rejects.toMatchObject({ code: 'too-large' });
    const { offset } = await app.uploads.state(id);
    await app.uploads.add(id, offset, part(offset, cut.length));
    await expect(app.uploads.finish(id, { keepPart: false, decoded: null })).rejects.toMatchObject({
      code: 'clip-truncated',
    });
    expect((await app.uploads.finish(id, { keepPart: true, decoded: null })).format.durationS).toBe(1.5);
    await expect(app.uploads.begin({ name: 'huge.wav', bytes: 2 ** 50 })).rejects.toMatchObject({
      code: 'storage-full',
    });
  });

  it('goes on after a restart, for a week', async () => {
    const folder = temporaryFolder();
    const first = await testApplication({ folder });
    const { id } = await first.uploads.begin({ name: 'long.wav', bytes: WAV.length });
    await first.uploads.add(id, 0, part(0, 1000));
    const old = join(folder, 'uploads', 'forgotten');
    mkdirSync(old);
    writeFileSync(join(old, 'bytes'), 'x');
    // The clock of the tests stands in May 2026.
    utimesSync(join(old, 'bytes'), new Date('2026-05-02'), new Date('2026-05-02'));
    const second = await testApplication({ folder });
    expect((await second.uploads.state(id)).offset).toBe(1000);
    expect(readdirSync(join(folder, 'uploads'))).toEqual([id]);
  });
});
