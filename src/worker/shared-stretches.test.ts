import { MessageChannel, type MessagePort } from 'node:worker_threads';
import { beforeAll, describe, expect, it } from 'vitest';
import { memoryStream } from '#core/audio/memory-stream';
import { joinDropOuts } from '#core/dsp/drop-out-reading';
import type { ClipReadings } from '#core/measure/stretch-reader';
import { lcgNoise } from '#core/testing/signals';
import { Helper, type StretchArrival } from './helper';
import { noneTaken } from './taken-count';
import { readWithOthers, takeStretches, type SharedStretches } from './shared-stretches';

const RATE = 8000;
// Four stretches of a minute, the last one short.
const NOISE = lcgNoise(190 * RATE, 0.3, 3);
const open = () => memoryStream([NOISE], RATE);
const share = (): SharedStretches => ({ taken: noneTaken(), longFrom: 1 });
const gist = ({ frames, channels: [c] }: ClipReadings) => [frames, c.truePeak, c.sum, c.level, c.plain.length, c.kWeighted.at(-1), c.deep && joinDropOuts(c.deep.dropOuts, RATE)]; // prettier-ignore

/** A helper in the same thread: it works while this one waits. */
const helper = (shared: SharedStretches, help: (shared: SharedStretches, to: MessagePort) => void | Promise<void>) => {
  const { port1, port2 } = new MessageChannel();
  void help(shared, port2);
  return new Helper(port1);
};
const takes = async (shared: SharedStretches, to: MessagePort, places = Infinity) => {
  let left = places;
  const told = (arrival: StretchArrival) => {
    if (left-- > 0) to.postMessage(arrival);
  };
  await takeStretches(open(), shared, told);
  // Who dies says nothing more.
  if (places === Infinity) to.postMessage(null);
  else to.close();
};

describe('a clip that several threads measure', () => {
  let alone: unknown[];
  beforeAll(async () => {
    alone = gist(await readWithOthers(open(), share(), []));
  });

  it('is what one measures, whoever takes what', async () => {
    expect(alone[0]).toBe(NOISE.length);
    const shared = share();
    const others = [helper(shared, takes), helper(shared, takes)];
    expect(gist(await readWithOthers(open(), shared, others))).toEqual(alone);
    expect(shared.taken[0]).toBeGreaterThanOrEqual(4);
  });

  it('is measured to its end where a helper dies with what it had taken, or brings none of it', async () => {
    for (const places of [0, 1]) {
      const shared = share();
      Atomics.store(shared.taken, 0, 4);
      // All are taken: by a helper that brings so many, and ends.
      const ends = helper({ ...shared, taken: noneTaken() }, (s, to) => takes(s, to, places)); // prettier-ignore
      expect(gist(await readWithOthers(open(), shared, [ends]))).toEqual(alone);
    }
  });

  it('waits for nobody who has nothing that is needed', async () => {
    // It never begins, and never ends.
    const idle = helper(share(), () => undefined);
    expect(gist(await readWithOthers(open(), share(), [idle]))).toEqual(alone);
  });

  it('is refused for the first thing that is wrong with it, whoever met which', async () => {
    /** Nothing can be read over these places. */
    const broken = (...places: readonly number[]) => {
      const stream = open();
      let at = 0;
      return {
        ...stream,
        seek: (to: number) => {
          at = to;
          stream.seek?.(to);
        },
        read: (into: Float64Array[]) => {
          const count = stream.read(into) as number;
          const hole = places.find((place) => at <= place && place < at + count);
          if (hole !== undefined) throw new Error(`nothing to read at ${hole / RATE} s`);
          at += count;
          return count;
        },
      };
    };
    const shared = share();
    const helps = helper(shared, takes);
    await expect(readWithOthers(broken(70 * RATE), shared, [helps])).rejects.toThrow('nothing to read at 70 s');
    // What lies behind it was left alone.
    expect(shared.taken[0]).toBeGreaterThan(1000);
    // A helper has died with the first stretch; this one meets what is wrong with the second.
    const second = share();
    Atomics.store(second.taken, 0, 1);
    const dead = helper(second, (_, to) => to.close());
    await expect(readWithOthers(broken(10 * RATE, 70 * RATE), second, [dead])).rejects.toThrow(
      'nothing to read at 10 s',
    );
  });

  it('tells how far it is', async () => {
    const told: number[] = [];
    const shared = share();
    const others = [helper(shared, takes), helper(shared, takes)];
    await readWithOthers(open(), shared, others, (part) => told.push(part));
    expect(told.length).toBeGreaterThanOrEqual(2);
    expect([...told].sort((a, b) => a - b)).toEqual(told);
    expect(told.at(-1)).toBeLessThanOrEqual(1);
    expect(told.at(-1)).toBeGreaterThan(0.9);
  });
});
