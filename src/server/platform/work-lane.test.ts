import { expect, it } from 'vitest';
import { WorkLane } from './work-lane';

/** Work that ends when it is told to. */
function heldWork(): { work: () => Promise<string>; end: (how: string) => void; begun: () => boolean } {
  let hasBegun = false;
  let end: (how: string) => void = () => undefined;
  const ended = new Promise<string>((resolve, reject) => {
    end = (how) => (how === 'fail' ? reject(new Error(how)) : resolve(how));
  });
  return { work: () => ((hasBegun = true), ended), end: (how) => end(how), begun: () => hasBegun };
}

it('does so much at a time, in the order of asking, and refuses what would wait too long', async () => {
  const lane = new WorkLane(2, 1);
  const [a, b, c, d] = [heldWork(), heldWork(), heldWork(), heldWork()];
  const runs = [lane.run(a.work), lane.run(b.work), lane.run(c.work)];
  await expect(lane.run(d.work)).rejects.toMatchObject({ code: 'too-busy' });
  expect([a.begun(), b.begun(), c.begun(), d.begun()]).toEqual([true, true, false, false]);
  b.end('fail');
  await expect(runs[1]).rejects.toThrow('fail');
  expect(c.begun()).toBe(true);
  const late = lane.run(d.work);
  expect(d.begun()).toBe(false);
  a.end('a');
  c.end('c');
  expect(await runs[0]).toBe('a');
  d.end('d');
  expect(await late).toBe('d');
});

it('does not begin what was given up while it waited, and goes on with the next', async () => {
  const lane = new WorkLane(1, 5);
  const [a, b, c] = [heldWork(), heldWork(), heldWork()];
  const gone = new AbortController();
  const first = lane.run(a.work);
  const given = lane.run(b.work, gone.signal);
  const next = lane.run(c.work);
  gone.abort();
  a.end('a');
  await first;
  await expect(given).rejects.toThrow(/aborted/);
  expect(b.begun()).toBe(false);
  c.end('c');
  expect(await next).toBe('c');
});
