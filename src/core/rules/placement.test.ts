import { describe, expect, it } from 'vitest';
import { nextHeat, nextPair, nextPairs } from '../stats/next-question';
import { seededBits } from '../stats/random';
import { ask, catalogue, KNOWN, OPPONENTS, questionsOf, rightStrata, stateOf, WIDE } from '../testing/placing-runs';

// Forty runs of each are in placement.deep.test.ts.
describe('placing the new one', () => {
  it('needs at most half the questions of random pairing, for the same interval', () => {
    const { chosen, random } = questionsOf(2);
    expect(chosen).toBeGreaterThan(0);
    expect(chosen).toBeLessThanOrEqual(random / 2);
  });

  it('puts units into their strata', () => {
    expect(rightStrata(3)).toBe(3);
  });

  it('proposes neighbours first, and heats of the unit with others', () => {
    const placing = catalogue(WIDE, 'catalogue 1', 0);
    for (const opponent of [3, 50, 90, 120, 160, 199]) ask(placing, opponent, seededBits(`${opponent}`));
    const order = nextPairs(stateOf(placing), KNOWN, OPPONENTS).map((p) => p.opponent);
    const apart = (o: number): number => Math.abs(placing.fit.logWorth[o] - placing.fit.logWorth[KNOWN]);
    expect(order).toHaveLength(KNOWN);
    expect(apart(order[0])).toBeLessThan(apart(order[KNOWN - 1]));
    const pair = nextPair(stateOf(placing), KNOWN, OPPONENTS);
    const heat = nextHeat(stateOf(placing), KNOWN, OPPONENTS);
    expect(heat?.items).toHaveLength(4);
    expect(new Set(heat?.items).size).toBe(4);
    expect(heat?.items[0]).toBe(KNOWN);
    // Three opponents tell more than one.
    expect(heat?.expectedSd).toBeLessThan(pair?.expectedSd ?? 0);
    expect([nextHeat(stateOf(placing), KNOWN, [1, 2]), nextPair(stateOf(placing), KNOWN, [])]).toEqual([null, null]);
  });
});
