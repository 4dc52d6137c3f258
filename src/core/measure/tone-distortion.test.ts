import { describe, expect, it } from 'vitest';
import { toneLines as lines } from '../testing/tone-lines';
import { distortionIn, isNoiseLimited } from './tone-distortion';
import { linePower, noiseBeside, restPower, strongestLine } from './tone-spectrum';

const db = (ratio: number): number => 20 * Math.log10(ratio);

describe('distortion of a tone, from lines that are known', () => {
  it('THD is harmonics two to ten re the tone, THD+N all the rest re the whole (AES17)', () => {
    const found = distortionIn(lines({ 1000: 0.5, 2000: 5e-4, 3000: 5e-5, 10_000: 5e-4, 11_000: 5e-3 }));
    expect(Math.round(found.hz)).toBe(1000);
    expect(found.levelDbfs).toBeCloseTo(db(0.5), 9);
    expect(found.thdDb).toBeCloseTo(db(Math.hypot(1e-3, 1e-4, 1e-3)), 9);
    expect(found.harmonicsDb.map((h) => Math.round(h * 1e6) / 1e6)).toEqual([-60, -80, ...new Array<number>(6).fill(-Infinity), -60]); // prettier-ignore
    const rest = Math.hypot(5e-4, 5e-5, 5e-4, 5e-3);
    expect(found.thdPlusNoiseDb).toBeCloseTo(db(rest / Math.hypot(rest, 0.5)), 9);
  });

  it('counts harmonics as far as the band reaches', () => {
    expect(distortionIn(lines({ 5000: 0.5, 10_000: 5e-4, 15_000: 5e-4, 20_000: 0.1 })).harmonicsDb.length).toBe(2);
    expect(distortionIn(lines({ 5000: 0.5, 20_000: 5e-4 }, 20_001)).thdDb).toBeCloseTo(-60, 9);
  });

  it('tells what noise alone puts there: the mean of both sides of each harmonic', () => {
    // A harmonic is read over 15 bins; the next 16 bins on either side are noise.
    const spectrum = lines({ 1000: 0.5 });
    for (let k = 1; k < spectrum.powers.length; k++) if (Math.abs(k - 1000) > 7) spectrum.powers[k] = 1e-12;
    const found = distortionIn(spectrum);
    expect(found.thdNoiseDb).toBeCloseTo(10 * Math.log10((9 * 15 * 1e-12) / 0.125), 9);
    expect(found.thdDb).toBeCloseTo(found.thdNoiseDb, 9);
    expect(isNoiseLimited(found)).toBe(true);
    expect([2.9, 3.1].map((above) => isNoiseLimited({ thdDb: -100 + above, thdNoiseDb: -100 }))).toEqual([true, false]);
  });
});

describe('lines of a spectrum of tones', () => {
  it('a line is what stands within seven bins of it', () => {
    const at = (hz: number) => linePower(lines({ [hz]: 1 }), 1000);
    expect([992, 993, 1000, 1007, 1008].map(at)).toEqual([0, 0.5, 0.5, 0.5, 0]);
    expect(linePower(lines({ 3: 1 }), 2), 'at the edge').toBe(0.5);
  });

  it('the noise beside it is the mean of sixteen bins further on either side', () => {
    expect(noiseBeside(lines({ 984: 1 }), 1000)).toBe(0.25);
    expect(noiseBeside(lines({ 1016: 1, 984: 1 }), 1000)).toBe(0.5);
    expect([1000, 1008, 1024].map((hz) => noiseBeside(lines({ [hz]: 1 }), 1000))).toEqual([0, 0, 0]);
    expect([1009, 1023].map((hz) => noiseBeside(lines({ [hz]: 1 }), 1000))).toEqual([0.25, 0.25]);
  });

  it('the strongest of a band is read at the centre of its lobe', () => {
    const spectrum = lines({ 1000: Math.sqrt(3), 1001: 1, 5000: 0.5 });
    expect(strongestLine(spectrum, 20, 20_000)).toBeCloseTo(1000.25, 9);
    expect(strongestLine(spectrum, 2000, 20_000)).toBeCloseTo(5000, 9);
    expect(strongestLine(spectrum, 5000, 5000)).toBeCloseTo(5000, 9);
    expect(strongestLine(spectrum, 6000, 20_000)).toBeNull();
  });

  it('the rest is 20 Hz to the end of the band without what lies around some lines', () => {
    const spectrum = lines({ 19: 1, 20: 1, 992: 1, 993: 1, 1007: 1, 1008: 1, 20_000: 1, 20_001: 1 });
    expect(restPower(spectrum, [1000])).toBeCloseTo(4 / 2, 12);
    expect(restPower(spectrum, [])).toBeCloseTo(6 / 2, 12);
    // Notches that overlap, in any order, and one that reaches beyond the band.
    expect(restPower(spectrum, [1005, 1000])).toBeCloseTo(3 / 2, 12);
    expect(restPower(spectrum, [1000, 20_003])).toBeCloseTo(3 / 2, 12);
    // A-weighting at 10 kHz is −2.5 dB (IEC 61672-1, table 3), at 1 kHz none.
    expect(10 * Math.log10(2 * restPower(lines({ 1000: 1 }), [], 'a'))).toBeCloseTo(0, 2);
    expect(Math.abs(10 * Math.log10(2 * restPower(lines({ 10_000: 1 }), [], 'a')) + 2.5)).toBeLessThan(0.05);
  });
});
