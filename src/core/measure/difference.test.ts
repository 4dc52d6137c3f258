import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { evenly } from '../testing/evenly';
import { align } from '../audio/alignment';
import { BiquadCascade, cascadeGainDb, type Biquad } from '../dsp/biquad';
import { butterworthHighPass } from '../dsp/butterworth';
import { peaking } from '../dsp/eq-biquads';
import { joined, lcgNoise, mixed, scaled, syllables } from '../testing/signals';
import { difference } from './difference';
import { fitLowCut } from './low-cut';

const RATE = 48_000;
const SPEECH = syllables(
  [
    [0.5, 2.4],
    [3.1, 5],
    [5.6, 7.5],
  ],
  8,
  -12,
  RATE,
  11,
);
const floor = (length: number, level: number, seed: number): Float64Array => lcgNoise(length, 10 ** (level / 20), seed);
const filtered = (signal: Float64Array, sections: readonly Biquad[]): Float64Array => {
  const copy = signal.slice();
  new BiquadCascade(sections).process(copy);
  return copy;
};
const later = (signal: Float64Array, samples: number): Float64Array => joined(new Float64Array(samples), signal);

describe('alignment', () => {
  it('finds whole samples of delay, either way', () => {
    for (const delay of [0, 1, 480, 30_011]) {
      expect(align(SPEECH, later(SPEECH, delay), RATE).lagS * RATE).toBeCloseTo(delay, 2);
      expect(align(later(SPEECH, delay), SPEECH, RATE).lagS * RATE).toBeCloseTo(-delay, 2);
    }
  });
  it('finds parts of a sample', () => {
    // Half a sample late: the mean of the signal and its neighbour has a delay of ½ sample exactly.
    const half = SPEECH.map((x, i) => (x + (SPEECH[i - 1] ?? 0)) / 2);
    const { lagS, isSamePerformance } = align(SPEECH, half, RATE);
    expect(isSamePerformance).toBe(true);
    expect(lagS * RATE).toBeCloseTo(0.5, 2);
  });
  it('a turned-over and filtered copy is still the same performance', () => {
    const copy = filtered(scaled(later(SPEECH, 900), -9), [peaking(RATE, 2000, 9, 1)]).map((x) => -x);
    const found = align(SPEECH, copy, RATE);
    expect(found.isSamePerformance).toBe(true);
    expect(Math.abs(found.lagS * RATE - 900)).toBeLessThan(3);
  });
  it('two readings of one text are aligned by loudness over time', () => {
    const phrases = [
      [1.3, 3.2],
      [3.9, 5.8],
      [6.4, 8.3],
    ] as const;
    const found = align(SPEECH, syllables(phrases, 9, -20, RATE, 99), RATE);
    expect(found.isSamePerformance).toBe(false);
    expect(found.lagS).toBeCloseTo(0.8, 1);
  });
  it('long clips are aligned by a stretch', () => {
    const long = joined(SPEECH, scaled(SPEECH.slice().reverse(), -6), SPEECH);
    expect(align(long, later(long, 70_001), RATE).lagS * RATE).toBeCloseTo(70_001, 1);
  });
});

describe('difference of two clips', () => {
  it.each([
    ['a bell', [peaking(RATE, 2500, 6, 1)]],
    ['two bells', [peaking(RATE, 300, -4, 0.8), peaking(RATE, 7000, 5, 1.2)]],
    ['nothing', []],
  ])('gives %s back to 0.3 dB, with gain and delay', (_, sections) => {
    const a = mixed(SPEECH, floor(SPEECH.length, -75, 1));
    const b = mixed(later(scaled(filtered(SPEECH, sections), -7.5), 2345), floor(SPEECH.length + 2345, -82, 2));
    const found = difference(a, b, RATE);
    expect(found.method).toBe('transfer');
    expect(Math.abs(found.lagS * RATE - 2345)).toBeLessThan(2);
    const trusted = found.points.filter((p) => p.trusted && p.hz > 60 && p.hz < 16_000);
    expect(trusted.length).toBeGreaterThan(90);
    for (const { hz, db } of trusted) {
      expect(Math.abs((db ?? 0) + found.levelDb + 7.5 - cascadeGainDb(sections, hz, RATE)), `${hz} Hz`).toBeLessThan(
        0.3,
      );
    }
    expect(found.lowCut.kind).not.toBe('found');
  });

  it('hides what the noise covers', () => {
    const dull = filtered(SPEECH, [
      { b0: 0.05, b1: 0.05, b2: 0, a1: -0.9, a2: 0 },
      { b0: 0.05, b1: 0.05, b2: 0, a1: -0.9, a2: 0 },
      { b0: 0.05, b1: 0.05, b2: 0, a1: -0.9, a2: 0 },
    ]);
    const found = difference(SPEECH, mixed(dull, floor(dull.length, -50, 3)), RATE);
    expect(found.points.filter((p) => p.hz > 9000).every((p) => !p.trusted)).toBe(true);
    expect(found.points.filter((p) => p.hz > 150 && p.hz < 800).every((p) => p.trusted)).toBe(true);
  });

  it('of one performance hides the bands that are not coherent', () => {
    const hiss = filtered(floor(SPEECH.length, -14, 8), butterworthHighPass(8, 12_000, RATE));
    const found = difference(SPEECH, mixed(SPEECH, hiss), RATE);
    expect(found.method).toBe('transfer');
    expect(found.points.filter((p) => p.hz > 13_500).some((p) => p.trusted)).toBe(false);
    expect(found.points.filter((p) => p.hz > 200 && p.hz < 9000).every((p) => p.trusted)).toBe(true);
  });

  it('of two readings compares long-term spectra', () => {
    const other = syllables(
      [
        [0.6, 2.5],
        [3.2, 5.1],
        [5.7, 7.6],
      ],
      8,
      -18,
      RATE,
      55,
    );
    const bell = [peaking(RATE, 3000, 6, 1)];
    const a = mixed(SPEECH, floor(SPEECH.length, -80, 6));
    const b = mixed(filtered(other, bell), floor(other.length, -80, 7));
    const found = difference(a, b, RATE, { fraction: 3 });
    expect(found.method).toBe('spectra');
    const trusted = found.points.filter((p) => p.trusted && p.hz > 100 && p.hz < 15_000);
    expect(trusted.length).toBeGreaterThan(15);
    // Two different noises: about 1 dB of scatter per third octave is their own.
    for (const { hz, db } of trusted) {
      expect(Math.abs((db ?? 0) + found.levelDb + 6 - cascadeGainDb(bell, hz, RATE)), `${hz} Hz`).toBeLessThan(1.5);
    }
  });

  it('gain moves the level and nothing else', () => {
    const b = filtered(SPEECH, [peaking(RATE, 1500, 4, 1)]);
    const before = difference(SPEECH, b, RATE);
    fc.assert(
      fc.property(evenly(-30, 12), (gain) => {
        const after = difference(SPEECH, scaled(b, gain), RATE);
        expect(after.levelDb - before.levelDb).toBeCloseTo(gain, 4);
        after.points.forEach((p, i) => {
          if (p.trusted) expect(p.db ?? 0).toBeCloseTo(before.points[i].db ?? 0, 4);
        });
      }),
      { numRuns: 3 },
    );
  });

  it('refuses clips that do not overlap', () => {
    expect(() => difference(SPEECH.subarray(30_000, 39_000), SPEECH, RATE)).toThrow(/third of a second/);
    expect(() => difference(SPEECH, new Float64Array(SPEECH.length), RATE)).toThrow(/digital silence/);
  });
});

describe('hidden low-cut', () => {
  const a = mixed(SPEECH, floor(SPEECH.length, -80, 4));
  it.each([
    [1, 100],
    [2, 60],
    [2, 120],
    [3, 90],
    [4, 150],
  ])('order %i at %i Hz is found with corner and order', (order, corner) => {
    const { lowCut } = difference(a, scaled(filtered(a, butterworthHighPass(order, corner, RATE)), 20), RATE);
    expect(lowCut).toMatchObject({ kind: 'found', order });
    expect(Math.abs((lowCut.kind === 'found' ? lowCut.cornerHz : 0) / corner - 1)).toBeLessThan(0.05);
  });
  it('a bell, a shelf or nothing is no low-cut', () => {
    for (const sections of [[], [peaking(RATE, 90, -3, 2)], [peaking(RATE, 200, 4, 0.7)]]) {
      expect(difference(a, filtered(a, sections), RATE).lowCut.kind).toBe('none');
    }
    expect(fitLowCut([])).toBeNull();
  });
});
