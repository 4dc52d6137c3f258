import { describe, expect, it } from 'vitest';
import { BLOCK_FRAMES } from '../audio/sample-stream';
import { lcgNoise } from '../testing/signals';
import { BiquadCascade } from './biquad';
import { butterworthHighPass, butterworthLowPass } from './butterworth';
import { ChannelBlock, STRIDE } from './channel-block';
import { DropOutDetector, dropOutPast } from './drop-out-detector';

function filled(signal: Float64Array): ChannelBlock {
  const block = new ChannelBlock();
  block.samples.set(signal);
  block.scan(signal.length);
  return block;
}

describe('ChannelBlock', () => {
  // What lies behind the samples that count is there on purpose: it must not be looked at.
  it.each([1, 2, 31, 32, 33, 63, 64, 65, 1000, BLOCK_FRAMES - 1, BLOCK_FRAMES])(
    'finds lowest and highest of every stride of %i samples',
    (count) => {
      const block = filled(new Float64Array(BLOCK_FRAMES).fill(9));
      block.samples.set(lcgNoise(count, 0.5, count));
      block.scan(count);
      expect(block.count).toBe(count);
      expect(block.strides).toBe(Math.ceil(count / STRIDE));
      for (let s = 0; s < block.strides; s++) {
        const stride = [...block.samples.subarray(s * STRIDE, Math.min(count, (s + 1) * STRIDE))];
        expect([block.lowest[s], block.highest[s]], `stride ${s}`).toEqual([Math.min(...stride), Math.max(...stride)]);
      }
    },
  );

  it('sees an extreme at any place of a stride', () => {
    for (let at = 0; at < STRIDE; at++) {
      for (const value of [0.7, -0.7]) {
        const signal = lcgNoise(STRIDE, 0.1);
        signal[at] = value;
        const block = filled(signal);
        expect(value > 0 ? block.highest[0] : block.lowest[0], `sample ${at}`).toBe(value);
      }
    }
  });

  it('has room for a whole block at its own rate, and its parts do not overlap', () => {
    const block = new ChannelBlock();
    const { kernel } = block;
    const parts = [
      [kernel.K_COEFFICIENTS, 8],
      [kernel.K_PAIRS, 9 * 2 + 4],
      [kernel.K_RESULTS, 3],
      [kernel.PHASES, 4 * 12 * 2],
      [kernel.LOWEST, BLOCK_FRAMES / STRIDE],
      [kernel.HIGHEST, BLOCK_FRAMES / STRIDE],
      [kernel.LOW_SECTIONS, 4 * 5 + 4 * 2],
      [kernel.LOW_BAND, BLOCK_FRAMES],
      [kernel.CANDIDATES, (2 * BLOCK_FRAMES) / STRIDE],
      [kernel.BLOCK_EXTREMES, 3 + 12],
      [kernel.SLOTS, BLOCK_FRAMES + 13],
      [kernel.END, 0],
    ] as const;
    parts.forEach(([place, length], i) => {
      const end = parts[i + 1]?.[0].value ?? kernel.memory.buffer.byteLength;
      expect(place.value + 8 * length, `part ${i}`).toBeLessThanOrEqual(end);
    });
  });

  it('keeps the past where it was filled in: sample i of a clip stands at i % length', () => {
    const clip = lcgNoise(9 * BLOCK_FRAMES, 0.5);
    const block = new ChannelBlock(64, 20_000);
    // The past, and what the interpolator writes behind a block.
    expect(block.ring.length).toBe(4 * BLOCK_FRAMES);
    for (let at = 0; at < clip.length; at += BLOCK_FRAMES) {
      const into = block.next();
      into.set(clip.subarray(at, at + BLOCK_FRAMES));
      block.scan(BLOCK_FRAMES);
      expect(block.samples).toBe(into);
      for (let i = Math.max(0, at - 20_000); i < at + BLOCK_FRAMES; i += 997)
        expect(block.ring[i % block.ring.length], `sample ${i}`).toBe(clip[i]);
      // Those that the interpolator reaches stand right before the block, also where it begins anew in front.
      const before = new Float64Array(block.kernel.memory.buffer, into.byteOffset - 12 * 8, 12);
      expect([...before]).toEqual(at === 0 ? new Array(12).fill(0) : [...clip.subarray(at - 12, at)]);
    }
    const behind = block.take(64);
    expect(behind).toBeGreaterThanOrEqual(block.ring.byteOffset + block.ring.byteLength + 13 * 8);
  });

  it('is refused for what keeps more of the past than it does', () => {
    const past = dropOutPast(48_000);
    expect(() => new DropOutDetector(48_000, new ChannelBlock(0, past - 2 * BLOCK_FRAMES))).toThrow(/too little/);
    expect(() => new DropOutDetector(48_000, new ChannelBlock(0, past))).not.toThrow();
  });

  it('without a past has one place, and what came before stands before it, however short the pieces', () => {
    const block = new ChannelBlock();
    const clip = lcgNoise(400, 0.5);
    for (let at = 0, length = 1; at + length <= clip.length; at += length, length = 1 + ((length * 7) % 23)) {
      const into = block.next();
      const before = new Float64Array(block.kernel.memory.buffer, into.byteOffset - 12 * 8, 12);
      expect([...before]).toEqual([...new Float64Array(12), ...clip.subarray(0, at)].slice(-12));
      into.set(clip.subarray(at, at + length));
      block.scan(length);
    }
    expect(block.ring.length).toBe(BLOCK_FRAMES);
  });
});

describe('the low band', () => {
  /** Triangular averaging by its definition: weights 1 … d … 1 (the last of them 0) over two groups, divided by d². */
  function byDefinition(signal: Float64Array, divisor: number): Float64Array {
    return Float64Array.from({ length: Math.floor(signal.length / divisor) }, (_, g) => {
      let sum = 0;
      for (let i = 0; i < divisor; i++) {
        sum += i * (signal[(g - 1) * divisor + i] ?? 0);
        sum += (divisor - i) * signal[g * divisor + i];
      }
      return sum / divisor ** 2;
    });
  }

  it.each([
    [1, [100, 50]],
    [2, [7, 1, 9]],
    [11, [100, 3, 250]],
    [12, [8192, 8192, 5000]],
    [48, [10, 20, 30, 8192, 1]],
  ])('brings samples down to one in %i and filters them, in blocks of any length', (divisor, lengths) => {
    const signal = lcgNoise(
      lengths.reduce((s, l) => s + l, 0),
      0.5,
    );
    const sections = [...butterworthHighPass(4, 20, 4000), ...butterworthLowPass(4, 120, 4000)];
    const block = new ChannelBlock();
    block.part(block.kernel.LOW_SECTIONS, 20).set(sections.flatMap(({ b0, b1, b2, a1, a2 }) => [b0, b1, b2, a1, a2]));
    const found: number[] = [];
    let at = 0;
    for (const length of lengths) {
      block.samples.set(signal.subarray(at, at + length));
      block.scan(length);
      const count = block.kernel.lowBand(length, divisor);
      found.push(...block.part(block.kernel.LOW_BAND, count));
      at += length;
    }
    const expected = byDefinition(signal, divisor);
    new BiquadCascade(sections).process(expected);
    expect(found).toHaveLength(expected.length);
    const largest = expected.reduce((m, x) => Math.max(m, Math.abs(x)), 0);
    found.forEach((x, i) => expect(Math.abs(x - expected[i]), `sample ${i}`).toBeLessThan(1e-9 * largest));
  });
});
