import { expect, it } from 'vitest';
import { BegunWork } from './begun-work';

/** Work that ends when it is told to, and how often it began. */
function held() {
  let began = 0;
  let end: () => void = () => undefined;
  const work = (): Promise<void> => {
    began++;
    return new Promise((resolve) => (end = resolve));
  };
  return { work, end: () => end(), began: () => began };
}

it('of two facts that are known before the work begins it is done once', async () => {
  const [begun, { work, end, began }] = [new BegunWork(), held()];
  const [first, second] = [begun.now(), begun.now()];
  const running = begun.unlessSince('run', first, work);
  await begun.unlessSince('run', second, work);
  expect(began()).toBe(1);
  end();
  await running;
  // It has ended: what comes to be known later is worked on anew.
  void begun.unlessSince('run', second, work);
  expect(began()).toBe(2);
});

it('a fact that came while the work was under way has it done once more, and so has another key', () => {
  const [begun, { work, began }] = [new BegunWork(), held()];
  void begun.unlessSince('run', begun.now(), work);
  void begun.unlessSince('run', begun.now(), work);
  void begun.unlessSince('other', 1, work);
  expect(began()).toBe(3);
});

it('work that has failed holds back nothing', async () => {
  const begun = new BegunWork();
  const moment = begun.now();
  await expect(begun.unlessSince('run', moment, () => Promise.reject(new Error('no')))).rejects.toThrow('no');
  let done = false;
  await begun.unlessSince('run', moment, () => Promise.resolve(void (done = true)));
  expect(done).toBe(true);
});
