import { describe, expect, it } from 'vitest';
import { seededBits, uniform } from '../stats/random';
import type { UnitFacts } from './criterion-points';
import { RankingMemory } from './ranking-memory';
import type { Rubric } from './rubric';

const RUBRIC: Rubric = {
  id: 'bench',
  version: 1,
  name: 'Bench',
  category: 'microphone',
  criteria: [
    { id: 'noise', name: 'Noise', meaning: '', kind: 'measured', quantity: 'noiseReSpeechA', curve: [[-80, 5], [-40, 0]], repeatability: 0.7 }, // prettier-ignore
    { id: 'build', name: 'Build', meaning: '', kind: 'by-hand', repeatability: 0.2 },
  ],
  weights: { noise: 2, build: 1 },
  stratumProbability: 0.9,
};
const OPTIONS = { draws: 60 };

function unit(id: string, bits: ReturnType<typeof seededBits>): UnitFacts {
  const value = -80 + 40 * uniform(bits);
  return {
    id,
    figures: {
      noiseReSpeechA: {
        value: uniform(bits) < 0.2 ? null : value,
        uncertainty: 0.5,
        bound: uniform(bits) < 0.2 ? 'at-most' : 'exact',
        notMeasured: null,
      },
    },
    byHand: uniform(bits) < 0.5 ? {} : { build: { value: 5 * uniform(bits), reason: null } },
    prices: [],
  };
}

describe('a ranking that goes on from the last one', () => {
  it('is that of a memory that begins anew: facts, missing points, units that come and go, other rules', () => {
    const bits = seededBits('memory');
    let next = 0;
    const one = () => unit(String(next++), bits);
    let units = Array.from({ length: 25 }, one);
    let rubric = RUBRIC;
    const kept = new RankingMemory();
    for (let round = 0; round < 50; round++) {
      const fresh = new RankingMemory();
      expect(kept.rank(units, rubric, OPTIONS)).toEqual(fresh.rank(units, rubric, OPTIONS));
      for (const { id } of units) expect(kept.pointsOf(id)).toEqual(fresh.pointsOf(id));
      const at = Math.floor(uniform(bits) * units.length);
      const what = uniform(bits);
      if (what < 0.6) units = units.map((u, i) => (i === at ? unit(u.id, bits) : u));
      else if (what < 0.75) units = [...units, one()];
      else if (what < 0.9) units = units.filter((_, i) => i !== at);
      else rubric = { ...rubric, weights: { noise: uniform(bits), build: uniform(bits) } };
    }
  });

  it('forgets a unit that is gone: what comes back under its name is drawn by its own facts', () => {
    const bits = seededBits('back');
    const units = ['a', 'b', 'c'].map((id) => unit(id, bits));
    const kept = new RankingMemory();
    kept.rank(units, RUBRIC, OPTIONS);
    kept.rank(units.slice(1), RUBRIC, OPTIONS);
    expect(kept.pointsOf('a')).toEqual([]);
    const back = [unit('a', bits), ...units.slice(1)];
    expect(kept.rank(back, RUBRIC, OPTIONS)).toEqual(new RankingMemory().rank(back, RUBRIC, OPTIONS));
  });
});
