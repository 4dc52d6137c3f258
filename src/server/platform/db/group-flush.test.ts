import { expect, it } from 'vitest';
import { GroupFlush } from './group-flush';

it('a commit waits for a flush that began after it; those that come meanwhile share the next one', async () => {
  const started: { begun: () => void; end: () => void }[] = [];
  const flushes = new GroupFlush((begun) => new Promise<void>((resolve) => started.push({ begun, end: resolve })));
  const done: string[] = [];
  const commit = (name: string): Promise<number> => flushes.request().then(() => done.push(name));
  void commit('a');
  void commit('b');
  expect(started).toHaveLength(1);
  started[0].begun();
  void commit('c');
  const last = commit('d');
  expect(started).toHaveLength(2);
  started[0].end();
  await Promise.resolve();
  await Promise.resolve();
  expect(done).toEqual(['a', 'b']);
  started[1].begun();
  started[1].end();
  await last;
  expect(done).toEqual(['a', 'b', 'c', 'd']);
});

it('a flush that fails is told to those who waited for it, and to nobody after them', async () => {
  let fails = true;
  const flushes = new GroupFlush(() => (fails ? Promise.reject(new Error('the disk is gone')) : Promise.resolve()));
  await expect(flushes.request()).rejects.toThrow('the disk is gone');
  fails = false;
  await flushes.request();
});
