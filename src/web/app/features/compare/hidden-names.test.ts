import { describe, expect, it } from 'vitest';
import { HiddenNames } from './hidden-names';

const UNITS = ['Purser', 'Bosun', 'Skipper', 'Bosun'];
const seeded = () => {
  let n = 0;
  return new HiddenNames(() => `seed ${++n}`);
};

describe('names of lanes that are hidden', () => {
  it('are shown in their own order to begin with', () => {
    const hidden = seeded();
    expect(hidden.lanes(3)).toEqual([0, 1, 2].map((i) => ({ index: i, shown: i })));
    expect([hidden.isHidden(), hidden.isGuessed(), hidden.numberOf(2)]).toEqual([false, false, 3]);
    expect(hidden.isRevealed()).toBe(false);
  });

  it('come back in another order, and what sounds is the first of it, whichever sounded before', () => {
    const hidden = seeded();
    const first = hidden.toggle(4);
    const lanes = hidden.lanes(4);
    expect(first).toBe(lanes[0].index);
    expect(lanes.map((l) => l.index).sort()).toEqual([0, 1, 2, 3]);
    expect(lanes.map((l) => l.shown)).toEqual([0, 1, 2, 3]);
    for (const l of lanes) expect(hidden.numberOf(l.index)).toBe(l.shown + 1);
    expect(hidden.isHidden()).toBe(true);
  });

  it('are drawn anew each time', () => {
    const hidden = seeded();
    const orders = new Set<string>();
    for (let i = 0; i < 12; i++) {
      hidden.toggle(4);
      orders.add(
        hidden
          .lanes(4)
          .map((l) => l.index)
          .join(),
      );
      hidden.show();
    }
    expect(orders.size).toBeGreaterThan(4);
  });

  it('are revealed with the guesses that were made, in the same order', () => {
    const hidden = seeded();
    hidden.toggle(4);
    const order = hidden.lanes(4);
    hidden.guess(0, 'Purser');
    hidden.guess(1, 'Skipper');
    hidden.guess(3, 'Bosun');
    hidden.guess(2, 'Skipper');
    expect(hidden.toggle(4)).toBeNull();
    expect([hidden.isHidden(), hidden.isRevealed(), hidden.isGuessed()]).toEqual([false, true, true]);
    expect(hidden.lanes(4)).toEqual(order);
    expect(hidden.right(UNITS)).toBe(3);
  });

  it('hidden again ask for new guesses', () => {
    const hidden = seeded();
    hidden.toggle(4);
    hidden.guess(0, 'Purser');
    hidden.toggle(4);
    expect(hidden.toggle(4)).not.toBeNull();
    expect([hidden.isHidden(), hidden.isRevealed(), hidden.guesses()]).toEqual([true, false, {}]);
  });

  it('go back to names, without a trace of the guesses', () => {
    const hidden = seeded();
    hidden.toggle(4);
    hidden.guess(0, 'Purser');
    hidden.show();
    expect([hidden.isHidden(), hidden.isGuessed(), hidden.guesses()]).toEqual([false, false, {}]);
    expect(hidden.isRevealed()).toBe(false);
    expect(hidden.lanes(2).map((l) => l.index)).toEqual([0, 1]);
  });

  it('of one lane are not hidden: there is nothing to guess', () => {
    const hidden = seeded();
    expect(hidden.toggle(1)).toBeNull();
    expect(hidden.isHidden()).toBe(false);
    expect(hidden.toggle(2)).not.toBeNull();
    expect(hidden.isHidden()).toBe(true);
  });
});
