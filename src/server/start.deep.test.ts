import { spawnSync } from 'node:child_process';
import { cpSync, existsSync, mkdirSync, readdirSync, rmSync, truncateSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { archiveStateSchema } from '#contracts/archive';
import { ENDPOINTS, PLAIN_PATHS } from '#contracts/http';
import { problemSchema } from '#contracts/problem';
import { openPglite } from './platform/db/pglite-database';
import { packageRoot } from './platform/package-root';
import { emptyArchive, takeWav } from './testing/application';
import { startServer } from './testing/process';
import { canMount, smallDisk } from './testing/small-disk';

/** Starts the server and waits until it ends by itself. */
function refusedStart(folder: string, ...args: string[]): { code: number | null; said: string } {
  const { status, stderr } = spawnSync(process.execPath, [join(packageRoot, 'dist/node/main.js'), ...args], {
    env: { ...process.env, SEDIMENT_DATA: folder, SEDIMENT_PORT: '4999' },
    timeout: 60_000,
  });
  return { code: status, said: stderr.toString() };
}

const upload = (address: string, name: string, bytes: Uint8Array<ArrayBuffer>): Promise<Response> =>
  fetch(`${address}${PLAIN_PATHS.upload}?name=${name}`, { method: 'POST', body: bytes });
const archive = async (address: string) =>
  archiveStateSchema.parse(await (await fetch(address + ENDPOINTS.archive.path)).json());
const problemOf = async (response: Response) => problemSchema.parse(await response.json()).error;

/** A chain of devices, as short as it can be noted. */
const RIG = {
  since: '2026-01-01',
  room: 'loft',
  interface: 'two inputs',
  preamp: 'none',
  cables: 'short',
  stand: 'desk',
  software: 'own',
};

describe('a start beside clips', () => {
  // Starts the server again and again.
  it(
    'is refused in words where the database is missing, empty or damaged, and a new one is made when told to',
    { timeout: 300_000 },
    async () => {
      const folder = emptyArchive();
      const first = await startServer(folder);
      expect((await upload(first.address, 'speech.wav', takeWav(-14, -70))).status).toBe(200);
      await first.kill('SIGTERM');
      const database = join(folder, 'database');

      truncateSync(join(database, 'global', 'pg_control'), 0);
      const damaged = refusedStart(folder);
      expect(damaged.code).toBe(1);
      expect(damaged.said).toMatch(/is damaged .*clips are untouched.*last backup/s);
      writeFileSync(join(database, 'global', 'pg_control'), Buffer.alloc(8192, 7));
      expect(refusedStart(folder).said).toMatch(/is damaged .*last backup/s);

      rmSync(database, { recursive: true });
      expect(refusedStart(folder).said).toMatch(/There are clips in .* but no database/);
      mkdirSync(database);
      expect(refusedStart(folder).said).toMatch(/There are clips in .* but no database/);
      expect(existsSync(join(folder, 'database'))).toBe(false);

      const anew = await startServer(folder, ['--new-database']);
      expect((await archive(anew.address)).clips).toBe(1);
      await anew.kill('SIGTERM');
    },
  );

  it('is refused for an archive that a newer version has written, before anything is changed', async () => {
    const folder = emptyArchive();
    const database = await openPglite({ folder: join(folder, 'database') });
    await database.query("INSERT INTO schema_migration (name, body) VALUES ('9999_from_the_future.sql', '')");
    await database.close();
    const refused = refusedStart(folder);
    expect(refused.code).toBe(1);
    expect(refused.said).toMatch(/newer Sediment.*9999_from_the_future/s);
  });
});

describe('what is bad in an archive', () => {
  it('is named and passed over: strays, clips under a false name, dead and unreadable recordings, half pictures', async () => {
    const folder = emptyArchive();
    const put = (path: string, bytes: Uint8Array | string): void => {
      mkdirSync(join(folder, path, '..'), { recursive: true });
      writeFileSync(join(folder, path), bytes);
    };
    const falseName = `clips/ab/ab${'0'.repeat(62)}.wav`;
    put('clips/.DS_Store', 'x');
    put('clips/ab/Thumbs.db', 'x');
    put(falseName, takeWav(-14, -70));
    put('derived/x.part', 'half');
    put('recordings/never-begun/meta.json', '{}');
    put('recordings/unreadable/meta.json', '{"half');
    put('recordings/unreadable/audio.pcm', 'abc');
    put('incoming/left-over/1.wav', 'x');
    const server = await startServer(folder);
    const { setAside, clips } = await archive(server.address);
    expect(clips).toBe(0);
    expect(setAside.map((s) => s.name).sort()).toEqual(
      ['clips/.DS_Store', 'clips/ab/Thumbs.db', falseName, 'recordings/unreadable'].sort(),
    );
    expect(server.output()).toMatch(/4 things in this archive cannot be used/);
    expect(readdirSync(join(folder, 'incoming'))).toEqual([]);
    expect(readdirSync(join(folder, 'derived'))).toEqual([]);
    expect(readdirSync(join(folder, 'recordings'))).toEqual(['unreadable']);
    expect(existsSync(join(folder, falseName))).toBe(true);
    await server.kill('SIGTERM');
  });
});

describe.runIf(canMount)('a full disk', () => {
  it('is said in words, keeps what was acknowledged, and is over when there is room', async () => {
    const disk = smallDisk(180);
    cpSync(emptyArchive(), disk.folder, { recursive: true });
    const server = await startServer(disk.folder);
    const price = (amount: number): Promise<Response> =>
      fetch(`${server.address}/api/rigs`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ ...RIG, name: `desk ${amount}` }),
      });
    const kept = takeWav(-14, -70);
    expect((await upload(server.address, 'kept.wav', kept)).status).toBe(200);
    expect((await price(1)).status).toBe(200);
    const started = await fetch(`${server.address}/api/recordings`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ slot: null, step: null, sampleRateHz: 48_000, channels: 1, device: 'a test' }),
    });
    const { id } = (await started.json()) as { id: string };
    const chunk = (frame: number): Promise<Response> =>
      fetch(server.address + PLAIN_PATHS.chunk.replace(':id', id).replace(':frame', String(frame)), {
        method: 'POST',
        headers: { 'content-type': 'application/octet-stream' },
        body: new Uint8Array(72_000),
      });
    expect((await chunk(0)).status).toBe(200);

    disk.fill(50_000);
    const answers = [await price(2), await chunk(24_000), await upload(server.address, 'late.wav', takeWav(-20, -60))];
    for (const answer of answers) {
      expect(answer.status).toBe(507);
      expect((await problemOf(answer)).message).toMatch(/no space left/);
    }
    // Reading goes on.
    expect((await fetch(`${server.address}/api/rigs`)).status).toBe(200);
    expect(readdirSync(join(disk.folder, 'incoming'))).toEqual([]);

    disk.free();
    expect((await price(3)).status).toBe(200);
    expect((await chunk(24_000)).status).toBe(200);
    const finished = await fetch(`${server.address}/api/recordings/${id}/finish`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ frames: 48_000 }),
    });
    expect(finished.status).toBe(200);
    const rigs = (await (await fetch(`${server.address}/api/rigs`)).json()) as { document: { name: string } }[];
    expect(rigs.map((r) => r.document.name).sort()).toEqual(['desk 1', 'desk 3']);
    await server.kill('SIGKILL');

    disk.fill(0);
    const again = refusedStart(disk.folder);
    expect(again.code).toBe(1);
    expect(again.said).toMatch(/no space left/);
    disk.free();
    const after = await startServer(disk.folder);
    expect((await archive(after.address)).clips).toBe(2);
    await after.kill('SIGTERM');
    disk.readOnly();
    const refused = refusedStart(disk.folder);
    expect(refused.code).toBe(1);
    expect(refused.said).toMatch(/cannot be written to/);
  });
});
