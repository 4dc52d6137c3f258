import { describe, expect, it } from 'vitest';
import { PlaceTable, SURVEYED } from './place-table';
import { seededBits, uniform } from './random';

/** Doubled places of every unit in one draw, from the definition: 2 for the best, level ones share the mean. */
const doubledPlaces = (steps: readonly number[]): number[] =>
  steps.map((mine, u) => steps.reduce((sum, s, v) => sum + (u === v ? 0 : s < mine ? 2 : s === mine ? 1 : 0), 2));

/** Numbers of draws that fill rows of eight, and that do not. */
describe.each([8, 13, 60])('a table of places over %i draws', (draws) => {
  const bits = seededBits(`table ${draws}`);
  const steps = (): number[] => Array.from({ length: draws }, () => Math.floor(6 * uniform(bits)));
  const table = new PlaceTable(12, draws);
  const rows: number[][] = [];
  const put = (unit: number): Uint8Array => {
    rows[unit] = steps();
    return table.move(unit, (into) => into.set(rows[unit]));
  };
  const places = (): number[][] => {
    const byDraw = Array.from({ length: draws }, (_, d) => doubledPlaces(rows.map((row) => row[d])));
    return rows.map((_, u) => byDraw.map((one) => one[u]));
  };

  it('has the places of the definition as units come, move and go, and says whose moved', () => {
    for (let unit = 0; unit < 12; unit++) put(unit);
    for (let round = 0; round < 40; round++) {
      const before = places();
      const unit = Math.floor(uniform(bits) * rows.length);
      const moved = put(unit);
      const now = places();
      expect(now).toEqual(rows.map((_, u) => [...table.places(u)]));
      const differ = now.map((row, u) => (u !== unit && row.some((p, d) => p !== before[u][d]) ? 1 : 0));
      expect([...moved]).toEqual(differ);
      if (round % 8 === 7) {
        const gone = Math.floor(uniform(bits) * rows.length);
        table.remove(gone);
        const last = rows.pop() as number[];
        if (gone < rows.length) rows[gone] = last;
        expect(places()).toEqual(rows.map((_, u) => [...table.places(u)]));
      }
    }
  });

  it('counts the values below each whole number of two windows, and adds all', () => {
    for (let unit = 0; unit < 5; unit++) put(unit);
    places().forEach((row, unit) => {
      for (const [low, high] of [
        [-9, 40],
        [-2, 1],
        [0, 3],
        [2, 2],
        [5, 12],
      ]) {
        const { sum, below } = table.survey(unit, low, high);
        const counted = (first: number) =>
          Array.from({ length: SURVEYED + 1 }, (_, k) => row.filter((p) => p < first + k).length);
        expect([[...below[0]], [...below[1]]], `windows from ${low} and ${high}`).toEqual([
          counted(low),
          counted(high),
        ]);
        expect(sum).toBe(row.reduce((s, p) => s + p, 0));
      }
    });
  });
});
