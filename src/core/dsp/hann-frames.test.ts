import { describe, expect, it } from 'vitest';
import { inBlocks } from '../testing/blocks';
import { joined, lcgNoise, sine } from '../testing/signals';
import { binRange, shareOf, sumRange, type BinRange } from './bin-range';
import { ChannelBlock } from './channel-block';
import { FftPlan } from './fft';
import { hann } from './hann';
import { HannFrames, hannRoom } from './hann-frames';

const WHOLE: BinRange = { first: 1, last: 30, firstShare: 1, lastShare: 1 };

/** Powers of one frame by doubles, by the definition: one-sided, window power compensated. */
function byDoubles(samples: Float64Array): Float64Array {
  const size = samples.length;
  const window = hann(size);
  const scale = 2 / (size * window.reduce((sum, w) => sum + w * w, 0));
  const plan = new FftPlan(size);
  plan.input.im.fill(0);
  for (let i = 0; i < size; i++) plan.input.re[i] = window[i] * samples[i];
  plan.forward();
  const { re, im } = plan.output;
  return Float64Array.from({ length: size / 2 }, (_, k) => (k === 0 ? 0 : scale * (re[k] ** 2 + im[k] ** 2)));
}

interface Frames {
  readonly size: number;
  readonly step?: number;
  readonly ranges?: readonly BinRange[];
  readonly weights?: ArrayLike<number>;
  readonly pieces?: number;
}

/** Every frame of a signal: its powers and sums, and what is kept of all of them. */
function framesOf(signal: Float64Array, { size, step = size, ranges = [WHOLE], weights, pieces }: Frames) {
  const block = new ChannelBlock(hannRoom(size));
  const powers: Float32Array[] = [];
  const sums: number[][] = [];
  const weighted: number[] = [];
  const frames = new HannFrames(block, {
    size,
    step,
    ranges,
    onFrames: (count) => {
      for (const frame of [0, 1] as const) {
        if (frame >= count) return;
        powers.push(frames.powers[frame].slice());
        sums.push([...frames.rangeSums(frame)]);
        weighted.push(frames.addFrame(frame));
      }
    },
  });
  frames.weigh(weights ?? new Float64Array(size / 2));
  inBlocks(signal, block, () => frames.push(), pieces);
  frames.finish();
  return { powers, sums, weighted, frames };
}

const total = (powers: ArrayLike<number>): number => Array.from(powers).reduce((sum, p) => sum + p, 0);
const level = (power: number): number => 10 * Math.log10(power);

/** Largest difference of two frames' bins in amplitude, in dB re the frame's total. */
function noiseDb(found: Float32Array, expected: Float64Array): number {
  const apart = expected.reduce((most, p, k) => Math.max(most, Math.abs(Math.sqrt(found[k]) - Math.sqrt(p))), 0);
  return 20 * Math.log10(apart / Math.sqrt(total(expected)));
}

describe('HannFrames', () => {
  // Against a transform of doubles, which agrees with the package fft.js (fft.test.ts). A float has 24 bits: each bin is
  // off by less than −120 dB of the frame.
  it.each([64, 128, 256, 512, 1024, 2048, 4096, 16_384, 32_768])('of %i samples have the powers of each frame by itself', (size) => {
    for (const step of [size / 2, size]) {
      const signal = lcgNoise(4 * size, 0.5, size);
      const { powers } = framesOf(signal, { size, step });
      expect(powers).toHaveLength(step === size ? 4 : 7);
      powers.forEach((found, f) => {
        const expected = byDoubles(signal.subarray(f * step, f * step + size));
        expect(found[0]).toBe(0);
        expect(noiseDb(found, expected), `frame ${f}, step ${step}`).toBeLessThan(-120);
      });
    }
  }); // prettier-ignore

  it('has a floor 135 dB below a full-scale sine, spread over all bins', () => {
    for (const hz of [100, 997, 10_000]) {
      const signal = sine(hz, 0, 1).subarray(0, 32_768);
      const [found] = framesOf(signal, { size: 16_384 }).powers;
      const middle = Math.round(hz / (48_000 / 16_384));
      // A Hann window has fallen by 160 dB there: what is left is rounding.
      const rest = found.filter((_, k) => Math.abs(k - middle) > 300);
      expect(level(total(rest)) - level(total(found)), `${hz} Hz`).toBeLessThan(-135);
      expect(level(2 * total(found))).toBeCloseTo(0, 5);
    }
  });

  it('leaves of a loud frame 135 dB less in the quiet one beside it', () => {
    const size = 4096;
    const loud = lcgNoise(size, 0.9, 5);
    const { powers } = framesOf(joined(loud, loud.map((x) => 1e-7 * x)), { size }); // prettier-ignore
    const quiet = byDoubles(loud).map((p) => 1e-14 * p);
    const apart = quiet.map((p, k) => (Math.sqrt(powers[1][k]) - Math.sqrt(p)) ** 2);
    expect(level(total(apart)) - level(total(powers[0]))).toBeLessThan(-135);
  });

  it('sums over ranges, the outer bins in part', () => {
    const size = 1024;
    const signal = lcgNoise(3 * size, 0.3, 8);
    const ranges = [
      binRange({ lowHz: 100, highHz: 110 }, 46.875),
      binRange({ lowHz: 990, highHz: 4321 }, 46.875),
      binRange({ lowHz: 4321, highHz: 23_900 }, 46.875),
      { first: 20, last: 21, firstShare: 0.25, lastShare: 0 },
    ];
    const { powers, sums } = framesOf(signal, { size, ranges });
    expect(sums).toHaveLength(3);
    powers.forEach((power, f) => {
      const doubles = Float64Array.from(power);
      ranges.forEach((range, r) => expect(sums[f][r] / sumRange(doubles, range), `range ${r}`).toBeCloseTo(1, 12));
    });
  });

  it('adds frames up in doubles, and tells their weighted sums', () => {
    const size = 256;
    const weights = lcgNoise(size / 2, 1, 3).map(Math.abs);
    const { powers, weighted, frames } = framesOf(lcgNoise(5 * size, 0.3, 8), { size, step: size / 2, weights });
    expect(frames.frames).toBe(9);
    const sum = new Float64Array(size / 2);
    powers.forEach((power, f) => {
      power.forEach((p, k) => (sum[k] += p));
      expect(weighted[f] / power.reduce((s, p, k) => s + p * weights[k], 0)).toBeCloseTo(1, 12);
    });
    frames.powerSum.forEach((p, k) => expect(p, `bin ${k}`).toBeCloseTo(sum[k], 15));
  });

  it('does not depend on how the samples are portioned', () => {
    const signal = lcgNoise(5000, 0.2, 4);
    for (const size of [64, 2048]) {
      const at = (pieces: number) => framesOf(signal, { size, step: size / 2, pieces }).powers;
      for (const pieces of [1, 3, 777, 4999]) expect(at(pieces), `pieces of ${pieces}`).toEqual(at(8192));
    }
  });

  it('makes the bins that its ranges reach, where nothing is weighed', () => {
    const size = 1024;
    const block = new ChannelBlock(hannRoom(size));
    const ranges = [binRange({ lowHz: 1000, highHz: 5000 }, 46.875)];
    let sums: number[] = [];
    const onFrames = () => (sums = [...frames.rangeSums(0), ...frames.rangeSums(1)]);
    const frames = new HannFrames(block, { size, step: size, ranges, onFrames });
    const signal = lcgNoise(2 * size, 0.3, 12);
    inBlocks(signal, block, () => frames.push());
    [0, 1].forEach((f) => {
      const expected = sumRange(byDoubles(signal.subarray(f * size, (f + 1) * size)), ranges[0]);
      expect(sums[f] / expected).toBeCloseTo(1, 5);
    });
    expect(frames.powers[0].subarray(112).every((p) => p === 0)).toBe(true);
  });

  it('takes a last frame alone, and nothing of less than one', () => {
    const size = 512;
    const signal = lcgNoise(2 * size + size / 2 - 1, 0.3, 2);
    expect(framesOf(signal, { size, step: size / 2 }).powers).toHaveLength(3);
    const { powers } = framesOf(signal.subarray(0, size), { size, step: size / 2 });
    expect(powers).toHaveLength(1);
    expect(noiseDb(powers[0], byDoubles(signal.subarray(0, size)))).toBeLessThan(-120);
    expect(framesOf(signal.subarray(0, size - 1), { size, step: size / 2 }).powers).toHaveLength(0);
  });

  it('shares a block with others, each with memory of its own', () => {
    const block = new ChannelBlock(hannRoom(64) + hannRoom(1024));
    const found: Record<number, Float32Array[]> = { 64: [], 1024: [] };
    const made = [64, 1024].map((size) => {
      const frames: HannFrames = new HannFrames(block, {
        size,
        step: size,
        ranges: [{ ...WHOLE, last: size / 2 - 1 }],
        onFrames: () => found[size].push(...frames.powers.map((p) => p.slice())),
      });
      return frames;
    });
    const signal = lcgNoise(4096, 0.4, 6);
    inBlocks(signal, block, () => made.forEach((frames) => frames.push()));
    expect(found[64]).toEqual(framesOf(signal, { size: 64 }).powers);
    expect(found[1024]).toEqual(framesOf(signal, { size: 1024 }).powers);
    expect(block.samples.subarray(0, 4096)).toEqual(signal);
  });

  it.each([0, 32, 100, 1000])('refuses frames of %i samples', (size) => {
    const block = new ChannelBlock(hannRoom(1024));
    expect(() => new HannFrames(block, { size, step: size, ranges: [WHOLE], onFrames: () => undefined })).toThrow(/power of two/); // prettier-ignore
  });

  it('refuses more ranges than it has room for', () => {
    const block = new ChannelBlock(hannRoom(64));
    const make = (count: number) => () => new HannFrames(block, { size: 64, step: 64, ranges: new Array<BinRange>(count).fill(WHOLE), onFrames: () => undefined }); // prettier-ignore
    expect(make(65)).toThrow(/at most 64/);
    expect(make(64)).not.toThrow();
  });

  it('refuses a block without room for it', () => {
    const options = { size: 1024, step: 1024, ranges: [WHOLE], onFrames: () => undefined };
    expect(() => new HannFrames(new ChannelBlock(), options)).toThrow(/no room/);
    const block = new ChannelBlock(hannRoom(1024));
    expect(() => new HannFrames(block, options)).not.toThrow();
    expect(() => new HannFrames(block, options)).toThrow(/no room/);
  });
});

describe('hannRoom', () => {
  it.each([64, 128, 1024, 16_384, 262_144])('holds what frames of %i samples need', (size) => {
    const block = new ChannelBlock(hannRoom(size));
    const frames = new HannFrames(block, { size, step: size, ranges: [WHOLE], onFrames: () => undefined });
    const views = [...frames.powers, frames.powerSum, frames.samples, frames.rangeSums(0)];
    const ends = views.map((view) => view.byteOffset + view.byteLength);
    expect(Math.max(...ends)).toBeLessThanOrEqual(block.kernel.END.value + hannRoom(size));
  });
});

describe('shareOf', () => {
  it('is 1 inside, a part at the edges, 0 outside; a range within one bin has one share', () => {
    const range = binRange({ lowHz: 100, highHz: 205 }, 10);
    expect([9, 10, 11, 19, 20, 21].map((bin) => shareOf(bin, range))).toEqual([0, 0.5, 1, 1, 1, 0]);
    const inside = binRange({ lowHz: 101, highHz: 103 }, 10);
    expect(shareOf(10, inside)).toBeCloseTo(0.2, 12);
  });
});
