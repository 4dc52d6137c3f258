import { describe, expect, it } from 'vitest';
import { lcgNoise } from '../testing/signals';
import { BiquadCascade, cascadeGainDb } from './biquad';
import { highPass, lowPass, peaking } from './eq-biquads';
import { kWeighting } from './k-weighting';
import { aWeightingPower } from './weighting-curves';

describe('kWeighting', () => {
  // ITU-R BS.1770-5 Annex 1, Tables 1 and 2 (48 kHz). Written from memory; libebur128's readings, which rest on the
  // same table, are compared in loudness.test.ts.
  it('equals the table at 48 kHz', () => {
    const [shelf, highPassSection] = kWeighting(48_000);
    expect(shelf.b0).toBeCloseTo(1.53512485958697, 10);
    expect(shelf.b1).toBeCloseTo(-2.69169618940638, 10);
    expect(shelf.b2).toBeCloseTo(1.19839281085285, 10);
    expect(shelf.a1).toBeCloseTo(-1.69065929318241, 10);
    expect(shelf.a2).toBeCloseTo(0.73248077421585, 10);
    expect(highPassSection).toMatchObject({ b0: 1, b1: -2, b2: 1 });
    expect(highPassSection.a1).toBeCloseTo(-1.99004745483398, 10);
    expect(highPassSection.a2).toBeCloseTo(0.99007225036621, 10);
  });

  // The curve is one and the same at every rate; near half the rate the bilinear transform bends it, so only what lies
  // well below is compared.
  it.each([16_000, 32_000, 44_100, 88_200, 96_000, 192_000])('keeps its curve at %i Hz', (rate) => {
    for (const hz of [20, 38, 100, 500, 1000, 1500, 2000].filter((f) => f < rate / 16)) {
      expect(cascadeGainDb(kWeighting(rate), hz, rate)).toBeCloseTo(cascadeGainDb(kWeighting(48_000), hz, 48_000), 1);
    }
  });
});

describe('aWeightingPower', () => {
  // IEC 61672-1:2013 Table 3, design goals at exact base-ten frequencies (rounded to 0.1 dB in the standard).
  it.each([
    [31.5, -39.4],
    [63, -26.2],
    [125, -16.1],
    [250, -8.6],
    [500, -3.2],
    [1000, 0],
    [2000, 1.2],
    [4000, 1.0],
    [8000, -1.1],
    [16000, -6.6],
  ])('at %f Hz is %f dB', (nominal, expected) => {
    const exact = 1000 * 10 ** (Math.round(10 * Math.log10(nominal / 1000)) / 10);
    expect(Math.abs(10 * Math.log10(aWeightingPower(exact)) - expected)).toBeLessThanOrEqual(0.051);
  });

  it('is silent at 0 Hz', () => {
    expect(aWeightingPower(0)).toBe(0);
  });
});

describe('eq biquads', () => {
  it('have their gain where they should', () => {
    expect(cascadeGainDb([peaking(48_000, 3000, 4, 1)], 3000, 48_000)).toBeCloseTo(4, 9);
    expect(cascadeGainDb([highPass(48_000, 100)], 100, 48_000)).toBeCloseTo(-3.0103, 4);
    expect(cascadeGainDb([lowPass(48_000, 5000)], 5000, 48_000)).toBeCloseTo(-3.0103, 4);
    expect(cascadeGainDb([lowPass(48_000, 5000)], 10, 48_000)).toBeCloseTo(0, 4);
  });
});

describe('BiquadCascade', () => {
  it('filters in pieces as it does in one go', () => {
    const sections = [highPass(48_000, 120), peaking(48_000, 2000, -6, 2)];
    const whole = lcgNoise(1000, 0.5);
    const pieces = whole.slice();
    new BiquadCascade(sections).process(whole);
    const cascade = new BiquadCascade(sections);
    for (const [from, to] of [
      [0, 1],
      [1, 400],
      [400, 1000],
    ])
      cascade.process(pieces.subarray(from, to));
    expect(pieces).toEqual(whole);
  });

  // scipy 1.10: b, a = signal.butter(1, 1000/24000)
  it('gives the impulse response of a known first-order low-pass', () => {
    const section = { b0: 0.06151177, b1: 0.06151177, b2: 0, a1: -0.87697646, a2: 0 };
    const impulse = new Float64Array(4);
    impulse[0] = 1;
    new BiquadCascade([section]).process(impulse);
    expect(impulse[0]).toBeCloseTo(0.06151177, 12);
    expect(impulse[1]).toBeCloseTo(0.06151177 * 1.87697646, 12);
    expect(impulse[2]).toBeCloseTo(0.06151177 * 1.87697646 * 0.87697646, 12);
  });
});
