import { describe, expect, it } from 'vitest';
import { bytesOf, isShared } from './shared-clip';

describe('A clip that two threads share', () => {
  it('is long', () => {
    expect(isShared(99e6, 1, 2)).toBe(false);
    expect(isShared(100e6, 1, 2)).toBe(true);
  });

  it('leaves no other clip waiting', () => {
    expect(isShared(1e9, 2, 2)).toBe(false);
    expect(isShared(1e9, 5, 2)).toBe(false);
    expect(isShared(1e9, 1, 1)).toBe(false);
    expect(isShared(1e9, 2, 3)).toBe(true);
  });

  it('has no length where there is no file', () => {
    expect(bytesOf('/nowhere/at-all.wav')).toBe(0);
    expect(bytesOf(new URL(import.meta.url).pathname)).toBeGreaterThan(500);
  });
});
