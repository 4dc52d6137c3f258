import { describe, expect, it } from 'vitest';
import { Refusals } from './refusals';

describe('fields that hold what was not understood', () => {
  it('stop whatever would be saved, and the first is brought into view', () => {
    const refusals = new Refusals();
    expect(refusals.stop()).toBe(false);
    let looked = '';
    const [a, b] = ['a', 'b'].map((name) => ({ focus: () => void (looked = name) }));
    refusals.note(a);
    refusals.note(b);
    expect([refusals.stop(), looked]).toEqual([true, 'a']);
    refusals.forget(a);
    expect([refusals.stop(), looked]).toEqual([true, 'b']);
    refusals.forget(b);
    expect(refusals.stop()).toBe(false);
  });
});
