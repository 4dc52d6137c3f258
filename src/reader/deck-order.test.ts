import { describe, expect, it } from 'vitest';
import { letterOf } from '#core/rules/listening/letters';
import { drawBelow, drawnOrder, guessWords } from './deck-order';

describe('the order in which clips are offered', () => {
  it('is every order, each as likely', () => {
    const counts = new Map<string, number>();
    const draws = 6000;
    for (let i = 0; i < draws; i++) {
      const order = drawnOrder(3, drawBelow).join('');
      counts.set(order, (counts.get(order) ?? 0) + 1);
    }
    expect([...counts.keys()].sort()).toEqual(['012', '021', '102', '120', '201', '210']);
    // Chi-squared with five degrees of freedom: 30 is beyond 1 in 50,000.
    const expected = draws / 6;
    const chi = [...counts.values()].reduce((s, n) => s + (n - expected) ** 2 / expected, 0);
    expect(chi).toBeLessThan(30);
  });

  it('takes the last first, by what is drawn', () => {
    expect(drawnOrder(4, () => 0)).toEqual([1, 2, 3, 0]);
    expect(drawnOrder(4, (below) => below - 1)).toEqual([0, 1, 2, 3]);
    expect([0, 1, 7].map(letterOf)).toEqual(['A', 'B', 'H']);
  });
});

describe('a guess', () => {
  const lanes = [{ name: 'Sedge', role: 'another unit' }, { name: 'Lantern', role: 'this unit' }]; // prettier-ignore
  it('is right by chance in one of so many', () => {
    expect(guessWords(1, lanes)).toBe('Right: B is Lantern. By chance alone 1 in 2 is right.');
    expect(guessWords(0, lanes)).toBe('A is Sedge. B is Lantern.');
    expect(guessWords(0, [{ name: 'Sedge', role: 'another unit' }])).toBe('A is Sedge.');
  });
});
