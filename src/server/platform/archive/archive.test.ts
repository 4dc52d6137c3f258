import { createHash } from 'node:crypto';
import { spawnSync } from 'node:child_process';
import { mkdirSync, readdirSync, readFileSync, rmSync, statSync, utimesSync, writeFileSync } from 'node:fs';
import { hostname } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { describe, expect, it } from 'vitest';
import { temporaryFolder } from '../../testing/application';
import { openClipStore } from './clip-store';
import { StartRefused } from '../start-refused';
import { markDataFolder } from './data-folder';
import { FolderInUse, holderOf, lockDataFolder } from './data-folder-lock';
import { takeOsLock } from './os-lock';

const sha = (text: string): string => createHash('sha256').update(text).digest('hex');

describe('clip store', () => {
  it('keeps a file under the hash of its bytes, once', async () => {
    const store = await openClipStore(temporaryFolder());
    const file = await store.receive(Readable.from([Buffer.from('some '), Buffer.from('sound')]));
    expect(file).toMatchObject({ sha256: sha('some sound'), bytes: 10 });
    expect(await store.find(file.sha256)).toBeNull();
    const path = await store.keep(file, 'wav');
    expect(readFileSync(path, 'utf8')).toBe('some sound');
    expect(await store.find(file.sha256)).toBe(path);
    const again = await store.receive(Readable.from([Buffer.from('some sound')]));
    expect(await store.keep(again, 'wav')).toBe(path);
    const listed = [];
    for await (const clip of store.list()) listed.push(clip.sha256);
    expect(listed).toEqual([file.sha256]);
  });

  it('leaves nothing of an upload that breaks off', async () => {
    const folder = temporaryFolder();
    const store = await openClipStore(folder);
    async function* broken(): AsyncGenerator<Buffer> {
      yield Buffer.alloc(100_000, 1);
      await Promise.resolve();
      throw new Error('the line went dead');
    }
    await expect(store.receive(Readable.from(broken()))).rejects.toThrow('the line went dead');
    expect(readdirSync(join(folder, 'incoming'))).toEqual([]);
  });

  it('sweeps what an ended process left half-written', async () => {
    const folder = temporaryFolder();
    await openClipStore(folder);
    writeFileSync(join(folder, 'incoming', 'x.part'), 'half a');
    const store = await openClipStore(folder);
    expect(await store.sweep()).toBe(1);
    expect(readdirSync(join(folder, 'incoming'))).toEqual([]);
  });

  it('measures a file in place', async () => {
    const folder = temporaryFolder();
    const store = await openClipStore(folder);
    const path = store.temporaryPath();
    writeFileSync(path, 'written by a worker');
    expect(await store.measure(path)).toEqual({ path, sha256: sha('written by a worker'), bytes: 19 });
  });
});

describe('what lies in the archive', () => {
  it('finds a changed byte at the first reading, once more when asked, and is mended by the original', async () => {
    const folder = temporaryFolder();
    const store = await openClipStore(folder);
    const keep = async (text: string): Promise<string> =>
      store.keep(await store.receive(Readable.from([Buffer.from(text)])), 'wav');
    const path = await keep('some sound');
    expect(await store.verified(sha('some sound'))).toBe(path);
    writeFileSync(path, 'some soumd');
    await expect(store.verified(sha('some sound'))).rejects.toMatchObject({ code: 'clip-damaged' });
    expect(await store.check(sha('some sound'))).toBe('damaged');
    await keep('some sound');
    expect(await store.check(sha('some sound'))).toBeNull();
    expect(await store.verified(sha('some sound'))).toBe(path);
    // A change that leaves size and time as they were shows when the bytes are read again.
    const { atime, mtime } = statSync(path);
    writeFileSync(path, 'sime sound');
    utimesSync(path, atime, mtime);
    expect(await store.check(sha('some sound'))).toBe('damaged');
    rmSync(path);
    expect(await store.check(sha('some sound'))).toBe('missing');
    expect(await store.verified(sha('some sound'))).toBeNull();
  });

  it('passes over files that are no clips, wherever they lie, and names them', async () => {
    const folder = temporaryFolder();
    const store = await openClipStore(folder);
    const file = await store.receive(Readable.from([Buffer.from('some sound')]));
    await store.keep(file, 'wav');
    writeFileSync(join(folder, 'clips', '.DS_Store'), 'x');
    writeFileSync(join(folder, 'clips', file.sha256.slice(0, 2), 'Thumbs.db'), 'x');
    mkdirSync(join(folder, 'clips', 'zz'));
    const wrongShelf = file.sha256.startsWith('00') ? '11' : '00';
    mkdirSync(join(folder, 'clips', wrongShelf));
    writeFileSync(join(folder, 'clips', wrongShelf, `${file.sha256}.wav`), 'x');
    const listed = [];
    for await (const clip of store.list()) listed.push(clip.sha256);
    expect(listed).toEqual([file.sha256]);
    expect((await store.strays()).sort()).toEqual(
      [
        'clips/.DS_Store',
        `clips/${file.sha256.slice(0, 2)}/Thumbs.db`,
        'clips/zz',
        `clips/${wrongShelf}/${file.sha256}.wav`,
      ].sort(),
    );
  });
});

describe('lock of the data folder', () => {
  const fast = { beatMs: 20 };

  it('keeps a second one out, names the first, and is free after release', async () => {
    const folder = temporaryFolder();
    const lock = await lockDataFolder(folder);
    lock.announce(4321);
    await expect(lockDataFolder(folder)).rejects.toThrow(FolderInUse);
    expect(holderOf(folder)).toMatchObject({ pid: process.pid, port: 4321 });
    lock.release();
    expect(holderOf(folder)).toBeNull();
    (await lockDataFolder(folder)).release();
  });

  it('is taken over from a process of this machine that is gone, and from a half-written note', async () => {
    for (const left of [
      JSON.stringify({ id: 'x', host: hostname(), pid: process.pid, port: 1, beat: 3 }),
      '{"pid":',
      JSON.stringify({ pid: 12, startTicks: '1', port: 1 }),
    ]) {
      const folder = temporaryFolder();
      writeFileSync(join(folder, 'in-use.json'), left);
      expect(holderOf(folder)).toBeNull();
      (await lockDataFolder(folder)).release();
    }
  });

  it('holds in another process namespace, where the holder cannot be seen', async () => {
    const folder = temporaryFolder();
    const lock = await lockDataFolder(folder);
    const path = join(folder, 'in-use.lock');
    const inNamespace = (): number | null =>
      spawnSync('unshare', ['--user', '--map-root-user', '--pid', '--fork', 'flock', '-n', path, 'true']).status;
    expect(inNamespace()).toBe(1);
    lock.release();
    expect(inNamespace()).toBe(0);
  });

  it('waits for the heartbeat of another machine: a living one keeps the folder, a dead one does not', async () => {
    const folder = temporaryFolder();
    const note = (beat: number): void =>
      writeFileSync(
        join(folder, 'in-use.json'),
        JSON.stringify({ id: 'far', host: 'another machine', pid: 1, port: 4870, beat }),
      );
    note(0);
    let beat = 0;
    const living = setInterval(() => note(++beat), 10);
    await expect(lockDataFolder(folder, fast)).rejects.toThrow(/in use .*process 1 on another machine/);
    clearInterval(living);
    (await lockDataFolder(folder, fast)).release();
  });

  it('notices when another machine has taken the folder over, and leaves its note alone', async () => {
    const folder = temporaryFolder();
    let lost = '';
    const lock = await lockDataFolder(folder, { ...fast, onLost: (holder) => (lost = holder.host) });
    const taken = JSON.stringify({ id: 'far', host: 'another machine', pid: 1, port: null, beat: 0 });
    writeFileSync(join(folder, 'in-use.json'), taken);
    await expect.poll(() => lost).toBe('another machine');
    lock.release();
    expect(readFileSync(join(folder, 'in-use.json'), 'utf8')).toBe(taken);
  });

  it('is refused where files cannot be locked', () => {
    const before = process.env['PATH'];
    process.env['PATH'] = '/nowhere';
    try {
      expect(() => takeOsLock(join(temporaryFolder(), 'lock'))).toThrow(/cannot be locked/);
    } finally {
      process.env['PATH'] = before;
    }
  });
});

describe('whose data a folder holds', () => {
  it('the demo is refused on an archive of one’s own, marked or from before there were marks', () => {
    const own = temporaryFolder();
    expect(markDataFolder(own, 'own', false)).toBe('own');
    expect(() => markDataFolder(own, 'demo', false)).toThrow(/mix invented units/);
    const old = temporaryFolder();
    mkdirSync(join(old, 'database'));
    writeFileSync(join(old, 'database', 'PG_VERSION'), '18');
    expect(() => markDataFolder(old, 'demo', false)).toThrow(StartRefused);
    writeFileSync(join(own, 'sediment.json'), '{"form');
    expect(() => markDataFolder(own, 'demo', true)).toThrow(StartRefused);
  });

  it('a demo stays a demo, however it is opened', () => {
    const demo = temporaryFolder();
    expect(markDataFolder(demo, 'demo', false)).toBe('demo');
    expect(markDataFolder(demo, 'demo', false)).toBe('demo');
    expect(markDataFolder(demo, 'own', false)).toBe('demo');
    const usual = temporaryFolder();
    mkdirSync(join(usual, 'clips', 'ab'), { recursive: true });
    expect(markDataFolder(usual, 'demo', true)).toBe('demo');
  });
});
