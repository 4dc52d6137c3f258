import { describe, expect, it } from 'vitest';
import { chipOf } from './chip-of';

describe('a clip under its letter', () => {
  const blind = { codes: ['A', 'B'], labels: [], reference: null };

  it('has no name in a blind test', () => {
    expect(chipOf(blind, 'B')).toEqual({ code: 'B', spoken: 'Clip B' });
  });

  it('has its own name in a sighted one; X has none, it is what is asked for', () => {
    const sighted = { ...blind, labels: ['Purser', 'Bosun'] };
    expect(chipOf(sighted, 'B')).toEqual({ code: 'B', spoken: 'Clip B Bosun', name: 'Bosun' });
    expect(chipOf(sighted, 'X')).toEqual({ code: 'X', spoken: 'Clip X' });
  });

  it('is called the reference where it is the one', () => {
    expect(chipOf({ ...blind, reference: 'R' }, 'R')).toMatchObject({ shown: 'Ref.', spoken: 'Reference' });
    expect(chipOf({ ...blind, codes: ['R'] }, 'R')).toEqual({ code: 'R', spoken: 'Clip R' });
  });
});
