import { describe, expect, it } from 'vitest';
import { channelDelayMs } from './channel-delay';

describe('the delay between channels', () => {
  const map = { kind: 'performance', anchors: [[0.5, 0.5035], [9, 9.0035]] } as const; // prettier-ignore

  it('is the constant lag of two channels of one recording', () => {
    expect(channelDelayMs(map, 'a', 'a')).toBeCloseTo(3.5, 9);
    expect(channelDelayMs({ ...map, anchors: [[0.5, 0.498]] }, 'a', 'a')).toBeCloseTo(-2, 9);
  });

  it('is none of recordings that were started one by one, nor of words that were spoken twice', () => {
    expect(channelDelayMs(map, 'a', 'b')).toBeNull();
    expect(channelDelayMs(map, null, null)).toBeNull();
    expect(channelDelayMs(map, 'a', null)).toBeNull();
    expect(channelDelayMs({ ...map, kind: 'phrases' }, 'a', 'a')).toBeNull();
  });
});
