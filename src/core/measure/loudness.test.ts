import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { evenly } from '../testing/evenly';
import { loadLibebur128, type Libebur128 } from '../testing/libebur128';
import { memoryStream } from '../audio/memory-stream';
import { analyse, joined, lcgNoise, scaled, sine, syllables } from '../testing/signals';
import { BiquadCascade } from '../dsp/biquad';
import { lowPass } from '../dsp/eq-biquads';
import { kWeighting } from '../dsp/k-weighting';
import { channelWeights } from './channel-weights';
import { analyseLevel } from './level-analysis';
import { gatedLoudness, powerToLufs } from './integrated-loudness';
import { blockSpread, loudnessFigures, loudnessMeasurements } from './loudness';

const integrated = async (channels: readonly Float64Array[], rate = 48_000): Promise<number> =>
  (await analyseLevel(memoryStream(channels, rate))).loudness.integratedLufs;
const stereo = (x: Float64Array): Float64Array[] => [x, x];
const silence = (seconds: number, rate = 48_000): Float64Array => new Float64Array(Math.round(seconds * rate));

describe('integrated loudness, EBU Tech 3341 (2023) table 1, ±0.1 LU', () => {
  const tone = (level: number, seconds: number): Float64Array => sine(1000, level, seconds);

  it('case 1: stereo 1 kHz sine at −23 dBFS, 20 s', async () => {
    expect(Math.abs((await integrated(stereo(tone(-23, 20)))) + 23)).toBeLessThanOrEqual(0.1);
  });
  it('case 2: the same at −33 dBFS', async () => {
    expect(Math.abs((await integrated(stereo(tone(-33, 20)))) + 33)).toBeLessThanOrEqual(0.1);
  });
  it('case 3: −36, −23, −36 dBFS for 10, 60, 10 s', async () => {
    expect(
      Math.abs((await integrated(stereo(joined(tone(-36, 10), tone(-23, 60), tone(-36, 10))))) + 23),
    ).toBeLessThanOrEqual(0.1);
  });
  it('case 4: case 3 between two stretches at −72 dBFS', async () => {
    const signal = joined(tone(-72, 10), tone(-36, 10), tone(-23, 60), tone(-36, 10), tone(-72, 10));
    expect(Math.abs((await integrated(stereo(signal))) + 23)).toBeLessThanOrEqual(0.1);
  });
  it('case 5: −26, −20, −26 dBFS for 20, 20.1, 20 s', async () => {
    expect(
      Math.abs((await integrated(stereo(joined(tone(-26, 20), tone(-20, 20.1), tone(-26, 20))))) + 23),
    ).toBeLessThanOrEqual(0.1);
  });
  it('case 6: 5.0 sine with −28, −28, −24, −30, −30 dBFS in L, R, C, Ls, Rs', async () => {
    const channels = [-28, -28, -24, -30, -30].map((l) => tone(l, 20));
    expect(Math.abs((await integrated(channels)) + 23)).toBeLessThanOrEqual(0.1);
  });
});

// EBU Tech 3341 cases 15–19: the tones lie on and off the sampling grid; +0.2/−0.4 dB around −6 dBTP. Amplitudes and
// phases as in the table (written from memory; the true peak of each is −6 dBTP by construction).
describe('true peak, EBU Tech 3341 (2023) table 1', () => {
  it.each([
    ['15', 12_000, -6, 0],
    ['16', 12_000, -6, 45],
    ['17', 8_000, -6, 60],
    ['18', 6_000, -6, 67.5],
  ])('case %s: a sine of %i Hz at %f dBFS and %f°', async (_, hz, level, phase) => {
    // The tapered ends keep the switching-on from having a true peak of its own, as in the EBU's files.
    const signal = tapered(sine(hz, level, 1, 48_000, phase));
    const { truePeakDbtp } = (await analyse([signal])).loudness;
    expect(truePeakDbtp).toBeLessThanOrEqual(-5.8);
    expect(truePeakDbtp).toBeGreaterThanOrEqual(-6.4);
  });

  it('case 19: a sine of 12 kHz at +3 dBFS and 45°, whose samples are all at 0 dBFS', async () => {
    const { truePeakDbtp } = (await analyse([tapered(sine(12_000, 3, 1, 48_000, 45))])).loudness;
    expect(truePeakDbtp).toBeLessThanOrEqual(3.2);
    expect(truePeakDbtp).toBeGreaterThanOrEqual(2.6);
  });
});

function tapered(signal: Float64Array): Float64Array {
  const ramp = 2400;
  return signal.map((x, i) => x * Math.min(1, i / ramp, (signal.length - 1 - i) / ramp));
}

describe('against libebur128 (npm ebur128-wasm 3.0.0, run in this test)', () => {
  let reference: Libebur128;
  beforeAll(async () => {
    reference = await loadLibebur128();
  });
  const speech = (rate: number, seed: number): Float64Array =>
    syllables(
      [
        [0.5, 2.1],
        [2.6, 5.2],
        [6, 8.7],
      ],
      10,
      -6,
      rate,
      seed,
    );

  it.each([32_000, 44_100, 48_000, 96_000])('the same integrated loudness at %i Hz to 0.003 LU', async (rate) => {
    for (const seed of [1, 2]) {
      const signal = speech(rate, seed);
      const expected = reference.ebur128_integrated_mono(rate, Float32Array.from(signal));
      // libebur128 keeps the numerator 1, −2, 1 at every rate, we do not (see k-weighting.ts): a known constant apart.
      const apart = 20 * Math.log10(kWeighting(rate)[1].b0);
      expect(Math.abs((await integrated([signal], rate)) - apart - expected)).toBeLessThan(0.003);
    }
  });

  it('the same for two unlike channels', async () => {
    const [l, r] = [speech(48_000, 3), scaled(speech(48_000, 4), -7)];
    const expected = reference.ebur128_integrated_stereo(48_000, Float32Array.from(l), Float32Array.from(r));
    expect(Math.abs((await integrated([l, r])) - expected)).toBeLessThan(0.01);
  });

  // Another interpolator: both may differ by a few tenths (EBU Tech 3341 allows +0.2/−0.4 dB) near half the rate, so
  // the noise ends where speech does.
  it('the same true peak to 0.1 dB', async () => {
    const signal = speech(48_000, 5);
    new BiquadCascade([lowPass(48_000, 6000), lowPass(48_000, 6000), lowPass(48_000, 6000)]).process(signal);
    const expected = reference.ebur128_true_peak_mono(48_000, Float32Array.from(signal));
    expect(Math.abs((await analyse([signal])).loudness.truePeakDbtp - expected)).toBeLessThan(0.1);
  });
});

describe('gates', () => {
  // By the arithmetic of BS.1770-5 clause 5: ten loud seconds and sixty soft ones; their mean lies 6.3 dB under the loud.
  it.each([
    [9.5, true],
    [10.5, false],
  ])('what lies %d LU under the ungated mean is counted: %s', (under, isCounted) => {
    // Level of the soft part for which it lies exactly so far under the mean of both.
    const ratio = 10 ** (-under / 10);
    const soft = (10 * ratio) / (70 - 60 * ratio);
    const powers = Float64Array.from({ length: 700 }, (_, i) => 1e-2 * (i < 100 ? 1 : soft));
    const mean = 1e-2 * (isCounted ? (100 + 600 * soft) / 700 : 1);
    // Blocks across the edge belong to neither; they are a hundredth of all.
    expect(Math.abs(gatedLoudness(powers).loudness - powerToLufs(mean))).toBeLessThan(0.2);
  });

  it('a level change moves loudness and true peak by exactly as much', async () => {
    const speech = syllables([[0.3, 2.5]], 3, -12);
    const before = (await analyse([speech])).loudness;
    await fc.assert(
      fc.asyncProperty(evenly(-20, 10), async (gain) => {
        const after = (await analyse([scaled(speech, gain)])).loudness;
        expect(after.integratedLufs - before.integratedLufs).toBeCloseTo(gain, 6);
        expect(after.truePeakDbtp - before.truePeakDbtp).toBeCloseTo(gain, 6);
      }),
      { numRuns: 8 },
    );
  });

  it('appended silence does not move gated loudness', async () => {
    const speech = syllables([[0.4, 4]], 4.4, -15);
    const alone = await integrated([speech]);
    expect(await integrated([joined(speech, silence(30))])).toBeCloseTo(alone, 1);
  });

  it('silence has no loudness', async () => {
    expect(await integrated([silence(2)])).toBe(-Infinity);
    expect(await integrated([scaled(lcgNoise(96_000, 1), -90)])).toBe(-Infinity);
  });

  it('takes the noise off before it gates', () => {
    const signal = Float64Array.from({ length: 100 }, (_, i) => (i < 50 ? 1e-3 : 0));
    const noisy = signal.map((p) => p + 4e-4);
    const corrected = gatedLoudness(noisy, 4e-4);
    expect(corrected.loudness).toBeCloseTo(gatedLoudness(signal).loudness, 6);
    expect(gatedLoudness(noisy).loudness).not.toBeCloseTo(corrected.loudness, 1);
  });

  it('knows the constant of the standard: a 0 dBFS 997 Hz sine in one front channel reads −3.01 LUFS', async () => {
    expect(await integrated([sine(997, 0, 5)])).toBeCloseTo(-3.01, 2);
    expect(powerToLufs(1)).toBeCloseTo(-0.691, 12);
  });
});

describe('channelWeights, ITU-R BS.1770-5 tables 3 and 4', () => {
  it.each([
    [1, null, [1]],
    [2, null, [1, 1]],
    [5, null, [1, 1, 1, 1.41, 1.41]],
    [6, null, [1, 1, 1, 0, 1.41, 1.41]],
    [6, 0x60f, [1, 1, 1, 0, 1.41, 1.41]],
    [8, null, [1, 1, 1, 0, 1, 1, 1.41, 1.41]],
    [3, 0x7, [1, 1, 1]],
  ])('%i channels, mask %s', (channels, mask, expected) => {
    expect(channelWeights(channels, mask)).toEqual(expected);
  });
});

describe('the spread of gated blocks', () => {
  it('is that of the blocks, over as many as are independent', () => {
    const steady = Array.from({ length: 40 }, (_, i) => -20 + (i % 2));
    // Blocks that go up and down hang together by their overlap alone: four count as one.
    const sd = Math.sqrt(10 / 39);
    expect(blockSpread(steady)).toEqual({
      spread: { sd: expect.closeTo(sd, 9) as number, count: 40, of: 'gating blocks of 400 ms at 75 % overlap' },
      uncertaintyLu: expect.closeTo(sd / Math.sqrt(10), 9) as number,
    });
    expect(blockSpread([-20])).toEqual({ spread: null, uncertaintyLu: null });
  });

  it('is no surer of a mean than of one block where all hang together', () => {
    const three = blockSpread([-22, -20, -18]);
    expect(three.uncertaintyLu).toBe(three.spread?.sd);
  });
});

describe('the figures of loudness in words', () => {
  const of = (frames: number, power = 0.01) =>
    loudnessMeasurements(loudnessFigures(new Float64Array(frames).fill(power), 0.5));

  it('say what they are of, and what is missing', () => {
    expect(of(500).map((m) => [m.quantity, m.condition, m.notMeasured ?? 'there'])).toEqual([
      ['integratedLoudness', 'K-weighted, gated at −70 LUFS and −10 LU, whole clip', 'there'],
      ['maxMomentaryLoudness', 'K-weighted, sliding window of 0.4 s, not gated', 'there'],
      ['maxShortTermLoudness', 'K-weighted, sliding window of 3 s, not gated', 'there'],
      ['loudnessRange', 'blocks of 3 s every 100 ms, gated at −70 LUFS and −20 LU, 10th to 95th percentile', 'there'],
      ['truePeak', '4 × oversampled, highest channel', 'there'],
    ]);
    expect(of(100).map((m) => m.notMeasured ?? 'there')).toEqual([
      'there',
      'there',
      'The clip is shorter than 3 s, or digital silence.',
      'The clip is shorter than 3 s, or never louder than −70 LUFS.',
      'there',
    ]);
    expect(of(10, 0).map((m) => m.notMeasured)).toEqual([
      'Nothing in the clip is louder than −70 LUFS for 0.4 s.',
      'The clip is shorter than 0.4 s, or digital silence.',
      'The clip is shorter than 3 s, or digital silence.',
      'The clip is shorter than 3 s, or never louder than −70 LUFS.',
      null,
    ]);
  });
});
