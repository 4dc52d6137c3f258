import { describe, expect, it } from 'vitest';
import { listenedShare, listenedWeight, votersListened } from './listened-share';

describe('the share of those who listened', () => {
  it('is what the integrals say, worked out by hand', () => {
    // Nothing is known: the mean of anything from 0 to 1.
    expect(listenedShare(0, 0).mean).toBeCloseTo(1 / 2, 6);
    // One passed: density (1 + s) / (3/2), mean (1/2 + 1/3) / (3/2).
    expect(listenedShare(1, 0).mean).toBeCloseTo(5 / 9, 6);
    // One failed: density 2 (1 − s), mean 1/3.
    expect(listenedShare(0, 1).mean).toBeCloseTo(1 / 3, 6);
    // One of each: density (1 − s²) · 3/2, mean 3/8.
    expect(listenedShare(1, 1).mean).toBeCloseTo(3 / 8, 6);
  });

  it('has the interval of a uniform share where nothing is known, and of a failed one where its square root says', () => {
    expect(listenedShare(0, 0).interval90[0]).toBeCloseTo(0.05, 3);
    expect(listenedShare(0, 0).interval90[1]).toBeCloseTo(0.95, 3);
    // One failed: the share is below x with 1 − (1 − x)².
    expect(listenedShare(0, 1).interval90[0]).toBeCloseTo(1 - Math.sqrt(0.95), 3);
    expect(listenedShare(0, 1).interval90[1]).toBeCloseTo(1 - Math.sqrt(0.05), 3);
  });

  it('of many goes to Abbott’s correction: 2 p − 1', () => {
    expect(listenedShare(9000, 1000).mean).toBeCloseTo(0.8, 2);
    expect(listenedShare(10_000, 0).mean).toBeGreaterThan(0.999);
  });

  it('of guessers is near nothing, however many they are', () => {
    expect(listenedShare(5000, 5000).mean).toBeLessThan(0.02);
    expect(listenedShare(4000, 6000).mean).toBeLessThan(0.002);
  });

  it('refuses what are no counts', () => {
    expect(() => listenedShare(-1, 0)).toThrow(RangeError);
    expect(() => listenedShare(1, 0.5)).toThrow(RangeError);
  });
});

describe('voters', () => {
  it('who divide evenly did not listen, who never name the copy did, few say little', () => {
    expect(votersListened(250, 1000, 4)).toBeCloseTo(0, 2);
    expect(votersListened(400, 1000, 4)).toBe(0);
    // 10 % guess: a fortieth of all votes falls on the copy.
    expect(votersListened(250, 10_000, 4)).toBeCloseTo(0.9, 2);
    expect(votersListened(0, 10_000, 4)).toBeCloseTo(1, 3);
    expect(votersListened(0, 0, 4)).toBe(0);
    expect(votersListened(0, 4, 4)).toBe(0.5);
    expect(() => votersListened(2, 1, 4)).toThrow(RangeError);
    expect(() => votersListened(0, 1, 1)).toThrow(RangeError);
  });
});

describe('the weight of a listener', () => {
  it('is Bayes’ rule: nothing for who failed, more for who passed, the share for who was not asked', () => {
    expect(listenedWeight(0.6, false)).toBe(0);
    expect(listenedWeight(0.6, null)).toBe(0.6);
    expect(listenedWeight(0.6, true)).toBeCloseTo(0.75, 12);
    expect(listenedWeight(1, true)).toBe(1);
    expect(listenedWeight(0, true)).toBe(0);
  });
});
