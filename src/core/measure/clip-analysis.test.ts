import { describe, expect, it } from 'vitest';
import { analyse, joined, lcgNoise, mixed, scaled, sine, syllables } from '../testing/signals';
import { dbfs } from '../units';
import { memoryStream } from '../audio/memory-stream';
import type { SampleStream } from '../audio/sample-stream';
import { analyseClip, spectralFigures } from './clip-analysis';
import { clipMeasurements } from './clip-measurements';
import { clipSummary } from './clip-summary';
import { analyseLevel } from './level-analysis';
import { clipReadings } from './stretch-reader';

describe('level, AES17', () => {
  it('a full-scale 997 Hz sine: peak 0, RMS 0 dBFS, crest 3.01 dB', async () => {
    const { level } = await analyse([sine(997, 0, 2)]);
    expect(level.peakDbfs).toBeCloseTo(0, 3);
    expect(level.rmsDbfs).toBeCloseTo(0, 3);
    expect(level.crestDb).toBeCloseTo(3.01, 2);
    expect(level.clippedRuns).toBe(0);
  });

  it('a square wave has no crest, and is clipped all over', async () => {
    const square = Float64Array.from({ length: 48_000 }, (_, i) => (i % 100 < 50 ? 0.5 : -0.5));
    const { level } = await analyse([square]);
    expect(level.crestDb).toBeCloseTo(0, 9);
    expect(level.rmsDbfs).toBeCloseTo(20 * Math.log10(0.5) + 3.0103, 3);
    expect(level.clippedRuns).toBe(960);
  });

  it('finds the DC offset of the worse channel, with its sign', async () => {
    const tone = sine(100, -20, 1);
    const { level } = await analyse([tone.map((x) => x + 0.001), tone.map((x) => x - 0.02)]);
    expect(level.dcOffset).toBeCloseTo(-0.02, 6);
  });

  it('counts clipping of a sine driven 6 dB too far', async () => {
    const clipped = sine(100, 6, 1).map((x) => Math.max(-1, Math.min(1, x)));
    expect((await analyse([clipped])).level.clippedRuns).toBe(200);
  });

  it('gives the spread over seconds', async () => {
    const { level } = await analyse([joined(sine(1000, -20, 2), sine(1000, -10, 2))]);
    expect(level.rmsSpread).toMatchObject({ count: 4 });
    // Sample standard deviation of −20, −20, −10, −10.
    expect(level.rmsSpread?.sd).toBeCloseTo(5.7735, 2);
  });

  it('says of digital silence that nothing can be measured, not zero', async () => {
    const analysis = await analyse([new Float64Array(48_000)]);
    expect(clipSummary(analysis).level).toMatchObject({ peakDbfs: null, rmsDbfs: null, crestDb: null, clippedRuns: 0 });
    const byName = new Map(clipMeasurements(analysis).map((m) => [m.quantity, m]));
    expect(byName.get('rms')).toMatchObject({
      value: null,
      notMeasured: expect.stringMatching(/digital silence/) as string,
    });
    expect(byName.get('silenceRmsA')?.value).toBeNull();
    expect(JSON.parse(JSON.stringify(clipSummary(analysis)))).toEqual(clipSummary(analysis));
  });

  it('refuses a stream without samples', async () => {
    await expect(analyse([new Float64Array(0)])).rejects.toMatchObject({ code: 'no-audio' });
  });
});

describe('noise in the pause', () => {
  // White noise of uniform density d over 0…24 kHz: 20 Hz–20 kHz holds 19980/24000 of its power.
  it('reads white noise of known level, unweighted and A-weighted', async () => {
    const noise = lcgNoise(10 * 48_000, 0.001);
    const meanSquare = noise.reduce((s, x) => s + x * x, 0) / noise.length;
    const expectedZ = 10 * Math.log10((2 * meanSquare * 19_980) / 24_000);
    const analysis = await analyse([noise]);
    expect(analysis.noise?.z.levelDbfs).toBeCloseTo(expectedZ, 1);
    expect((analysis.noise?.a.levelDbfs ?? 0) - expectedZ).toBeCloseTo(aWeightOfWhiteDb(), 1);
    expect(analysis.noise?.a.spread?.count).toBeGreaterThan(40);
    expect(analysis.noise?.a.uncertaintyDb).toBeLessThan(0.1);
  });

  it('re speech: −23 LUFS of speech over noise 50 dB below it', async () => {
    const speech = syllables([[0, 6]], 10, -20);
    const noise = lcgNoise(speech.length, 0.0004, 99);
    const analysis = await analyse([mixed(speech, noise)]);
    const summary = clipSummary(analysis);
    const meanSquare = noise.reduce((s, x) => s + x * x, 0) / noise.length;
    const expected = 10 * Math.log10((2 * meanSquare * 19_980) / 24_000) - 23 - analysis.loudness.integratedLufs;
    expect(summary.noise.reSpeechDb.z).toBeCloseTo(expected, 1);
    // Gain is a ratio's enemy: the same 12 dB lower gives the same figure.
    const lower = clipSummary(await analyse([scaled(mixed(speech, noise), -12)]));
    expect(lower.noise.reSpeechDb.a).toBeCloseTo(summary.noise.reSpeechDb.a!, 2);
    expect(lower.noise.silenceRmsDbfs.a).toBeCloseTo(summary.noise.silenceRmsDbfs.a! - 12, 2);
  });

  it('is null without a pause or without speech', async () => {
    expect(clipSummary(await analyse([sine(440, -10, 3)])).noise).toMatchObject({
      silence: [],
      silenceRmsDbfs: { z: null, a: null },
      reSpeechDb: { z: null, a: null },
    });
    expect(clipSummary(await analyse([lcgNoise(96_000, 0.001)])).noise.reSpeechDb).toEqual({ z: null, a: null });
  });

  it('says now and then how much is done, of a clip whose length is known', async () => {
    const shares: number[] = [];
    const clip = memoryStream([lcgNoise(20 * 48_000, 0.001)], 48_000);
    await analyseLevel(clip, { onProgress: (share) => shares.push(share) });
    // Blocks of 8,192 samples, of which every sixty-fourth is told: the first and the sixty-fifth.
    expect(shares.map((s) => s * 960_000)).toEqual([8192, 65 * 8192]);
  });

  it('has lines where a silent part was looked at closely, and none where it was not', async () => {
    const whine = [1, 2, 3].reduce((sum, k) => mixed(sum, sine(1000 * k, -70, 5)), lcgNoise(5 * 48_000, 0.0001));
    const { format, hum, interference } = clipSummary(await analyse([whine]));
    expect(hum).toMatchObject({ mainsHz: null, totalDbfs: null, lines: [] });
    expect(interference?.lines.map((l) => Math.round(l.hz))).toEqual([1000, 2000, 3000]);
    expect(interference?.busWhine).toMatchObject({ spacingHz: 1000, linesHz: { length: 3 } });
    expect(interference?.limitDbfs).toBeLessThan(interference?.totalDbfs ?? -Infinity);
    expect(format.durationS).toBe(5);
    const once = clipSummary(await analyseClip(memoryStream([whine], 48_000)));
    expect([once.hum, once.interference, once.noise.itu468Dbfs]).toEqual([null, null, null]);
  });
});

describe('spectrum', () => {
  it('does not change when time runs backwards', async () => {
    const signal = syllables([[0.2, 2.8]], 3, -12);
    const forth = (await analyse([signal.subarray(0, 131_072)])).thirdOctave;
    const back = (await analyse([signal.slice(0, 131_072).reverse()])).thirdOctave;
    forth.forEach((b, i) => expect(back[i].levelDbfs).toBeCloseTo(b.levelDbfs!, 1));
  });

  it('of stereo is the mean power of both', async () => {
    const tone = sine(1000, -20, 2);
    const { thirdOctave } = await analyse([tone, new Float64Array(tone.length)]);
    expect(thirdOctave.find((b) => b.centreHz === 1000)?.levelDbfs).toBeCloseTo(-23.01, 1);
  });

  it('is empty for a clip shorter than one frame, which is measured otherwise', async () => {
    const analysis = await analyse([sine(1000, -6, 0.05)]);
    expect(analysis.thirdOctave).toEqual([]);
    expect(analysis.level.peakDbfs).toBeCloseTo(-6, 2);
    expect(clipSummary(analysis).loudness.integratedLufs).toBeNull();
  });
});

/** A-weighting of a flat spectrum 20 Hz–20 kHz, by the midpoint rule over the analytic curve of IEC 61672-1 Annex E. */
function aWeightOfWhiteDb(): number {
  const curve = (f: number): number => {
    const f2 = f * f;
    return (
      ((12194.217 ** 2 * f2 * f2) /
        ((f2 + 20.598997 ** 2) * Math.sqrt((f2 + 107.65265 ** 2) * (f2 + 737.86223 ** 2)) * (f2 + 12194.217 ** 2))) **
      2
    );
  };
  let sum = 0;
  for (let f = 20.5; f < 20_000; f++) sum += curve(f);
  return 10 * Math.log10(sum / 19_980 / curve(1000));
}

describe('a clip that others read', () => {
  it('is measured by what they read', async () => {
    const words = syllables([[0.2, 2.6]], 8, -20);
    const channels = [1, 2].map((seed) => mixed(scaled(words, 1 - seed), lcgNoise(words.length, 5e-4, seed)));
    const open = () => memoryStream(channels, 48_000);
    const options = { dualMono: true, sound: null, reopen: open };
    const readings = (stream: SampleStream) => clipReadings(stream, 'all');
    expect(await analyseClip(open(), { ...options, readings })).toEqual(await analyseClip(open(), options));
  });

  it('is measured here where they do not answer', async () => {
    const channels = [mixed(syllables([[0.2, 2.6]], 8, -20), lcgNoise(8 * 48_000, 5e-4))];
    const open = () => memoryStream(channels, 48_000);
    const alone = await analyseClip(open(), { reopen: open });
    for (const spectral of [() => null, () => Promise.resolve(null)])
      expect(await analyseClip(open(), { reopen: open, spectral })).toEqual(alone);
    const theirs = await analyseClip(open(), {
      spectral: async (deep, pauses) => ({
        ...(await spectralFigures(deep, pauses, { reopen: open })),
        aDbfs: dbfs(-7),
      }),
    });
    expect(theirs).toEqual({ ...alone, aDbfs: -7 });
  });

  it('is refused for what they refuse, and where they find no sample', async () => {
    const lost = new Error('The file is gone.');
    const open = () => memoryStream([sine(997, -20, 1)], 48_000);
    await expect(analyseClip(open(), { readings: () => Promise.reject(lost) })).rejects.toBe(lost);
    const nothing = clipReadings(memoryStream([new Float64Array(0)], 48_000), 'all');
    await expect(analyseClip(open(), { readings: () => nothing })).rejects.toMatchObject({ code: 'no-audio' });
  });
});
