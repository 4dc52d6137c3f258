import { createHash } from 'node:crypto';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { describe, expect, it } from 'vitest';
import { temporaryFolder } from '../testing/bench';
import { openClipStore } from './clip-store';
import { FolderInUse, holderOf, lockDataFolder } from './data-folder-lock';

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

describe('lock of the data folder', () => {
  it('keeps a second one out, names the first, and is free after release', () => {
    const folder = temporaryFolder();
    const lock = lockDataFolder(folder);
    lock.announce(4321);
    expect(() => lockDataFolder(folder)).toThrow(FolderInUse);
    expect(holderOf(folder)).toMatchObject({ pid: process.pid, port: 4321 });
    lock.release();
    expect(holderOf(folder)).toBeNull();
    lockDataFolder(folder).release();
  });

  it('is taken over from a process that is gone, from another life of a process id, and from a half-written file', () => {
    for (const left of [
      JSON.stringify({ pid: 2 ** 22 - 7, startTicks: null, port: 1 }),
      JSON.stringify({ pid: process.pid, startTicks: '1', port: 1 }),
      JSON.stringify({ pid: process.ppid, startTicks: '1', port: 1 }),
      '{"pid":',
    ]) {
      const folder = temporaryFolder();
      writeFileSync(join(folder, 'in-use.json'), left);
      expect(holderOf(folder)).toBeNull();
      lockDataFolder(folder).release();
    }
  });
});
