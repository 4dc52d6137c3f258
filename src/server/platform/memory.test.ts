import { expect, it } from 'vitest';
import { EventHub } from './event-hub';
import { Memories, Memory, type Change } from './memory';

/** A promise that is settled by hand. */
function later<T>() {
  let resolve!: (value: T) => void;
  let reject!: (error: Error) => void;
  const promise = new Promise<T>((yes, no) => ([resolve, reject] = [yes, no]));
  return { promise, resolve, reject };
}

const memories = () => new Memories(new EventHub());
const of = (causes: Change['cause'][] = [], most?: number) =>
  new Memory<string, number>(memories(), 'numbers', causes, most);

it('makes a value once, however many ask, while it is made and afterwards', async () => {
  const memory = of();
  const made = later<number>();
  let makings = 0;
  const ask = () => memory.of('a', () => (makings++, made.promise));
  const both = [ask(), ask()];
  made.resolve(7);
  expect(await Promise.all([...both, ask()])).toEqual([7, 7, 7]);
  expect(makings).toBe(1);
  expect(await memory.of('b', () => Promise.resolve(8))).toBe(8);
});

it('does not keep a failure', async () => {
  const memory = of();
  await expect(memory.of('a', () => Promise.reject(new Error('no disk')))).rejects.toThrow('no disk');
  expect(await memory.of('a', () => Promise.resolve(2))).toBe(2);
});

it('gives what was begun before a forgetting to who asked for it, and does not keep it', async () => {
  const memory = of(['answers']);
  const old = later<number>();
  const asked = memory.of('a', () => old.promise);
  memory.told({ cause: 'answers' });
  const anew = memory.of('a', () => Promise.resolve(2));
  old.resolve(1);
  expect([await asked, await anew]).toEqual([1, 2]);
  expect(await memory.of('a', () => Promise.resolve(3))).toBe(2);
});

it('a failure from before a forgetting does not take away what was made since', async () => {
  const memory = of(['answers']);
  const old = later<number>();
  const asked = memory.of('a', () => old.promise);
  memory.forget();
  await memory.of('a', () => Promise.resolve(2));
  old.reject(new Error('gone'));
  await expect(asked).rejects.toThrow('gone');
  expect(await memory.of('a', () => Promise.resolve(3))).toBe(2);
});

it('goes on from the value before, one after the other; a failure begins anew', async () => {
  const memory = of();
  const more = (by: number) => memory.next('a', (before) => Promise.resolve((before ?? 0) + by));
  expect(await Promise.all([more(1), more(10), more(100)])).toEqual([1, 11, 111]);
  await expect(memory.next('a', () => Promise.reject(new Error('no')))).rejects.toThrow('no');
  expect(await more(5)).toBe(5);
});

it('what goes on from a value that has been forgotten meanwhile is not kept', async () => {
  const memory = of(['answers']);
  await memory.next('a', () => Promise.resolve(1));
  const reading = later<number>();
  const asked = memory.next('a', async (before) => (before ?? 0) + (await reading.promise));
  memory.told({ cause: 'answers' });
  reading.resolve(10);
  expect(await asked).toBe(11);
  expect(await memory.next('a', (before) => Promise.resolve(before ?? -1))).toBe(-1);
});

it('keeps the latest where there is a limit', async () => {
  const memory = of([], 2);
  const ask = (key: string, value: number) => memory.of(key, () => Promise.resolve(value));
  await ask('a', 1);
  await ask('b', 2);
  await ask('c', 3);
  expect([await ask('b', 20), await ask('c', 30)]).toEqual([2, 3]);
  expect(await ask('a', 10)).toBe(10);
});

it('is told what events mean, and of nothing else', () => {
  const hub = new EventHub();
  const all = new Memories(hub);
  const told: Change[] = [];
  all.add({ what: 'a listener', told: (change) => void told.push(change), forget: () => undefined });
  hub.specimenChanged('7');
  hub.rulesChanged();
  hub.planChanged('3');
  all.tell({ cause: 'devices' });
  expect(told).toEqual([{ cause: 'unit', unit: '7' }, { cause: 'rules' }, { cause: 'devices' }]);
  expect(all.names()).toEqual(['a listener']);
});

it('forgets by its own causes alone', async () => {
  const memory = of(['rules']);
  const ask = (value: number) => memory.of('a', () => Promise.resolve(value));
  await ask(1);
  memory.told({ cause: 'unit', unit: '1' });
  memory.told({ cause: 'answers' });
  expect(await ask(2)).toBe(1);
  memory.told({ cause: 'rules' });
  expect(await ask(3)).toBe(3);
});
