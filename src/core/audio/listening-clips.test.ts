import { describe, expect, it } from 'vitest';
import { BiquadCascade } from '../dsp/biquad';
import { highPass } from '../dsp/eq-biquads';
import { levelMatch } from '../measure/level-match';
import { excerptLevel } from '../measure/excerpt-level';
import { seededBits, uniform } from '../stats/random';
import { lcgNoise, sine } from '../testing/signals';
import { commonPassage, excerpt } from './excerpt';
import { ANCHOR_HZ, lowPassAnchor } from './low-pass-anchor';
import { alignPhrases, mapTime, turned } from './phrase-alignment';
import { besselI0, resample } from './resample';

const rms = (x: Float64Array): number => Math.sqrt(x.reduce((s, v) => s + v * v, 0) / x.length);

describe('resampling', () => {
  it.each([
    [44_100, 48_000],
    [48_000, 44_100],
    [96_000, 48_000],
    [16_000, 48_000],
  ])('%i to %i Hz keeps a tone, to 0.001 dB and without delay', (from, to) => {
    // prettier-ignore
    const hz = 3000;
    const out = resample(sine(hz, -6, 0.5, from), from, to);
    const ideal = sine(hz, -6, 0.5, to);
    expect(out.length).toBe(ideal.length);
    let worst = 0;
    for (let i = 500; i < out.length - 500; i++) worst = Math.max(worst, Math.abs(out[i] - ideal[i]));
    expect(worst).toBeLessThan(10 ** (-6 / 20) * 1.2e-4);
  });

  it('leaves nothing of what the lower rate cannot hold', () => {
    const out = resample(sine(30_000, -6, 0.3, 96_000), 96_000, 48_000);
    expect(20 * Math.log10(rms(out.subarray(500, -500)))).toBeLessThan(-90);
  });

  it('has the Bessel function right (Abramowitz & Stegun, table 9.8: I0(1) = 1.2660658778, I0(5) = 27.2398718236)', () => {
    expect(besselI0(1)).toBeCloseTo(1.2660658778, 9);
    expect(besselI0(5)).toBeCloseTo(27.2398718236, 8);
  });
});

describe('anchors of BS.1534', () => {
  it.each([
    ['low', 3500, 4000, 4500],
    ['mid', 7000, 8000, 9000],
  ] as const)('%s: flat to %i Hz within 0.1 dB, 25 dB down at %i and 50 dB at %i', (kind, pass, first, second) => {
    // prettier-ignore
    const level = (hz: number): number =>
      20 * Math.log10(rms(lowPassAnchor(sine(hz, 0, 0.4), 48_000, ANCHOR_HZ[kind]).subarray(3000, -3000)) / Math.SQRT1_2);
    for (const hz of [100, 1000, 0.8 * pass, pass]) expect(Math.abs(level(hz))).toBeLessThan(0.1);
    expect(level(first)).toBeLessThan(-25);
    expect(level(second)).toBeLessThan(-50);
  });

  it('lies exactly under its reference', () => {
    const low = sine(500, -12, 0.3);
    const anchor = lowPassAnchor(low, 48_000, 3500);
    let worst = 0;
    for (let i = 2000; i < low.length - 2000; i++) worst = Math.max(worst, Math.abs(anchor[i] - low[i]));
    expect(worst).toBeLessThan(0.002);
  });
});

/** A made-up reading: sounds of two noisy resonances each, in phrases, read at a pace that wanders. */
function reading(pace: number, seed: string, gainHz: number): { samples: Float64Array; phrasesS: number[] } {
  const rate = 16_000;
  const sounds = seededBits('the text');
  const chance = seededBits(seed);
  const parts: Float64Array[] = [];
  const phrasesS: number[] = [];
  let at = 0;
  const push = (part: Float64Array): void => {
    parts.push(part);
    at += part.length;
  };
  const pause = (seconds: number): void =>
    push(lcgNoise(Math.round(seconds * rate), 1e-4, 3 + Math.floor(uniform(chance) * 1000)));
  for (let phrase = 0; phrase < 8; phrase++) {
    pause((0.35 + 0.4 * uniform(chance)) * pace);
    phrasesS.push(at / rate);
    const count = 6 + Math.floor(uniform(sounds) * 8);
    for (let s = 0; s < count; s++) {
      const [f1, f2, length] = [
        200 + 600 * uniform(sounds),
        900 + 4000 * uniform(sounds),
        0.07 + 0.12 * uniform(sounds),
      ];
      const n = Math.round(length * rate * pace * (0.85 + 0.3 * uniform(chance)));
      const noise = lcgNoise(n, 1, 1 + Math.floor(uniform(chance) * 1e6));
      push(
        noise.map((x, i) => {
          const t = i / rate;
          const tilt = gainHz > 0 ? 0.5 : 1;
          return 0.3 * (0.7 + 0.3 * x) * (Math.sin(2 * Math.PI * f1 * t) + tilt * Math.sin(2 * Math.PI * f2 * t));
        }),
      );
    }
  }
  pause(0.5);
  const samples = new Float64Array(at);
  let offset = 0;
  for (const part of parts) {
    samples.set(part, offset);
    offset += part.length;
  }
  return { samples, phrasesS };
}

describe('phrase by phrase', () => {
  it('finds the same phrase in a reading at another pace, through another microphone, to within a tenth of a second', () => {
    const a = reading(1, 'first', 0);
    const b = reading(1.08, 'second', 2000);
    // A microphone that has hardly any lows, against one that has: without the mean spectra taken off, no sound is like itself.
    new BiquadCascade([highPass(16_000, 1200), highPass(16_000, 1200)]).process(b.samples);
    const map = alignPhrases(a.samples, b.samples, 16_000);
    expect(map.kind).toBe('phrases');
    expect(map.anchors.length).toBeGreaterThan(8);
    a.phrasesS.forEach((at, i) => expect(Math.abs(mapTime(map, at) - b.phrasesS[i])).toBeLessThan(0.1));
    // Without it, the last phrase is over a second off.
    expect(Math.abs((a.phrasesS.at(-1) ?? 0) - (b.phrasesS.at(-1) ?? 0))).toBeGreaterThan(0.8);
    const back = turned(map);
    expect(mapTime(back, mapTime(map, 4.2))).toBeCloseTo(4.2, 6);
  });

  it('takes one performance for one: a constant lag', () => {
    const { samples } = reading(1, 'first', 0);
    const late = new Float64Array(samples.length + 800);
    late.set(samples, 800);
    const map = alignPhrases(samples, late, 16_000);
    expect(map.kind).toBe('performance');
    expect(mapTime(map, 3)).toBeCloseTo(3.05, 4);
  });
});

describe('excerpts', () => {
  it('are of one length, cut where the text is the same, and never before a clip begins', () => {
    const lag = (s: number) => ({ kind: 'performance' as const, anchors: [[0, s] as const] });
    expect(commonPassage([20, 20], [lag(0), lag(0.5)], { fromS: 2, lengthS: 10 })).toEqual({ startsS: [2, 2.5], lengthS: 10 }); // prettier-ignore
    expect(commonPassage([20, 20], [lag(0), lag(-3)], { fromS: 1, lengthS: 30 })).toEqual({ startsS: [3, 0], lengthS: 17 }); // prettier-ignore
    expect(() => commonPassage([20, 3], [lag(0), lag(0)], { fromS: 2.8, lengthS: 5 })).toThrow(/half a second/);
  });

  it('are faded, and equally loud after matching to 0.02 LU', async () => {
    const cut = excerpt(sine(440, -3, 2), 48_000, 0.5, 48_000);
    expect([Math.abs(cut[0]) < 1e-4, Math.abs(cut[47_999]) < 1e-4, cut.length]).toEqual([true, true, 48_000]);
    const clips = [
      cut,
      excerpt(lcgNoise(96_000, 0.9), 48_000, 0, 48_000),
      excerpt(sine(90, -30, 2), 48_000, 0, 48_000),
    ];
    const { gainsDb, targetLufs } = levelMatch(await Promise.all(clips.map((c) => excerptLevel(c, 48_000))), -23);
    for (const [i, clip] of clips.entries()) {
      const level = await excerptLevel(
        clip.map((x) => x * 10 ** (gainsDb[i] / 20)),
        48_000,
      );
      expect(Math.abs(level.integratedLufs - targetLufs)).toBeLessThan(0.02);
      expect(level.truePeakDbtp).toBeLessThanOrEqual(-1);
    }
  });
});
