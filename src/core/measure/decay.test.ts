import { describe, expect, it } from 'vitest';
import { followDecay } from './decay';

const RATE = 1000;
const db = (power: number): number => 10 * Math.log10(power);

interface Room {
  readonly seconds: number;
  /** Time in which the level falls by 60 dB. */
  readonly reverberationS: number;
  /** Re the beginning of the decay; null: none at all. */
  readonly noiseDb: number | null;
  /** Energy of the direct sound, in the first sample. */
  readonly direct?: number;
}

/** An even decay whose every sample is what the definition says, over noise that is as strong in every sample. */
function response({ seconds, reverberationS, noiseDb, direct = 0 }: Room): Float64Array {
  const noise = noiseDb === null ? 0 : 10 ** (noiseDb / 10);
  return Float64Array.from({ length: seconds * RATE }, (_, i) =>
    Math.sqrt(10 ** ((-6 * i) / RATE / reverberationS) + noise + (i === 0 ? direct : 0)),
  );
}

/** Integrated backwards without end, an even decay stays even: −60 dB in its reverberation time. */
const expectEven = (levels: Float64Array, reverberationS: number, toleranceDb: number): void => {
  levels.forEach((level, i) => {
    expect(Math.abs(level + (60 * i) / RATE / reverberationS), `at ${i} ms`).toBeLessThan(toleranceDb);
  });
};

describe('a decay that is followed into the noise', () => {
  it.each([-60, -40, -30])('is even to where it meets noise of %i dB, and says how far that is', (noiseDb) => {
    const { levels, energy, headroomDb } = followDecay(response({ seconds: 2, reverberationS: 1, noiseDb }), RATE);
    expect(Math.abs(headroomDb + noiseDb)).toBeLessThan(0.3);
    // It falls by 60 dB in a second, so they meet after a second times −noise/60.
    expect(Math.abs(levels.length / RATE + noiseDb / 60)).toBeLessThan(0.01);
    expectEven(levels, 1, 0.1);
    // Σ 10^(−6·i/1000) over all i.
    expect(Math.abs(db(energy[0] * (1 - 10 ** (-6 / RATE))))).toBeLessThan(0.05);
    expect(levels[0]).toBe(0);
  });

  it('does not take the direct sound for a part of the line, however near the noise is', () => {
    const { headroomDb, levels } = followDecay(
      response({ seconds: 3, reverberationS: 2, noiseDb: -18, direct: 100 }),
      RATE,
    );
    expect(Math.abs(headroomDb - 18)).toBeLessThan(0.7);
    // All energy of the decay is 10^(0)/(1 − 10^(−3/1000)) = 145; with the direct sound 245.
    expect(Math.abs(levels[1] - db(145 / 245))).toBeLessThan(0.1);
  });

  it('a computed response has no noise: there is headroom without end', () => {
    const { headroomDb, levels } = followDecay(response({ seconds: 4, reverberationS: 1, noiseDb: null }), RATE);
    expect(headroomDb).toBe(Infinity);
    expectEven(levels.subarray(0, 1000), 1, 0.1);
  });

  it('a tail cut off before the noise is followed to its end', () => {
    const { headroomDb, levels } = followDecay(response({ seconds: 0.5, reverberationS: 1, noiseDb: null }), RATE);
    // What the last tenth holds is the decay itself: that is all the noise that can be told, some 29 dB below.
    expect(headroomDb).toBeGreaterThan(24);
    expect(headroomDb).toBeLessThan(32);
    expect(levels.length).toBeLessThanOrEqual(500);
  });

  it('noise alone, or one that grows, is no decay', () => {
    const flat = followDecay(new Float64Array(1000).fill(0.1), RATE);
    expect([flat.headroomDb, flat.levels.length]).toEqual([0, 10]);
    const growing = followDecay(
      Float64Array.from({ length: 1000 }, (_, i) => 10 ** (i / 500)),
      RATE,
    );
    expect(growing.headroomDb).toBe(0);
  });

  it('a decay that is over within three blocks has no line, and ends where the noise begins', () => {
    const { headroomDb, levels } = followDecay(response({ seconds: 1, reverberationS: 0.06, noiseDb: -40 }), RATE);
    // −40 dB after 40 ms; blocks of 10 ms: the fifth is the first within 6 dB of the noise.
    expect([headroomDb, levels.length]).toEqual([0, 40]);
  });
});
