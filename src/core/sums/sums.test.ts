import { describe, expect, it } from 'vitest';
import { gainBudget, gainBudgetWords, type GainBudgetInput } from './gain-budget';
import { headphoneLevel, listeningHours, loadingLossDb, phantomVolts, recordingHours } from './small-sums';

// Johnson–Nyquist with CODATA 2018: 150 Ω over 20 Hz–20 kHz at 20 °C are −130.9 dBu, A-weighted −133.0 dBu(A).
const QUIET_DYNAMIC: GainBudgetInput = {
  sensitivityMvPa: 1.6,
  speechDbSpl: 80,
  crestDb: 15,
  targetDbfs: -10,
  fullScaleDbu: 14,
  mostGainDb: 60,
  einDbuA: -128,
  selfNoiseDbA: null,
  sourceOhms: 150,
  booster: null,
};
const booster = { gainDb: 25, einDbuA: -131 };

describe('gain budget', () => {
  it('is the arithmetic of levels: 80 dB SPL at 1.6 mV/Pa are −67.7 dBu', () => {
    // 20·lg(0.0016/0.7746) = −53.70 dBu at 94 dB SPL; 13.98 dB less; peaks 15 − 3.01 above: −55.69 dBu; +14 − 10.
    const { gainDb, marginDb } = gainBudget(QUIET_DYNAMIC);
    expect(gainDb).toBeCloseTo(-10 + 14 + 55.69, 2);
    expect(marginDb).toBeCloseTo(0.31, 2);
    // Common practice, no source: a quiet dynamic microphone needs 55 to 60 dB for speech.
    expect(gainDb).toBeGreaterThan(55);
    expect(gainDb).toBeLessThan(60);
  });

  it('gain that is turned up is gain of the file: the peak of the voice comes out at the target', () => {
    const { gainDb } = gainBudget(QUIET_DYNAMIC);
    const peakVolts = 0.0016 * 10 ** ((80 - 93.9794) / 20) * 10 ** (15 / 20);
    const fullScalePeakVolts = Math.SQRT2 * 0.774597 * 10 ** ((14 - gainDb) / 20);
    expect(20 * Math.log10(peakVolts / fullScalePeakVolts)).toBeCloseTo(-10, 3);
  });

  it('noise by Friis: of an input at −130.0 dBu(A), half of the power is the resistor’s', () => {
    // −130.0 dBu(A) are twice the power of −133.0: the amplifier makes as much as the source, 3.0 dB in all.
    const { noiseDbA, parts } = gainBudget({ ...QUIET_DYNAMIC, einDbuA: -129.96 });
    expect(parts.interface - parts.microphone).toBeCloseTo(0, 0);
    expect(noiseDbA - parts.microphone).toBeCloseTo(3, 1);
  });

  it('a booster helps a noisy input, and does nothing for one next to the limit', () => {
    const noisy = gainBudget({ ...QUIET_DYNAMIC, einDbuA: -122, booster });
    // The input's noise falls by the booster's gain: what is left is the resistor and the booster, 133.0 ⊕ 135.3.
    expect(noisy.boosterGainsDb).toBeGreaterThan(8);
    expect(gainBudgetWords(noisy).at(-1)).toMatch(/is of use/);
    // Beyond the resistor (−133.0) an input at −131.5 has 0.42 of its power, a booster at −132.0 has 0.27: 1.42 against 1.27.
    const quiet = gainBudget({ ...QUIET_DYNAMIC, einDbuA: -131.5, booster: { gainDb: 25, einDbuA: -132 } });
    expect(quiet.boosterGainsDb).toBeCloseTo(0.5, 1);
    expect(gainBudgetWords(quiet).at(-1)).toMatch(/does nothing|hardly/);
    expect(gainBudgetWords(gainBudget({ ...QUIET_DYNAMIC, einDbuA: -132, booster: { gainDb: 25, einDbuA: -120 } })).at(-1)).toMatch(/noisier/); // prettier-ignore
  });

  it('a booster takes its gain off the interface', () => {
    const without = gainBudget(QUIET_DYNAMIC);
    expect(without.gainDb - gainBudget({ ...QUIET_DYNAMIC, booster }).gainDb).toBeCloseTo(25, 9);
  });

  it('of a condenser its own noise counts, not its resistance', () => {
    const { parts } = gainBudget({ ...QUIET_DYNAMIC, sensitivityMvPa: 20, selfNoiseDbA: 12 });
    expect(parts.microphone).toBeCloseTo(12, 9);
  });

  it.each([
    [50, /does not: 9\.7 dB/],
    [60, /0\.3 dB to spare: little/],
    [75, /15\.3 dB to spare\.$/],
  ])('with %i dB of gain it says so', (mostGainDb, words) => {
    expect(gainBudgetWords(gainBudget({ ...QUIET_DYNAMIC, mostGainDb }))[0]).toMatch(words);
  });

  it('says nothing of a margin that nobody knows, and refuses a microphone without a sensitivity', () => {
    expect(gainBudgetWords(gainBudget({ ...QUIET_DYNAMIC, mostGainDb: null }))).toEqual([]);
    expect(() => gainBudget({ ...QUIET_DYNAMIC, sensitivityMvPa: 0 })).toThrow(RangeError);
  });
});

describe('small sums', () => {
  it('loading: 900 Ω against 3 kΩ dull a source of 150 Ω by about 1 dB (common practice, no source)', () => {
    expect(loadingLossDb(150, 3000) - loadingLossDb(150, 900)).toBeCloseTo(0.92, 2);
  });

  it('headphones: 1 V at 32 Ω are 31.25 mW, 15 dB above 1 mW', () => {
    const { milliwatts, dbSpl, lossDb, damping } = headphoneLevel(2, 32, 32, { dbPerMw: 98 });
    expect(milliwatts).toBeCloseTo(31.25, 6);
    expect(dbSpl).toBeCloseTo(98 + 14.95, 2);
    expect(lossDb).toBeCloseTo(-6.02, 2);
    expect(damping).toBe(1);
    expect(headphoneLevel(2, 32, 32, { dbPerVolt: 110 }).dbSpl).toBeCloseTo(110, 9);
  });

  it('phantom power: 10 mA, the most of IEC 61938, leave 14 V', () => {
    expect(phantomVolts(10)).toBeCloseTo(14, 9);
    expect(phantomVolts(0)).toBe(48);
  });

  it('time on a card, and time at a level', () => {
    // 48 000 · 3 bytes · 1 channel = 144 kB/s; 1 GB lasts 1.929 h.
    expect(recordingHours(1, 48_000, 24, 1)).toBeCloseTo(1.929, 3);
    expect([85, 88, 94].map(listeningHours)).toEqual([8, 4, 1]);
  });
});
