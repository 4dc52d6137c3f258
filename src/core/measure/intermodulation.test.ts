import { describe, expect, it } from 'vitest';
import { toneLines as lines } from '../testing/tone-lines';
import { dynamicRangeIn } from './dynamic-range';
import { smpteIn, twinToneIn } from './intermodulation';

const db = (ratio: number): number => 20 * Math.log10(ratio);

describe('distortion of two tones at once, from lines that are known', () => {
  const carriers = { 60: 0.4, 7000: 0.1 };

  it('SMPTE: both side bands of an order re the high tone, orders by root sum of squares', () => {
    const found = smpteIn(
      lines({ ...carriers, 6940: 1e-3, 7060: 2e-3, 6880: 5e-4, 7120: 5e-4, 6820: 2e-4, 7180: 1e-4 }),
    );
    expect(found?.hz.map(Math.round)).toEqual([60, 7000]);
    expect(found?.balanceDb).toBeCloseTo(db(4), 9);
    expect(found?.db).toBeCloseTo(db(Math.hypot(0.03, 0.01, 0.003)), 9);
  });

  it('counts three orders and no fourth', () => {
    const one = (n: number) => smpteIn(lines({ ...carriers, [7000 + 60 * n]: 1e-3 }))?.db ?? NaN;
    expect([1, 2, 3].map(one).map((v) => v.toFixed(6))).toEqual(new Array(3).fill((-40).toFixed(6)));
    expect([-1, -2, -3].map(one).map((v) => v.toFixed(6))).toEqual(new Array(3).fill((-40).toFixed(6)));
    expect(one(4)).toBe(-Infinity);
  });

  it('finds no pair where one of the tones is missing', () => {
    expect(smpteIn(lines({ 60: 0.4 }))).toBeNull();
    expect(smpteIn(lines({ 7000: 0.4 }))).toBeNull();
    expect([smpteIn(lines({ 20: 0.4, 7000: 0.1 })), smpteIn(lines({ 600: 0.4, 7000: 0.1 }))]).toEqual([null, null]);
  });

  it('twin tones: the difference tone, and both of third order, re the sum of the tones', () => {
    const tones = { 9000: 0.2, 10_000: 0.3 };
    const found = twinToneIn(lines({ ...tones, 1000: 1e-3, 8000: 2e-3, 11_000: 3e-3 }));
    expect(found?.hz.map(Math.round)).toEqual([9000, 10_000]);
    expect(found?.balanceDb).toBeCloseTo(db(2 / 3), 9);
    expect(found?.db).toBeCloseTo(db(Math.hypot(1e-3, 5e-3) / 0.5), 9);
    // The stronger one may be the lower.
    expect(twinToneIn(lines({ 9000: 0.3, 10_000: 0.2, 1000: 1e-3 }))?.balanceDb).toBeCloseTo(db(1.5), 9);
  });

  it('the lower product of third order stands for both where the upper one lies beyond what is read', () => {
    const tones = { 19_000: 0.25, 20_000: 0.25 };
    expect(twinToneIn(lines({ ...tones, 18_000: 1e-3, 21_000: 0.1 }))?.db).toBeCloseTo(db(2e-3 / 0.5), 9);
    const wide = lines({ ...tones, 18_000: 1e-3, 21_000: 3e-3 }, 22_000);
    expect(twinToneIn(wide)?.db).toBeCloseTo(db(4e-3 / 0.5), 9);
  });

  it('looks for the fellow between 200 Hz and 2 kHz away, and takes the stronger of two', () => {
    expect(twinToneIn(lines({ 10_000: 0.3, 10_100: 0.2 }))).toBeNull();
    expect(twinToneIn(lines({ 10_000: 0.3, 12_500: 0.2 }))).toBeNull();
    expect(twinToneIn(lines({ 10_000: 0.3, 9500: 0.1, 11_000: 0.2 }))?.hz.map(Math.round)).toEqual([10_000, 11_000]);
    expect(twinToneIn(lines({ 10_000: 0.3, 9500: 0.2, 11_000: 0.1 }))?.hz.map(Math.round)).toEqual([9500, 10_000]);
    expect(twinToneIn(lines({ 1000: 0.3 }))).toBeNull();
  });
});

describe('dynamic range by a faint tone', () => {
  it('is full scale re what is left without the tone, unweighted and A-weighted', () => {
    // Noise of 10⁻⁶ re full scale, all of it at 3,150 Hz: A-weighting there is +1.2 dB (IEC 61672-1, table 3).
    const found = dynamicRangeIn(lines({ 997: 1e-3, 3150: 1e-5 }));
    expect(Math.round(found.hz)).toBe(997);
    expect(found.levelDbfs).toBeCloseTo(-60, 9);
    expect(found.zDb).toBeCloseTo(100, 9);
    expect(Math.abs(found.aDb - 98.8)).toBeLessThan(0.06);
  });

  it('leaves out what lies below 20 Hz and above 20 kHz', () => {
    const found = dynamicRangeIn(lines({ 997: 1e-3, 3150: 1e-5, 10: 1e-4, 21_000: 1e-4 }));
    expect(found.zDb).toBeCloseTo(100, 9);
  });
});
