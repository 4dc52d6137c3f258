import { describe, expect, it } from 'vitest';
import { distanceForRatio, distanceMeasurements, fitDistanceLadder, ladderDb } from './distance-ladder';

/** Levels of direct sound that is `directDb` at one metre, over a room in which both are equal at `criticalM`. */
const rungs = (distances: readonly number[], criticalM: number | null, directDb = -20) =>
  distances.map((distanceM) => ({
    distanceM,
    db: ladderDb({ directDb, reverberantDb: criticalM === null ? -Infinity : directDb - 20 * Math.log10(criticalM) }, distanceM), // prettier-ignore
  }));
const FIVE = [0.1, 0.2, 0.4, 0.8, 1.6];

describe('levels at several distances', () => {
  it('of direct sound fall by 6 dB a doubling; in a room both are equal at the critical distance', () => {
    const direct = { directDb: -20, reverberantDb: -Infinity };
    expect(ladderDb(direct, 1) - ladderDb(direct, 2)).toBeCloseTo(20 * Math.log10(2), 9);
    expect(ladderDb({ directDb: -20, reverberantDb: -14 }, 0.5)).toBeCloseTo(
      -14 + 10 * Math.log10(1 + 10 ** 0.00206),
      2,
    );
    expect(distanceForRatio(1, 6)).toBeCloseTo(0.501, 3);
    expect(distanceForRatio(2, 0)).toBe(2);
  });

  it('give the direct level, the reverberant one, and where they meet', () => {
    const fit = fitDistanceLadder(rungs(FIVE, 0.7));
    expect(Math.abs((fit?.criticalM ?? 0) / 0.7 - 1)).toBeLessThan(0.005);
    expect(Math.abs((fit?.directDb ?? 0) + 20)).toBeLessThan(0.03);
    expect(Math.abs((fit?.reverberantDb ?? 0) - (-20 - 20 * Math.log10(0.7)))).toBeLessThan(0.05);
    expect(fit?.residualDb).toBeLessThan(0.01);
    const [least, most] = fit?.critical95 ?? [NaN, NaN];
    expect(least).toBeLessThan(0.7);
    expect(most).toBeGreaterThan(0.7);
  });

  it('show no reverberation where they fall by 6 dB all along: the critical distance lies beyond', () => {
    const fit = fitDistanceLadder(rungs(FIVE, null));
    expect(fit).toMatchObject({ criticalM: null, reverberantDb: -Infinity });
    expect(fit?.directDb).toBeCloseTo(-20, 9);
    expect(fit?.critical95[1]).toBeNull();
    // It is at least what one reading's scatter would hide at the longest rung.
    expect(fit?.critical95[0]).toBeGreaterThan(1);
    // One that lies beyond four times the longest rung cannot be told from none.
    expect(fitDistanceLadder(rungs([0.1, 0.2, 0.4], 3))?.critical95[1]).toBeNull();
  });

  it('are surer with more rungs, and less sure where they scatter', () => {
    const width = (list: ReturnType<typeof rungs>): number => {
      const [least, most] = fitDistanceLadder(list)?.critical95 ?? [NaN, NaN];
      return Math.log((most ?? Infinity) / least);
    };
    const once = rungs([0.1, 0.2, 0.4, 0.8, 1.6], 0.5);
    expect(width([...once, ...once, ...once])).toBeLessThan(width(once));
    const scattered = once.map((r, i) => ({ ...r, db: r.db + [0.8, -1, 0.5, 0.9, -1.1][i] }));
    expect(width(scattered)).toBeGreaterThan(width(once));
  });

  it('hold the critical distance where the squares are what Student’s t allows, four rungs of 0.7 dB known beforehand', () => {
    const list = rungs(FIVE, 0.5).map((r, i) => ({ ...r, db: r.db + [0.4, -0.5, 0.2, 0.3, -0.4][i] }));
    /** Squares that are left at a critical distance, the direct level free. */
    const squares = (criticalM: number): number => {
      const rest = list.map((r) => r.db - 10 * Math.log10(1 / r.distanceM ** 2 + 1 / criticalM ** 2));
      const mean = rest.reduce((s, v) => s + v, 0) / rest.length;
      return rest.reduce((s, v) => s + (v - mean) ** 2, 0);
    };
    const fit = fitDistanceLadder(list);
    const best = squares(fit?.criticalM ?? NaN);
    expect(fit?.residualDb).toBeCloseTo(Math.sqrt(best / 5), 9);
    for (const factor of [0.98, 1.02]) expect(squares((fit?.criticalM ?? NaN) * factor)).toBeGreaterThan(best);
    // Three degrees of freedom of its own and four known: t(0.975, 7) = 2.3646 (table).
    const allowed = best + 2.3646 ** 2 * ((best + 4 * 0.7 ** 2) / 7);
    const [least, most] = fit?.critical95 ?? [NaN, NaN];
    for (const [edge, beyond] of [
      [least, 0.99],
      [most ?? NaN, 1.01],
    ] as const) {
      expect(squares(edge)).toBeLessThan(allowed);
      expect(squares(edge * beyond)).toBeGreaterThan(allowed);
    }
  });

  it('are no ladder at fewer than three distances', () => {
    expect(fitDistanceLadder([...rungs([0.1, 0.2], 0.5), ...rungs([0.1, 0.2], 0.5)])).toBeNull();
    const told = distanceMeasurements(rungs([0.2, 0.1], 0.5));
    expect(told.map((m) => m.notMeasured)).toEqual(new Array(2).fill('The run has speech from fewer than three distances.')); // prettier-ignore
    expect(told[0].condition).toBe('speech at 0.10, 0.20 m, noise-corrected, this room');
  });

  it('are told as figures with the half of their interval, or as a limit', () => {
    const list = rungs(FIVE, 0.4);
    const fit = fitDistanceLadder(list);
    const [critical, usable] = distanceMeasurements(list);
    const [least, most] = fit?.critical95 ?? [NaN, NaN];
    expect(critical).toMatchObject({ quantity: 'criticalDistance', value: fit?.criticalM, bound: 'exact', settings: { rungs: 5, leastM: least, mostM: most } }); // prettier-ignore
    expect(critical.uncertainty).toBeCloseTo(((most ?? NaN) - least) / 4, 9);
    expect(usable.value).toBeCloseTo((fit?.criticalM ?? NaN) * 10 ** -0.3, 9);
    expect(usable.uncertainty).toBeCloseTo((critical.uncertainty ?? NaN) * 10 ** -0.3, 9);
    expect(usable.settings).toMatchObject({ ratioDb: 6, leastM: least });
    const [open, openUsable] = distanceMeasurements(rungs(FIVE, null));
    const lowest = fitDistanceLadder(rungs(FIVE, null))?.critical95[0] ?? NaN;
    expect([open.bound, open.value, openUsable.bound]).toEqual(['at-least', lowest, 'at-least']);
    expect(openUsable.value).toBeCloseTo(lowest * 10 ** -0.3, 9);
  });
});
