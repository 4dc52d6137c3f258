import { describe, expect, it } from 'vitest';
import { PlaceDistribution, rankDistribution, type DrawnUnit } from './place-distribution';
import { seededBits, uniform } from './random';

/** Composites of a unit about a level, a tenth of them on whole steps so that ties come up. */
function drawnUnit(id: string, bits: ReturnType<typeof seededBits>, draws = 60): DrawnUnit {
  const level = 4 * uniform(bits);
  const drawn = Float64Array.from({ length: draws }, () => {
    const value = level + uniform(bits);
    return uniform(bits) < 0.1 ? Math.round(value) : value;
  });
  return { id, drawn };
}

describe('a distribution of places that goes on from the last one', () => {
  it('is that of counting all anew, whatever changed: one, some, many, the extremes, come or gone', () => {
    const bits = seededBits('places');
    let next = 0;
    const one = () => drawnUnit(String(next++), bits);
    let units = Array.from({ length: 30 }, one);
    const kept = new PlaceDistribution();
    for (let round = 0; round < 60; round++) {
      const told = kept.of(units);
      expect(told).toEqual(rankDistribution(units.map((u) => u.drawn)));
      // Places of a draw add up to n(n+1)/2, however many are level.
      const sum = told.reduce((s, { mean }) => s + mean, 0);
      expect(sum).toBeCloseTo((units.length * (units.length + 1)) / 2, 6);
      const many = round % 7 === 6 ? 20 : 1 + (round % 3);
      for (let k = 0; k < many; k++) {
        const at = Math.floor(uniform(bits) * units.length);
        const what = uniform(bits);
        if (what < 0.5) units = units.map((u, i) => (i === at ? { ...one(), id: u.id } : u));
        else if (what < 0.75) units = [...units.slice(0, at), one(), ...units.slice(at)];
        else if (units.length > 3) units = units.filter((_, i) => i !== at);
      }
      // In another order they are the same units.
      if (round % 5 === 0) units = [...units].reverse();
    }
  });

  it('has room for as many as come, a few at a time, and for as few as stay', () => {
    const bits = seededBits('room');
    const kept = new PlaceDistribution();
    let units: DrawnUnit[] = [];
    // The first two span all composites: the others do not move the steps.
    const ends = [0, 10].map((level, i) => ({ id: `end${i}`, drawn: new Float64Array(9).fill(level) }));
    for (let size = 2; size < 140; size += 11) {
      units = [...ends, ...units.slice(2), ...Array.from({ length: 11 }, (_, k) => drawnUnit(`${size}-${k}`, bits, 9))];
      expect(kept.of(units)).toEqual(rankDistribution(units.map((u) => u.drawn)));
    }
    while (units.length > 3) {
      units = units.filter((_, i) => i < 2 || i % 7 !== units.length % 7).slice(0, units.length - 1);
      expect(kept.of(units)).toEqual(rankDistribution(units.map((u) => u.drawn)));
    }
  });

  it('of other numbers of draws begins anew, and of no units is none', () => {
    const bits = seededBits('draws');
    const kept = new PlaceDistribution();
    for (const draws of [40, 60, 40]) {
      const units = ['a', 'b', 'c'].map((id) => drawnUnit(id, bits, draws));
      expect(kept.of(units)).toEqual(rankDistribution(units.map((u) => u.drawn)));
    }
    expect(kept.of([])).toEqual([]);
  });
});
