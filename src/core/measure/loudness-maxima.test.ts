import { describe, expect, it } from 'vitest';
import { BiquadCascade } from '../dsp/biquad';
import { butterworthLowPass } from '../dsp/butterworth';
import { memoryStream } from '../audio/memory-stream';
import { analyse, joined, lcgNoise, scaled, sine } from '../testing/signals';
import { analyseLevel } from './level-analysis';
import { loudnessRange } from './loudness-range';
import { levelMatch } from './level-match';
import { partLoudness } from './loudness';
import { dbtp, lufs } from '../units';

const tone = (level: number, seconds: number): Float64Array => sine(1000, level, seconds);
const quiet = (seconds: number): Float64Array => new Float64Array(Math.round(seconds * 48_000));
const loudness = async (signal: Float64Array) => (await analyseLevel(memoryStream([signal, signal]))).loudness;
const repeated = (times: number, ...parts: Float64Array[]): Float64Array =>
  joined(...Array.from({ length: times }, () => parts).flat());

// Table 1 of EBU Tech 3341 (2023); the lengths and levels are written from memory, each case is −23 LUFS (or the level
// it names) by construction. Tolerance ±0.1 LU as in the table.
describe('momentary and short-term loudness, EBU Tech 3341', () => {
  it('case 9: 1.34 s at −20 and 1.66 s at −30 dBFS, five times: short-term −23', async () => {
    const { maxShortTermLufs } = await loudness(repeated(5, tone(-20, 1.34), tone(-30, 1.66)));
    expect(Math.abs(maxShortTermLufs + 23)).toBeLessThanOrEqual(0.1);
  });
  it.each([0, 1, 7, 13, 19])(
    'case 10, file %i: 3 s at −23 dBFS after a silence of 0.15 s steps: short-term −23',
    async (i) => {
      const { maxShortTermLufs } = await loudness(joined(quiet(0.15 * i), tone(-23, 3), quiet(1)));
      expect(Math.abs(maxShortTermLufs + 23)).toBeLessThanOrEqual(0.1);
    },
  );
  it.each([0, 6, 19])('case 11, file %i: levels from −38 dBFS upwards: short-term as the level', async (i) => {
    const { maxShortTermLufs } = await loudness(joined(quiet(0.15 * i), tone(-38 + i, 3), quiet(3 - 0.15 * i)));
    expect(Math.abs(maxShortTermLufs - (-38 + i))).toBeLessThanOrEqual(0.1);
  });
  it('case 12: 0.18 s at −20 and 0.22 s at −30 dBFS, 25 times: momentary −23', async () => {
    const { maxMomentaryLufs } = await loudness(repeated(25, tone(-20, 0.18), tone(-30, 0.22)));
    expect(Math.abs(maxMomentaryLufs + 23)).toBeLessThanOrEqual(0.1);
  });
  it.each([0, 1, 4, 11, 19])(
    'case 13, file %i: 0.4 s at −23 dBFS after a silence of 20 ms steps: momentary −23',
    async (i) => {
      const { maxMomentaryLufs } = await loudness(joined(quiet(0.02 * i), tone(-23, 0.4), quiet(1)));
      expect(Math.abs(maxMomentaryLufs + 23)).toBeLessThanOrEqual(0.1);
    },
  );
  it.each([0, 9, 19])('case 14, file %i: levels from −38 dBFS upwards: momentary as the level', async (i) => {
    const { maxMomentaryLufs } = await loudness(joined(quiet(0.02 * i), tone(-38 + i, 0.4), quiet(0.4)));
    expect(Math.abs(maxMomentaryLufs - (-38 + i))).toBeLessThanOrEqual(0.1);
  });
  it('a clip shorter than the window has none', async () => {
    const { maxMomentaryLufs, maxShortTermLufs, loudnessRangeLu } = await loudness(tone(-20, 1));
    expect(maxMomentaryLufs).toBeCloseTo(-20, 1);
    expect(maxShortTermLufs).toBe(-Infinity);
    expect(loudnessRangeLu).toBeNull();
  });
});

// Cases 20–23 of the same table, built as described there: at four times the rate a tone of fs/6 at half scale with one
// period of fs/4 at full scale inside, moved by 0–3 samples, then brought down to 48 kHz: 0 dBTP, +0.2/−0.4 dB.
describe('true peak between samples, EBU Tech 3341', () => {
  it.each([0, 1, 2, 3])('case %i + 20', async (offset) => {
    const rate = 192_000;
    const frequency = (i: number): number => (i >= 96_000 && i < 96_000 + 16 ? 12_000 : 8000);
    let phase = 0;
    const fast = Float64Array.from({ length: rate + 4 }, (_, n) => {
      const i = n - offset;
      const isBurst = i >= 96_000 && i < 96_000 + 16;
      const value = (isBurst ? 1 : 0.5) * Math.sin(phase);
      if (i >= 0) phase += (2 * Math.PI * frequency(i)) / rate;
      return value * Math.min(1, n / 2000, (rate - n) / 2000);
    });
    new BiquadCascade(butterworthLowPass(8, 22_000, rate)).process(fast);
    const down = Float64Array.from({ length: 48_000 }, (_, i) => fast[4 * i]);
    const { truePeakDbtp } = (await analyseLevel(memoryStream([down]))).loudness;
    const direct = 20 * Math.log10(fast.reduce((m, x) => Math.max(m, Math.abs(x)), 0));
    // The low-pass shapes the burst, so its own peak at four times the rate is the reference.
    expect(truePeakDbtp - direct).toBeLessThanOrEqual(0.2);
    expect(truePeakDbtp - direct).toBeGreaterThanOrEqual(-0.4);
  });
});

describe('loudness range, EBU Tech 3342 (2016) clause 4, ±1 LU', () => {
  it.each([
    ['1', [-20, -30], 10],
    ['2', [-20, -15], 5],
    ['3', [-40, -20], 20],
    ['4', [-50, -35, -20, -35, -50], 15],
  ])('case %s', async (_, levels, expected) => {
    const { loudnessRangeLu } = await loudness(joined(...levels.map((l) => tone(l, 20))));
    expect(Math.abs((loudnessRangeLu ?? NaN) - expected)).toBeLessThanOrEqual(1);
  });
  // Loudness that rises evenly by 20 LU: the range is 95 − 10 = 85 % of it (every block passes the gate at −20 LU).
  it('is the distance from the 10th to the 95th percentile', () => {
    const rise = Float64Array.from({ length: 6000 }, (_, i) => 10 ** ((-40 + (20 * i) / 6000) / 10));
    // Blocks of 3 s take off half their length at either end.
    expect(loudnessRange(rise)).toBeCloseTo(17 * (5970 / 6000), 3);
  });
  it('gain does not move it', () => {
    const powers = Float64Array.from({ length: 400 }, (_, i) => 10 ** (-4 + 1.5 * Math.sin(i / 30)));
    const [a, b] = [loudnessRange(powers), loudnessRange(powers.map((p) => p * 0.1))];
    expect(a).toBeCloseTo(b ?? NaN, 9);
    expect(a).toBeGreaterThan(10);
  });
});

describe('dual mono and channels', () => {
  it('a one-channel clip as played by two loudspeakers is 3.01 LU louder', async () => {
    const signal = tone(-20, 3);
    const [mono, dual] = [
      (await analyseLevel(memoryStream([signal]))).loudness,
      (await analyseLevel(memoryStream([signal]), { dualMono: true })).loudness,
    ];
    expect(dual.integratedLufs - mono.integratedLufs).toBeCloseTo(10 * Math.log10(2), 9);
    expect(dual.truePeakDbtp).toBe(mono.truePeakDbtp);
    // Two channels are two loudspeakers as they are.
    const stereo = async (dualMono: boolean) =>
      (await analyseLevel(memoryStream([signal, signal]), { dualMono })).loudness.integratedLufs;
    expect(await stereo(true)).toBe(await stereo(false));
    expect(await stereo(false)).toBeCloseTo(dual.integratedLufs, 9);
  });
  it('two channels are told apart', async () => {
    const { channels, level } = await analyse([tone(-20, 2), scaled(tone(-20, 2), -12).map((x) => x + 0.01)]);
    expect(channels.map((c) => c.peakDbfs)).toEqual([expect.closeTo(-20, 1), expect.closeTo(-29.1, 0)]);
    expect(channels.map((c) => c.dcOffset)).toEqual([expect.closeTo(0, 6), expect.closeTo(0.01, 6)]);
    expect(level.peakDbfs).toBeCloseTo(-20, 1);
  });
});

it('loudness of a part is that of the part cut out', async () => {
  const clip = joined(tone(-40, 2), tone(-20, 3), tone(-30, 2));
  const { framePowers } = await analyseLevel(memoryStream([clip]));
  const part = partLoudness(framePowers, { startS: 2, endS: 5 });
  const cut = (await analyseLevel(memoryStream([clip.slice(2 * 48_000, 5 * 48_000)]))).loudness;
  // K-weighting rings on from what comes before the part.
  expect(part.integratedLufs).toBeCloseTo(cut.integratedLufs, 2);
  expect(part).toMatchObject({ startS: 2, endS: 5 });
  expect(partLoudness(framePowers, { startS: 6, endS: 99 }).endS).toBe(7);
  expect(partLoudness(framePowers, { startS: 8, endS: 9 }).integratedLufs).toBe(-Infinity);
});

describe('levelMatch', () => {
  const clip = (i: number, tp: number) => ({ integratedLufs: lufs(i), truePeakDbtp: dbtp(tp) });
  it('brings all clips to the target', () => {
    expect(levelMatch([clip(-30, -15), clip(-20, -5)], -23)).toEqual({
      targetLufs: -23,
      gainsDb: [7, -3],
      heldBackBy: null,
    });
  });
  it('lowers the target for all until none exceeds −1 dBTP', () => {
    const match = levelMatch([clip(-30, -2), clip(-20, -5)], -23);
    expect(match).toEqual({ targetLufs: -29, gainsDb: [1, -9], heldBackBy: 0 });
  });
  it('leaves no more than 0.1 LU when measured again', async () => {
    const noise = lcgNoise(96_000, 0.2, 3);
    const clips = [scaled(noise, -10), sine(700, -14, 2), joined(noise.subarray(0, 48_000), scaled(noise, -30))];
    const before = await Promise.all(clips.map(async (c) => (await analyseLevel(memoryStream([c]))).loudness));
    const { gainsDb } = levelMatch(before, -16);
    const after = await Promise.all(
      clips.map(async (c, i) => (await analyseLevel(memoryStream([scaled(c, gainsDb[i])]))).loudness),
    );
    const levels = after.map((a) => a.integratedLufs);
    expect(Math.max(...levels) - Math.min(...levels)).toBeLessThanOrEqual(0.1);
    expect(Math.max(...after.map((a) => a.truePeakDbtp))).toBeLessThanOrEqual(-1 + 1e-9);
  });
  it('refuses silence', () => {
    expect(() => levelMatch([clip(-Infinity, -60)], -23)).toThrow(/no loudness/);
  });
});
