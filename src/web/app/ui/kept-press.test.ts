import { describe, expect, it } from 'vitest';
import { KeptPress } from './kept-press';

describe('a press of play before the clip is there', () => {
  it('is answered once when it comes, and taken back by a second press', () => {
    const early = new KeptPress();
    expect(early.take()).toBe(false);
    early.press();
    expect([early.take(), early.take()]).toEqual([true, false]);
    early.press();
    early.press();
    expect(early.take()).toBe(false);
  });
});
