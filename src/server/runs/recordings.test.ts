import { appendFileSync, mkdirSync, readdirSync, readlinkSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { encodeSamples } from '#core/audio/sample-encoder';
import { lcgNoise } from '#core/testing/signals';
import { readClip } from '#worker/read-clip';
import { emptyArchive, serve, temporaryFolder, testApplication } from '../testing/application';
import { startServer } from '../testing/process';
import { contiguous, withStretch } from './recordings';

const RATE = 48_000;
const START = { slot: null, step: null, sampleRateHz: RATE, channels: 1, device: 'a test', settings: {} };
/** Half a second of noise per chunk. */
const FRAMES = RATE / 2;
const SOUND = lcgNoise(8 * FRAMES, 0.5);
const chunk = (k: number): Uint8Array => encodeSamples('pcm24', [SOUND], k * FRAMES, FRAMES);

describe('stretches', () => {
  it('join where they meet, whatever the order', () => {
    const all = [
      { start: 20, end: 30 },
      { start: 0, end: 10 },
      { start: 10, end: 20 },
      { start: 5, end: 12 },
    ];
    let joined = withStretch([], all[0]);
    expect(contiguous(joined)).toBe(0);
    for (const s of all.slice(1)) joined = withStretch(joined, s);
    expect(joined).toEqual([{ start: 0, end: 30 }]);
    expect(contiguous(joined)).toBe(30);
    expect(withStretch(joined, { start: 40, end: 50 })).toHaveLength(2);
  });
});

describe('a recording', () => {
  it('becomes exactly the clip that was sent, with chunks late, twice, and out of order', async () => {
    const app = await testApplication();
    const { id } = await app.recordings.start(START);
    for (const k of [1, 0, 3, 3, 2, 0, 5, 4]) await app.recordings.write(id, k * FRAMES, chunk(k));
    const { clip } = await app.recordings.finish(id, 6 * FRAMES, 'take.wav');
    expect(clip.format).toMatchObject({ encoding: 'pcm24', sampleRateHz: RATE, channels: 1, durationS: 3 });
    const { samples } = await readClip((await app.store.find(clip.sha256)) as string);
    const sent = SOUND.subarray(0, 6 * FRAMES);
    // 24 bits: half a step is 2⁻²⁴.
    expect(samples.reduce((m, x, i) => Math.max(m, Math.abs(x - sent[i])), 0)).toBeLessThanOrEqual(2 ** -24);
    expect(await app.recordings.list()).toEqual([]);
  });

  it('holds few files open, however many were begun, and goes on with each', async () => {
    const app = await testApplication();
    const ids: string[] = [];
    for (let i = 0; i < 60; i++) ids.push((await app.recordings.start(START)).id);
    await Promise.all(ids.map((id) => app.recordings.write(id, 0, chunk(0))));
    await app.recordings.list();
    const open = readdirSync('/proc/self/fd').filter((fd) => {
      try {
        return readlinkSync(`/proc/self/fd/${fd}`).startsWith(join(app.status.dataFolder, 'recordings'));
      } catch {
        return false;
      }
    });
    // Two files each of 24 recordings, and of those that are just being closed.
    expect(open.length).toBeLessThanOrEqual(60);
    await app.recordings.write(ids[0], FRAMES, chunk(1));
    expect((await app.recordings.finish(ids[0], 2 * FRAMES, 'take.wav')).clip.format.durationS).toBe(1);
    expect(await app.recordings.list()).toHaveLength(59);
  });

  it('is not finished while a part is missing, and says which', async () => {
    const app = await testApplication();
    const { id } = await app.recordings.start(START);
    await app.recordings.write(id, 0, chunk(0));
    await app.recordings.write(id, 2 * FRAMES, chunk(2));
    await expect(app.recordings.finish(id, 3 * FRAMES, 'take.wav')).rejects.toMatchObject({
      code: 'recording-incomplete',
      details: [{ message: `frames ${FRAMES} to ${2 * FRAMES} are missing` }],
    });
    await app.recordings.write(id, FRAMES, chunk(1));
    expect((await app.recordings.finish(id, 3 * FRAMES, 'take.wav')).clip.format.durationS).toBe(1.5);
  });

  it('refuses half frames, strange numbers and recordings that are gone', async () => {
    const app = await testApplication();
    const address = await serve(app);
    const { id } = await app.recordings.start({ ...START, channels: 2 });
    await expect(app.recordings.write(id, 0, new Uint8Array(9))).rejects.toThrow(/whole frames/);
    await expect(app.recordings.write(id, 0, new Uint8Array())).rejects.toThrow(/whole frames/);
    const post = (path: string): Promise<Response> =>
      fetch(`${address}/api/recordings/${path}`, {
        method: 'POST',
        headers: { 'content-type': 'application/octet-stream' },
        body: new Uint8Array(6),
      });
    expect((await post(`${id}/chunks/-1`)).status).toBe(400);
    expect((await post(`..%2F..%2Fetc/chunks/0`)).status).toBe(400);
    expect((await post(`00000000-0000-4000-8000-000000000000/chunks/0`)).status).toBe(404);
    expect((await post(`${id}/chunks/0`)).status).toBe(200);
    await app.recordings.discard(id);
    await expect(app.recordings.write(id, 0, new Uint8Array(6))).rejects.toMatchObject({ code: 'not-found' });
    expect(readdirSync(join(app.status.dataFolder, 'recordings'))).toEqual([]);
  });

  it('survives a half-written journal line and a file that is shorter than the journal says', async () => {
    const folder = temporaryFolder();
    const first = await testApplication({ folder });
    const { id } = await first.recordings.start(START);
    for (const k of [0, 1]) await first.recordings.write(id, k * FRAMES, chunk(k));
    await first.recordings.close();
    const place = join(folder, 'recordings', id);
    // A crash in the middle of a line, and one that never reached the disk.
    appendFileSync(join(place, 'journal'), `${2 * FRAMES} ${3 * FRAMES}\n${3 * FRAMES} 9`);
    const again = await testApplication({ folder });
    expect(await again.recordings.list()).toMatchObject([{ id, frames: 2 * FRAMES, durationS: 1, isActive: false }]);
    // A folder that was being made when the power went.
    mkdirSync(join(folder, 'recordings', 'half'));
    writeFileSync(join(folder, 'recordings', 'half', 'meta.json'), '{"slot"');
    expect(await again.recordings.list()).toHaveLength(1);
    const { clip } = await again.recordings.finish(id, null, 'rest.wav');
    expect(clip.format.durationS).toBe(1);
    rmSync(join(folder, 'recordings', 'half'), { recursive: true });
  });

  it('loses nothing that was acknowledged when the server is killed in the middle', async () => {
    const folder = emptyArchive();
    const server = await startServer(folder);
    const json = async (address: string, path: string, body?: unknown) =>
      (await (
        await fetch(address + path, {
          method: body === undefined ? 'GET' : 'POST',
          headers: { 'content-type': 'application/json' },
          ...(body === undefined ? {} : { body: JSON.stringify(body) }),
        })
      ).json()) as {
        id: string;
        frames: number;
        durationS: number;
        clip: { sha256: string; format: { durationS: number } };
      };
    const send = (address: string, id: string, k: number): Promise<Response> =>
      fetch(`${address}/api/recordings/${id}/chunks/${k * FRAMES}`, {
        method: 'POST',
        headers: { 'content-type': 'application/octet-stream' },
        body: chunk(k) as Uint8Array<ArrayBuffer>,
      });
    const { id } = await json(server.address, '/api/recordings', START);
    let acknowledged = 0;
    for (let k = 0; k < 5; k++) {
      const { frames } = (await (await send(server.address, id, k)).json()) as { frames: number };
      acknowledged = frames;
    }
    expect(acknowledged).toBe(5 * FRAMES);
    // The sixth is on its way when the process dies.
    const last = send(server.address, id, 5).catch(() => null);
    await server.kill('SIGKILL');
    await last;
    const again = await startServer(folder);
    const [left] = (await json(again.address, '/api/recordings')) as unknown as { id: string; frames: number }[];
    expect(left.id).toBe(id);
    expect(left.frames).toBeGreaterThanOrEqual(acknowledged);
    // The page sends what was not acknowledged, and goes on.
    for (const k of [5, 6]) expect((await send(again.address, id, k)).status).toBe(200);
    const { clip } = await json(again.address, `/api/recordings/${id}/finish`, { frames: 7 * FRAMES });
    expect(clip.format.durationS).toBe(3.5);
  }, 90_000);
});
