import { describe, expect, it } from 'vitest';
import type { TakenCount } from '#worker/taken-count';
import { bytesOf, helpersFor, withHelpers } from './shared-clip';

describe('Helpers of a clip', () => {
  it('are there for a long one: one for every fifty megabytes beyond the first', () => {
    expect(helpersFor(99e6, 1, 8)).toBe(0);
    expect(helpersFor(100e6, 1, 8)).toBe(1);
    expect(helpersFor(260e6, 1, 8)).toBe(4);
    expect(helpersFor(2e9, 1, 8)).toBe(7);
  });

  it('leave no other clip waiting', () => {
    expect(helpersFor(1e9, 2, 2)).toBe(0);
    expect(helpersFor(1e9, 5, 2)).toBe(0);
    expect(helpersFor(1e9, 1, 1)).toBe(0);
    expect(helpersFor(1e9, 2, 3)).toBe(1);
  });

  it('has no length where there is no file', () => {
    expect(bytesOf('/nowhere/at-all.wav')).toBe(0);
    expect(bytesOf(new URL(import.meta.url).pathname)).toBeGreaterThan(500);
  });
});

describe('Those who measure a clip', () => {
  it('know of each other what is taken, and how it is cut', async () => {
    const told: unknown[] = [];
    const found = await withHelpers(
      2,
      { longFrom: 77 },
      (shared, to) => {
        to.postMessage([shared.longFrom, Atomics.add(shared.taken, 0, 1)]);
        to.close();
        return Promise.resolve();
      },
      async (shared, others) => {
        await Promise.all(
          others.map(
            (port) =>
              new Promise((resolve) => {
                port.on('message', (m) => told.push(m)).on('close', resolve);
              }),
          ),
        );
        return Atomics.load(shared.taken, 0);
      },
    );
    expect(found).toBe(2);
    expect(told).toEqual([
      [77, 0],
      [77, 1],
    ]);
  });

  it('hear of a helper that could not start, and give or refuse what the one that was asked does', async () => {
    const fails = () => Promise.reject(new Error('no thread'));
    const closed = (port: { once: (event: 'close', heard: () => void) => unknown }) =>
      new Promise<string>((resolve) => port.once('close', () => resolve('alone')));
    expect(await withHelpers(1, {}, fails, (_, [other]) => closed(other))).toBe('alone');
    const broken = new Error('not a clip');
    await expect(withHelpers(1, {}, fails, () => Promise.reject(broken))).rejects.toBe(broken);
  });

  it('take no more when the one that was asked has done, or refused', async () => {
    const idle = () => Promise.resolve();
    for (const end of [() => Promise.resolve(), () => Promise.reject(new Error('dead'))]) {
      const counts: TakenCount[] = [];
      const measure = ({ taken }: { readonly taken: TakenCount }) => {
        expect(taken[0]).toBe(0);
        counts.push(taken);
        return end();
      };
      await withHelpers(1, {}, idle, measure).catch(() => undefined);
      expect(counts[0][0]).toBeGreaterThan(1000);
    }
  });
});
