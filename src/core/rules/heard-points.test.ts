import { describe, expect, it } from 'vitest';
import { criterionPoints, type UnitFacts } from './criterion-points';
import { heardPoints } from './heard-points';
import { rankUnits } from './rank';
import type { HeardCriterion, Rubric } from './rubric';

const SOUND: HeardCriterion = {
  id: 'sound',
  name: 'Sound',
  meaning: 'heard blind',
  kind: 'heard',
  curve: [[-2, 1], [0, 3], [2, 5]], // prettier-ignore
  leastAnswers: 4,
  repeatability: 0.4,
};
const RULES: Rubric = { id: 'r', version: 1, name: 'R', category: 'microphone', criteria: [SOUND], weights: { sound: 1 }, stratumProbability: 0.9 }; // prettier-ignore

const unit = (id: string, heard: UnitFacts['heard'], byHand: number | null = null): UnitFacts => ({
  id,
  figures: {},
  byHand: byHand === null ? {} : { sound: { value: byHand, reason: 'warm' } },
  prices: [],
  heard,
});

describe('points from listening', () => {
  it('need enough answers, and carry the doubt of the worth through the curve', () => {
    const heard = { logWorth: 1, se: 0.3, answers: 4 };
    // One point per log odds: the deviation of the points is that of the worth.
    expect(heardPoints(SOUND, heard)).toEqual({ points: 4, sd: expect.closeTo(0.3, 1) as number });
    expect(heardPoints(SOUND, { ...heard, answers: 3 })).toBeNull();
    expect(heardPoints(SOUND, undefined)).toBeNull();
    // Beyond the end of the curve nothing is certain to the last digit.
    expect(heardPoints(SOUND, { ...heard, logWorth: 9 })).toEqual({ points: 5, sd: 0.1 });
    expect(criterionPoints(SOUND, unit('a', heard))).toMatchObject({
      points: 4,
      why: 'heard in 4 blind answers (±0.3)',
    });
    expect(criterionPoints(SOUND, unit('a', { ...heard, answers: 3 }, 2.5))).toMatchObject({
      points: 2.5,
      why: 'warm',
    });
    expect(criterionPoints(SOUND, unit('a', null))).toMatchObject({ points: null, why: 'no points given yet' });
  });

  it('move points given by hand no further than their certainty carries', () => {
    const few = criterionPoints(SOUND, unit('a', { logWorth: 0, se: 1.2, answers: 6 }, 4.2));
    // By hand: precisions 1/0.4² and 1/1.2² (less where the curve ends): six answers of one person are no verdict.
    expect(few.points).toBeGreaterThan(4.0);
    expect(few.points).toBeLessThan(4.2);
    expect(few.why).toMatch(/^heard in 6 blind answers 3\.0 ±1\.[01], by hand 4\.2 ±0\.4/);
    const many = criterionPoints(SOUND, unit('a', { logWorth: 0, se: 0.1, answers: 300 }, 4.2));
    expect(many.points).toBeCloseTo((3 / 0.1 ** 2 + 4.2 / 0.4 ** 2) / (1 / 0.1 ** 2 + 1 / 0.4 ** 2), 2);
    expect(many.scatter).toEqual({
      kind: 'points',
      sd: expect.closeTo((1 / 0.1 ** 2 + 1 / 0.4 ** 2) ** -0.5, 3) as number,
    });
  });

  it('carry the doubt of the scale into the ranking', () => {
    const sure = rankUnits([unit('a', { logWorth: 0.5, se: 0.1, answers: 40 }), unit('b', { logWorth: -0.5, se: 0.1, answers: 40 })], RULES); // prettier-ignore
    const unsure = rankUnits([unit('a', { logWorth: 0.5, se: 1, answers: 4 }), unit('b', { logWorth: -0.5, se: 1, answers: 4 })], RULES); // prettier-ignore
    expect(sure.map((u) => u.stratum)).toEqual([1, 2]);
    expect(unsure.map((u) => u.stratum)).toEqual([1, 1]);
    // Slope one point per log odds: the deviation of the points is that of the worth.
    expect(sure[0].sd).toBeCloseTo(0.1, 1);
    expect(unsure[0].sd).toBeGreaterThan(0.7);
  });
});
