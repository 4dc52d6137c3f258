import { describe, expect, it } from 'vitest';
import { correlationLength } from './correlation-length';

// Reckoned by hand from the definition: with values ±1 of mean 0 each ρ is a count of equal signs less one of unlike ones.
describe('how many successive values hang together', () => {
  const halves = (each: number, middle = 0): number[] =>
    Array.from({ length: 2 * each }, (_, i) => middle + (i < each ? 1 : -1));

  it('adds twice the correlations of the first lags', () => {
    // ρ₁ = (3 − 1 + 3)/8, ρ₂ = (2 − 2 + 2)/8; a quarter of eight values is two lags.
    expect(correlationLength(halves(4))).toBeCloseTo(1 + 2 * (5 / 8 + 2 / 8), 12);
    // ρ₁ … ρ₄ = 13/16, 10/16, 7/16, 4/16.
    expect(correlationLength(halves(8))).toBeCloseTo(1 + 2 * (34 / 16), 12);
  });

  it('is not moved by what all values have in common, nor by their scale', () => {
    expect(correlationLength(halves(8, -23))).toBeCloseTo(5.25, 12);
    expect(correlationLength(halves(8).map((v) => 7 * v))).toBeCloseTo(5.25, 12);
  });

  it('ends at the first two lags that come to nothing, whatever follows', () => {
    // Alternating: ρ₁ + ρ₂ = −7/8 + 6/8.
    expect(correlationLength([1, -1, 1, -1, 1, -1, 1, -1])).toBe(1);
    // ++−− over and over: ρ₁ = 1/16, ρ₂ = −14/16; the four after them would add again.
    expect(correlationLength(Array.from({ length: 16 }, (_, i) => (i % 4 < 2 ? 1 : -1)))).toBe(1);
  });

  it('says 1 of what is too short to tell, and of equal values', () => {
    expect(correlationLength([1, 1, 1, -1, -1, -1]), 'a quarter of six is one lag').toBe(1);
    expect(correlationLength([3, 1])).toBe(1);
    expect(correlationLength([])).toBe(1);
    expect(correlationLength(new Array<number>(20).fill(4))).toBe(1);
  });
});
