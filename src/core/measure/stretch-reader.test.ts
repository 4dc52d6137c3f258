import { beforeAll, describe, expect, it } from 'vitest';
import { memoryStream } from '../audio/memory-stream';
import { joinDropOuts } from '../dsp/drop-out-reading';
import { clippedRunsOf } from '../dsp/level-meter';
import { lcgNoise, samplesOf } from '../testing/signals';
import type { ChannelReadings, DeepReadings } from './channel-meters';
import { clipStretches } from './clip-stretches';
import { joinStretches, StretchReader, type ClipReadings } from './stretch-reader';

/** All of a clip is long. */
const LONG_FROM = 1;
const stretchesOf = (channels: readonly Float64Array[], rate: number) => clipStretches(memoryStream(channels, rate), LONG_FROM); // prettier-ignore

async function inStretches(channels: readonly Float64Array[], rate: number): Promise<ClipReadings> {
  const reader = new StretchReader(memoryStream(channels, rate), 'all');
  const readings: ClipReadings[] = [];
  for (const stretch of stretchesOf(channels, rate)) readings.push(await reader.read(stretch));
  return joinStretches(readings);
}

const atOnce = (channels: readonly Float64Array[], rate: number): Promise<ClipReadings> =>
  new StretchReader(memoryStream(channels, rate), 'all').read({ from: 0, to: Infinity });

/** Where the second stretch begins. */
const seamAt = (rate: number, seconds: number): number => stretchesOf([new Float64Array(seconds * rate)], rate)[1].from;

/** Noise whose level moves, over a slow swell, with a puff now and then. */
const moving = (count: number, rate: number, seed: number): Float64Array => {
  const noise = lcgNoise(count, 0.4, seed);
  return noise.map((x, n) => {
    const t = n / rate;
    const swell = 0.02 * Math.sin(2 * Math.PI * 45 * t) * (1 + Math.sin(2 * Math.PI * 0.7 * t));
    return x * (0.3 + 0.2 * Math.sin(2 * Math.PI * 0.31 * t)) + swell;
  });
};

const deepOf = (channel: ChannelReadings): DeepReadings => {
  if (!channel.deep) throw new Error('Only levels were read.');
  return channel.deep;
};

/** Largest difference, as a share of the largest number. */
function largestChange(a: Float32Array | Float64Array, b: Float32Array | Float64Array): number {
  expect(b.length).toBe(a.length);
  let [change, largest] = [0, 0];
  for (let i = 0; i < a.length; i++) {
    if (Number.isNaN(a[i]) && Number.isNaN(b[i])) continue;
    largest = Math.max(largest, Math.abs(a[i]));
    change = Math.max(change, Math.abs(a[i] - b[i]));
  }
  return change / largest;
}

// 8,000 and 48,000 Hz: all frames begin together. 22,050: groups of five samples of the low band reach over the seam, and
// over the beginning of what is read before it. 11,025: frames of 220 and 221 samples.
describe.each([
  [8000, 65],
  [11_025, 45],
  [22_050, 42],
  [48_000, 62],
])('a clip at %i Hz that is measured in stretches', (rate, seconds) => {
  let whole: ClipReadings;
  let joined: ClipReadings;
  beforeAll(async () => {
    const channels = [1, 99].map((seed) => moving(seconds * rate + 77, rate, seed));
    expect(stretchesOf(channels, rate)).toHaveLength(2);
    whole = await atOnce(channels, rate);
    joined = await inStretches(channels, rate);
  });
  const both = <Part>(part: (channel: ChannelReadings) => Part): (readonly [Part, Part])[] =>
    whole.channels.map((channel, c) => [part(channel), part(joined.channels[c])] as const);

  it('has the same extremes, true peak, waveform and count, to the last bit', () => {
    expect(joined.frames).toBe(whole.frames);
    expect(joined.waveform.framesPerColumn).toBe(whole.waveform.framesPerColumn);
    expect(largestChange(whole.waveform.pairs, joined.waveform.pairs)).toBe(0);
    for (const [a, b] of both((c) => [c.count, c.level, c.truePeak])) expect(b).toEqual(a);
  });

  it('has the same frames of 20 ms', () => {
    // At 11,025 Hz blocks end elsewhere in a frame, and its sum is added up in other parts.
    for (const [a, b] of both((c) => c.plain)) expect(largestChange(a, b)).toBeLessThan(1e-15);
    for (const [a, b] of both((c) => c.kWeighted)) expect(largestChange(a, b)).toBeLessThan(1e-13);
    for (const [a, b] of both((c) => c.sumOfSquares)) expect(b / a).toBeCloseTo(1, 12);
    for (const [a, b] of both((c) => c.sum)) expect(b).toBeCloseTo(a, 8);
  });

  it('has the same spectra, as far as single precision goes', () => {
    for (const [a, b] of both((c) => deepOf(c).bands)) expect(largestChange(a, b)).toBeLessThan(1e-6);
    for (const [a, b] of both((c) => deepOf(c).powerSum)) expect(largestChange(a, b)).toBeLessThan(1e-6);
    for (const [a, b] of both((c) => deepOf(c).frames)) expect(b).toBe(a);
    for (const [a, b] of both((c) => deepOf(c).sibilants)) expect(largestChange(a, b)).toBeLessThan(1e-6);
  });

  it('has the same low band', () => {
    for (const [a, b] of both((c) => deepOf(c).lowBand)) {
      const differ = a.filter((x, i) => Math.abs(x - b[i]) > 1e-9);
      // Where a group reaches over a seam it belongs to the frame behind it, not to the one before.
      expect(differ.length).toBeLessThanOrEqual(rate === 22_050 ? 2 : 0);
      expect(largestChange(a, b)).toBeLessThan(0.02);
    }
  });

  it('has no holes that were not there', () => {
    for (const [a, b] of both((c) => joinDropOuts(deepOf(c).dropOuts, rate))) {
      expect(a.count).toBe(0);
      expect(b.count).toBe(0);
    }
  });
});

describe('stretches in any order', () => {
  it('are the same, whoever measured another one before', async () => {
    const rate = 8000;
    const channels = [moving(125 * rate, rate, 5)];
    const reader = new StretchReader(memoryStream(channels, rate), 'all');
    const stretches = stretchesOf(channels, rate);
    const inOrder = await inStretches(channels, rate);
    const backwards: ClipReadings[] = [];
    for (const stretch of [...stretches].reverse()) backwards.unshift(await reader.read(stretch));
    const { channels: read, waveform } = joinStretches(backwards);
    expect(stretches).toHaveLength(3);
    const numbers = (c: ChannelReadings) => ({ ...deepOf(c), plain: c.plain, kWeighted: c.kWeighted });
    const [a, b] = [numbers(read[0]), numbers(inOrder.channels[0])];
    for (const name of ['plain', 'kWeighted', 'lowBand', 'sibilants', 'bands', 'powerSum'] as const)
      expect(largestChange(a[name], b[name]), name).toBe(0);
    expect(largestChange(waveform.pairs, inOrder.waveform.pairs)).toBe(0);
    expect([read[0].level, read[0].truePeak, a.dropOuts]).toEqual([inOrder.channels[0].level, inOrder.channels[0].truePeak, b.dropOuts]); // prettier-ignore
  });
});

describe('what reaches over a seam', () => {
  const rate = 8000;
  const seconds = 125;
  const seam = seamAt(rate, seconds);
  const second = stretchesOf([new Float64Array(seconds * rate)], rate)[2].from;
  const sound = lcgNoise(seconds * rate, 0.3, 11);

  async function read(change: (signal: Float64Array) => void) {
    const signal = sound.slice();
    change(signal);
    const [{ channels }, whole] = [await inStretches([signal], rate), await atOnce([signal], rate)];
    const holes = (readings: ChannelReadings) => joinDropOuts(deepOf(readings).dropOuts, rate);
    // One stretch is what was always measured; the cases below say in words what that is.
    expect(holes(channels[0])).toEqual(holes(whole.channels[0]));
    expect(channels[0].level).toEqual(whole.channels[0].level);
    expect(channels[0].truePeak).toBe(whole.channels[0].truePeak);
    const { found, count } = holes(channels[0]);
    expect(count).toBe(found.length);
    return {
      runs: clippedRunsOf(channels[0].level),
      found: found.map((d) => [d.kind, Math.round(d.startS * rate), Math.round(d.lengthS * rate)]),
    };
  }
  const held =
    (from: number, to: number, value = 0) =>
    (signal: Float64Array) =>
      void signal.fill(value, from, to);

  it.each([
    [-1, 2],
    [-2, 1],
    [-3, 4],
    [-3, 0],
    [0, 3],
  ])('a clipped run from %i to %i is one', async (from, to) => {
    expect((await read(held(seam + from, seam + to, 0.9))).runs).toBe(1);
    expect((await read(held(seam + from, seam + to, -0.9))).runs).toBe(1);
  });

  it('a run of two samples is none; runs in several stretches are counted, at the highest value alone', async () => {
    expect((await read(held(seam - 1, seam + 1, 0.9))).runs).toBe(0);
    const several = (signal: Float64Array) => [100, seam - 2, seam + 500, second + 9].forEach((at) => void signal.fill(0.9, at, at + 4)); // prettier-ignore
    expect((await read(several)).runs).toBe(4);
    expect((await read((signal) => (several(signal), void signal.fill(0.95, second - 1, second + 2)))).runs).toBe(1);
  });

  it.each([
    ['across it', -400, 400],
    ['up to it', -400, 0],
    ['from it on', 0, 400],
    ['from before what is read again', -12_000, 300],
    ['from a little before it', -30, 800],
  ])('a gap %s is one hole', async (_, from, to) => {
    expect((await read(held(seam + from, seam + to))).found).toEqual([['gap', seam + from, to - from]]);
  });

  it('a gap over a whole stretch is one hole, and one that lasts to the end is none', async () => {
    expect((await read(held(seam - 500, second + 700))).found).toEqual([['gap', seam - 500, second - seam + 1200]]);
    expect((await read(held(seam - 500, seconds * rate))).found).toEqual([]);
    expect((await read(held(0, seam + 300))).found).toEqual([]);
    // The value changes on the seam: two gaps that touch; nothing is heard before the second.
    const stepped = (signal: Float64Array) => (held(seam - 400, seam)(signal), held(seam, seam + 400, 1e-4)(signal));
    expect((await read(stepped)).found).toEqual([['gap', seam - 400, 400]]);
  });

  it.each([
    [-300, 300],
    [-800, -1],
    [-1, 400],
    [0, 400],
    [-60, 900],
  ])('a piece from %i to %i that is played once more is one hole', async (from, to) => {
    const lag = 1000;
    const again = (signal: Float64Array) => signal.copyWithin(seam + from, seam + from - lag, seam + to - lag);
    expect((await read(again)).found).toEqual([['repeat', seam + from, to - from]]);
  });

  it('a piece that is played once more over it is one of two holes, where another comes after it', async () => {
    const again = (signal: Float64Array) => {
      signal.copyWithin(seam - 200, seam - 1000, seam - 500);
      signal.copyWithin(seam + 9000, seam + 8000, seam + 8400);
    };
    expect((await read(again)).found).toEqual([
      ['repeat', seam - 200, 500],
      ['repeat', seam + 9000, 400],
    ]);
  });

  it('a signal that repeats itself all the time is none', async () => {
    const periodic = samplesOf(seconds * rate, (n) => sound[n % 997]);
    expect((await read((signal) => signal.set(periodic))).found).toEqual([]);
  });

  it('a peak between two samples is found, in the waveform as well', async () => {
    const steep = (signal: Float64Array) => signal.set([0.4, -0.4, 0.95, 0.95, -0.4, 0.4], seam - 3);
    const signal = sound.slice();
    steep(signal);
    await read(steep);
    const { channels, waveform } = await inStretches([signal], rate);
    expect(channels[0].truePeak).toBeGreaterThan(1);
    expect(largestChange(waveform.pairs, (await atOnce([signal], rate)).waveform.pairs)).toBe(0);
  });
});

describe('levels alone', () => {
  it('are the same as with all else', async () => {
    const rate = 8000;
    const channels = [moving(65 * rate, rate, 5)];
    const [, stretch] = stretchesOf(channels, rate);
    const read = async (depth: 'levels' | 'all') =>
      (await new StretchReader(memoryStream(channels, rate), depth).read(stretch)).channels[0];
    const [levels, all] = [await read('levels'), await read('all')];
    expect(levels.deep).toBeNull();
    expect(largestChange(levels.kWeighted, all.kWeighted)).toBe(0);
    expect([levels.level, levels.truePeak, levels.count, levels.sum]).toEqual([all.level, all.truePeak, all.count, all.sum]); // prettier-ignore
  });
});
