import { describe, expect, it } from 'vitest';
import { BiquadCascade } from '../dsp/biquad';
import { butterworthHighPass, butterworthLowPass } from '../dsp/butterworth';
import { peaking } from '../dsp/eq-biquads';
import { STRIDE } from '../dsp/channel-block';
import { analyse, joined, lcgNoise, mixed, scaled, sine, syllables } from '../testing/signals';
import { handlingNoise } from './knocks';
import { plosiveMeasurement } from './plosives';
import { levelBelow, windNoise } from './wind';

const RATE = 48_000;
const PHRASES = [
  [0.5, 2.5],
  [3.2, 5],
] as const;
const voice = (seed = 3): Float64Array => {
  const out = syllables(PHRASES, 5.5, -12, RATE, seed);
  new BiquadCascade(butterworthHighPass(2, 150, RATE)).process(out);
  return mixed(out, lcgNoise(out.length, 10 ** (-80 / 20), 4));
};
const filtered = (x: Float64Array, sections: ReturnType<typeof butterworthLowPass>): Float64Array => {
  new BiquadCascade(sections).process(x);
  return x;
};

describe('plosives', () => {
  /** A puff: half a period of 50 Hz with a soft start and end. */
  const puff = (level: number): Float64Array =>
    sine(50, level, 0.06).map((x, i) => x * Math.sin((Math.PI * i) / (0.06 * RATE)) ** 2);
  const withPuffs = (times: readonly number[], level: number): Float64Array => {
    const out = voice();
    for (const t of times) puff(level).forEach((x, i) => (out[Math.round(t * RATE) + i] += x));
    return out;
  };

  it('are found where they are, with the level that they have at 20–120 Hz', async () => {
    const times = [0.9, 1.8, 3.6, 4.4];
    const { plosives, loudness } = await analyse([withPuffs(times, -8)]);
    expect(plosives.map((p) => p.atS)).toEqual(times.map((t) => expect.closeTo(t + 0.03, 1) as number));
    for (const [i, p] of plosives.entries()) {
      expect(Math.abs(p.atS - times[i] - 0.03)).toBeLessThan(0.04);
      // The filter's edges take a little of so short a burst.
      expect(Math.abs(p.peakDbfs + 8)).toBeLessThan(2);
    }
    const figure = plosiveMeasurement(plosives, loudness.integratedLufs);
    // The mean of four puffs that are read within 0.05 dB of each other.
    expect(Math.abs((figure.value ?? NaN) - plosives[0].peakDbfs + loudness.integratedLufs)).toBeLessThan(0.05);
    expect(figure.spread?.count).toBe(4);
  });
  it('are 12 dB weaker behind a filter that takes 12 dB', async () => {
    const [bare, screened] = await Promise.all([-6, -18].map((level) => analyse([withPuffs([1, 2, 4], level)])));
    const level = (a: typeof bare): number => plosiveMeasurement(a.plosives, a.loudness.integratedLufs).value ?? NaN;
    // Speech under the weaker puffs adds to them: 0.2 dB.
    expect(Math.abs(level(bare) - level(screened) - 12)).toBeLessThan(0.2);
  });
  it('are not found in speech without them, nor where nobody speaks', async () => {
    expect((await analyse([voice()])).plosives).toEqual([]);
    const { plosives } = await analyse([withPuffs([2.85], -20)]);
    expect(plosives).toEqual([]);
    expect(plosiveMeasurement([], -20).notMeasured).toMatch(/No burst/);
  });
});

describe('sibilance', () => {
  /** Speech with a hiss from 2.5 kHz up for a tenth of a second twice a second. */
  const hissing = (): Float64Array => {
    const hiss = filtered(lcgNoise(Math.round(5.5 * RATE), 0.1, 9), butterworthHighPass(4, 2500, RATE));
    const body = filtered(voice(), butterworthLowPass(4, 4000, RATE));
    return body.map((x, i) => ((i / RATE) % 0.5 < 0.1 ? hiss[i] + 0.1 * x : x));
  };
  it('a microphone that lifts 7 kHz by 6 dB has that much more of it, and gain changes nothing', async () => {
    const lifted = filtered(hissing(), [peaking(RATE, 7000, 6, 1)]);
    const [plain, sharp, loud] = await Promise.all(
      [hissing(), lifted, scaled(lifted, -9)].map(async (x) => (await analyse([x])).sibilance),
    );
    expect((sharp.value ?? 0) - (plain.value ?? 0)).toBeGreaterThan(2.5);
    expect((sharp.value ?? 0) - (plain.value ?? 0)).toBeLessThan(6.5);
    expect(loud.value).toBeCloseTo(sharp.value ?? NaN, 3);
  });
  it('needs fricatives, speech, and a sample rate that holds them', async () => {
    const dull = mixed(filtered(voice(), butterworthLowPass(8, 1500, RATE)), lcgNoise(264_000, 1e-5, 6));
    expect((await analyse([dull])).sibilance.notMeasured).toMatch(/fricatives/);
    expect((await analyse([new Float64Array(RATE)])).sibilance.notMeasured).toMatch(/No speech/);
    const slow = syllables(PHRASES, 5.5, -12, 16_000);
    expect((await analyse([slow], 16_000)).sibilance.notMeasured).toMatch(/sample rate/);
  });
});

describe('drop-outs', () => {
  const noise = lcgNoise(4 * RATE, 0.3, 21);
  const at = (seconds: number): number => Math.round(seconds * RATE);
  const listed = async (x: Float64Array) => (await analyse([x])).dropOuts;

  it('finds a gap of zeros and one of a held value, with place and length', async () => {
    const broken = noise.slice();
    broken.fill(0, at(1), at(1.012));
    broken.fill(broken[at(2.5)], at(2.5), at(2.507));
    const { listed: found, count } = await listed(broken);
    expect(count).toBe(2);
    expect(found.map((d) => [d.kind, d.startS, d.lengthS])).toEqual([
      ['gap', expect.closeTo(1, 4), expect.closeTo(0.012, 4)],
      ['gap', expect.closeTo(2.5, 4), expect.closeTo(0.007, 4)],
    ]);
  });
  // Longer ones than the past that is kept: 1.4 s at 48 kHz.
  it.each([[1], [1.5], [3], [6]])('finds a gap of %d s', async (length) => {
    const { listed: found, count } = await listed(joined(noise, new Float64Array(at(length)), noise));
    expect(count).toBe(1);
    expect(found).toEqual([{ kind: 'gap', startS: 4, lengthS: expect.closeTo(length, 4) as number }]);
  });
  it('finds gaps of any length one after the other, and no silence before the first sound', async () => {
    const [pause, blip] = [new Float64Array(at(1)), new Float64Array(at(0.006))];
    const { listed: found } = await listed(joined(pause, noise, pause, noise, blip, noise, pause));
    expect(found.map((d) => [d.startS, d.lengthS])).toEqual([
      [5, expect.closeTo(1, 4)],
      [10, expect.closeTo(0.006, 4)],
    ]);
  });
  it.each([[0.006], [0.02], [0.0213]])('finds a buffer of %d s that was played twice', async (length) => {
    const n = at(length);
    const start = at(1.37);
    const broken = noise.slice();
    broken.copyWithin(start + n, start, start + n);
    const { listed: found, count } = await listed(broken);
    expect(count).toBe(1);
    expect(found[0].kind).toBe('repeat');
    expect(Math.abs(found[0].startS - 1.37 - length)).toBeLessThan(0.001);
    expect(Math.abs(found[0].lengthS - length)).toBeLessThan(0.001);
  });
  it('finds repeats in speech at 24 bits, too', async () => {
    const quantised = syllables([[0.2, 3.8]], 4, -20).map((x) => Math.round(x * 2 ** 23) / 2 ** 23);
    const n = at(0.01);
    quantised.copyWithin(at(2) + n, at(2), at(2) + n);
    expect((await listed(quantised)).listed).toEqual([
      { kind: 'repeat', startS: expect.closeTo(2.01, 3) as number, lengthS: expect.closeTo(0.01, 3) as number },
    ]);
  });
  it('does not take for a hole: a tone, silence at the ends, shorter gaps, clipping, noise', async () => {
    const clean = [
      sine(1000, -10, 3),
      joined(new Float64Array(RATE), noise, new Float64Array(RATE)),
      noise.map((x, i) => (i > at(1) && i < at(1.004) ? 0 : x)),
      noise.map((x) => Math.max(-0.1, Math.min(0.1, x))),
      noise,
      new Float64Array(RATE),
      new Float64Array(RATE).fill(0.001),
      // Noise of one step of 16 bits, now and then a sample of it.
      noise.map((x) => (Math.abs(x) > 0.295 ? Math.sign(x) : 0) / 32_768),
      noise.map((x) => Math.round(x * 4) / 32_768),
    ];
    for (const signal of clean) expect(await listed(signal)).toEqual({ count: 0, listed: [] });
  });
  it('crosses the borders of blocks', async () => {
    for (const start of [8192 - 100, 8192 + STRIDE - 5, 3 * 8192 - 240]) {
      const broken = noise.slice();
      broken.fill(0, start, start + 480);
      broken.copyWithin(start + 40_000 + 400, start + 40_000, start + 40_400);
      expect((await listed(broken)).listed.map((d) => d.kind)).toEqual(['gap', 'repeat']);
    }
  });
});

describe('handling and wind', () => {
  it('knocks are read re speech at equal gain', async () => {
    const knock = new Float64Array(3 * RATE);
    knock.set(sine(1000, -20, 1), RATE);
    const { loudest } = await analyse([knock]);
    expect(loudest.zDbfs).toBeCloseTo(-20, 1);
    expect(loudest.aDbfs).toBeCloseTo(-20, 1);
    const [z] = handlingNoise(loudest, 30, -23, 40);
    // At 40 dB the knock would stand at −10 dBFS, 13 dB over the speech.
    expect(z.value).toBeCloseTo(13, 1);
    const [each, weighted] = handlingNoise({ zDbfs: -20, aDbfs: -26 }, 30, -23, 40);
    expect([each.quantity, each.value, weighted.quantity, weighted.value]).toEqual(['handlingZ', 13, 'handlingA', 7]);
    expect(handlingNoise({ zDbfs: -20, aDbfs: -26 }, 30, -Infinity, 40)[0].notMeasured).toMatch(
      /speech take is silent/,
    );
    expect(handlingNoise({ zDbfs: -Infinity, aDbfs: -Infinity }, 30, -23, 40)[1].notMeasured).toMatch(
      /digital silence/,
    );
  });
  it('a low knock is weak to the A curve', async () => {
    const { loudest } = await analyse([sine(63, -20, 2)]);
    expect(loudest.zDbfs - loudest.aDbfs).toBeCloseTo(26.2, 1);
  });
  it('wind is read below 200 Hz, with its speed in the condition', () => {
    const bands = [
      { centreHz: 50, levelDbfs: -30 },
      { centreHz: 200, levelDbfs: -30 },
      { centreHz: 250, levelDbfs: 0 },
    ];
    expect(levelBelow(bands, 200)).toBeCloseTo(-26.99, 2);
    const take = { thirdOctave: bands, aDbfs: -40, gainDb: 40, windSpeedMs: 7 };
    const [low, a] = windNoise(take, -23, 40);
    expect(low.value).toBeCloseTo(-3.99, 2);
    expect(a.value).toBeCloseTo(-17, 9);
    expect(low.condition).toMatch(/7 m\/s/);
    expect(windNoise({ ...take, windSpeedMs: null }, -23, 40)[0].condition).toMatch(/not noted/);
  });
});
