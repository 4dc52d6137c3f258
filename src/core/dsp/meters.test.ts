import { describe, expect, it } from 'vitest';
import { BLOCK_FRAMES } from '../audio/sample-stream';
import { inBlocks } from '../testing/blocks';
import { joined, lcgNoise, sine } from '../testing/signals';
import { BiquadCascade } from './biquad';
import { ChannelBlock } from './channel-block';
import { FramePowerMeter } from './frame-power';
import { kWeighting } from './k-weighting';
import { LevelMeter } from './level-meter';
import { TRUE_PEAK_PHASES, TruePeakMeter } from './true-peak';
import { WaveformPeaks, waveformColumn } from './waveform-peaks';

function truePeak(signal: Float64Array): number {
  const block = new ChannelBlock();
  const meter = new TruePeakMeter(block);
  let samplePeak = 0;
  inBlocks(signal, block, () => {
    samplePeak = block.samples.subarray(0, block.count).reduce((m, x) => Math.max(m, Math.abs(x)), samplePeak);
    meter.push(samplePeak);
  });
  meter.finish();
  return meter.peak;
}

/** The definition, sample by sample, nothing skipped. */
function truePeakByDefinition(signal: Float64Array): number {
  let peak = signal.reduce((m, x) => Math.max(m, Math.abs(x)), 0);
  for (let n = 0; n < signal.length + 11; n++) {
    for (const phase of TRUE_PEAK_PHASES) {
      let sum = 0;
      for (let t = 0; t < 12; t++) sum += phase[t] * (signal[n - t] ?? 0);
      peak = Math.max(peak, Math.abs(sum));
    }
  }
  return peak;
}

describe('TruePeakMeter', () => {
  // ITU-R BS.1770-5 Annex 2: the table mirrors itself, and passes DC (checked because it was written from memory).
  it('has the symmetry and the DC gain of the table', () => {
    expect([...TRUE_PEAK_PHASES[3]].reverse()).toEqual([...TRUE_PEAK_PHASES[0]]);
    expect([...TRUE_PEAK_PHASES[2]].reverse()).toEqual([...TRUE_PEAK_PHASES[1]]);
    for (const phase of TRUE_PEAK_PHASES) {
      const gainDb = 20 * Math.log10(phase.reduce((s, c) => s + c, 0));
      expect(Math.abs(gainDb)).toBeLessThan(0.25);
    }
  });

  // Measured of the table itself: equiripple up to a quarter of the rate, the outer phases finer than the inner ones. A
  // wrong coefficient breaks the ripple long before the tolerances of EBU Tech 3341 (+0.2/−0.4 dB) notice it.
  it('passes everything up to a quarter of the rate within the ripple of the table', () => {
    for (const [phase, ripple] of [
      [TRUE_PEAK_PHASES[0], 0.03],
      [TRUE_PEAK_PHASES[1], 0.25],
    ] as const) {
      for (let hz = 0; hz <= 12_000; hz += 500) {
        const w = (2 * Math.PI * hz) / 48_000;
        const re = phase.reduce((s, c, i) => s + c * Math.cos(w * i), 0);
        const im = phase.reduce((s, c, i) => s + c * Math.sin(w * i), 0);
        expect(Math.abs(20 * Math.log10(Math.hypot(re, im))), `${hz} Hz`).toBeLessThan(ripple);
      }
    }
  });

  it('skips only what cannot matter: the same as the definition', () => {
    const burst = joined(
      lcgNoise(9000, 0.01),
      lcgNoise(100, 0.9, 3),
      lcgNoise(9000, 0.4, 5),
      sine(11_000, -1, 0.1, 48_000, 40),
    );
    expect(truePeak(burst)).toBeCloseTo(truePeakByDefinition(burst), 12);
    const late = joined(new Float64Array(BLOCK_FRAMES - 3), Float64Array.of(0.5, -0.5, 0.5, -0.5, 0.5));
    expect(truePeak(late)).toBeCloseTo(truePeakByDefinition(late), 12);
  });

  it('rings out after a loud last sample', () => {
    const end = Float64Array.of(0, 0, 0, 0.8, 0.8);
    expect(truePeak(end)).toBeCloseTo(truePeakByDefinition(end), 12);
    expect(truePeak(end)).toBeGreaterThan(0.8);
  });
});

describe('LevelMeter', () => {
  const level = (signal: Float64Array): LevelMeter => {
    const meter = new LevelMeter();
    const block = new ChannelBlock();
    inBlocks(signal, block, () => meter.push(block));
    return meter;
  };

  it('counts runs of three and more at the extremes, not shorter ones', () => {
    expect(level(Float64Array.of(0, 1, 1, 1, 0, 1, 1, 0, -1, -1, -1, -1, 0)).clippedRuns).toBe(2);
    expect(level(Float64Array.of(0, 0.7, 0.7, 0.7, 0.71)).clippedRuns).toBe(0);
    expect(level(Float64Array.of(0.5, 0.5, 0.5, 0.4, 0.5, 0.5, 0.5)).clippedRuns).toBe(2);
  });

  it('sees a run across strides and blocks', () => {
    for (const at of [30, 31, BLOCK_FRAMES - 2, BLOCK_FRAMES - 1]) {
      const signal = new Float64Array(2 * BLOCK_FRAMES);
      signal.fill(0.9, at, at + 3);
      expect(level(signal).clippedRuns).toBe(1);
    }
  });

  it('does not join runs that a low sample parts', () => {
    const signal = lcgNoise(500, 0.1);
    signal[100] = signal[101] = 0.9;
    signal[103] = 0.9;
    expect(level(signal).clippedRuns).toBe(0);
  });

  it('is at 0 before the first sample', () => {
    expect(new LevelMeter().peak).toBe(0);
    expect(level(Float64Array.of(-0.25, 0.1)).peak).toBe(0.25);
  });
});

describe('FramePowerMeter', () => {
  it('keeps frames aligned with time at rates that do not divide by 50', () => {
    const block = new ChannelBlock();
    const meter = new FramePowerMeter(11_025, block);
    const signal = new Float64Array(11_025 * 3).fill(0.5);
    inBlocks(signal, block, () => meter.push());
    expect(meter.plain.length).toBe(150);
    expect(meter.plain.view().every((p) => Math.abs(p - 0.25) < 1e-12)).toBe(true);
    expect(meter.sum).toBeCloseTo(0.5 * signal.length, 6);
    expect(meter.sumOfSquares).toBeCloseTo(0.25 * signal.length, 6);
  });
});

describe('the K-weighting kernel', () => {
  // 11,025 Hz: frames of 220 and 221 samples, so that stretches begin and end on odd ones.
  it.each([
    [48_000, 1000],
    [11_025, 1],
    [11_025, 2],
    [11_025, 3],
    [11_025, 61],
    [44_100, 8192],
  ])('at %i Hz filters as the two sections do one after the other, in blocks of %i', (sampleRate, blockLength) => {
    const signal = lcgNoise(sampleRate / 5, 0.5);
    const block = new ChannelBlock();
    const meter = new FramePowerMeter(sampleRate, block);
    for (let at = 0; at < signal.length; at += blockLength) {
      block.samples.set(signal.subarray(at, at + blockLength));
      block.scan(Math.min(blockLength, signal.length - at));
      meter.push();
    }
    const filtered = signal.slice();
    new BiquadCascade(kWeighting(sampleRate)).process(filtered);
    const meanSquare = (samples: Float64Array, f: number): number => {
      const frame = samples.subarray(Math.round((f * sampleRate) / 50), Math.round(((f + 1) * sampleRate) / 50));
      return frame.reduce((s, x) => s + x * x, 0) / frame.length;
    };
    expect(meter.kWeighted.length).toBe(10);
    meter.kWeighted.view().forEach((power, f) => expect(power / meanSquare(filtered, f)).toBeCloseTo(1, 10));
    meter.plain.view().forEach((power, f) => expect(power / meanSquare(signal, f)).toBeCloseTo(1, 12));
    expect(meter.sum).toBeCloseTo(
      signal.reduce((s, x) => s + x, 0),
      9,
    );
  });
});

describe('WaveformPeaks', () => {
  it.each([100, 70_000, 3_000_000])('holds the extremes of %i samples in at most 2,048 columns', (count) => {
    const signal = lcgNoise(count, 0.3);
    signal[Math.floor(count / 2)] = 0.95;
    const peaks = new WaveformPeaks();
    const block = new ChannelBlock();
    inBlocks(signal, block, () => peaks.push([block]));
    const { pairs, framesPerColumn } = peaks.finish();
    expect(pairs.length / 2).toBe(Math.ceil(count / framesPerColumn));
    expect(pairs.length / 2).toBeLessThanOrEqual(2048);
    expect(pairs[2 * Math.floor(count / 2 / framesPerColumn) + 1]).toBeCloseTo(0.95, 6);
    const lowest = signal.reduce((m, x) => Math.min(m, x), 0);
    expect(pairs.reduce((m, x) => Math.min(m, x), 0)).toBeCloseTo(lowest, 6);
  });

  it.each([1, 64, 2047 * 64, 2047 * 64 + 1, 2048 * 64, 2047 * 128, 2047 * 128 + 1, 500_001])(
    'of %i samples has columns of the length that is told beforehand',
    (count) => {
      const peaks = new WaveformPeaks();
      const block = new ChannelBlock();
      inBlocks(new Float64Array(count), block, () => peaks.push([block]));
      expect(peaks.finish().framesPerColumn).toBe(waveformColumn(count));
    },
  );

  it('of many minutes, where a column is longer than a block, holds the extremes of all channels', () => {
    const count = 2400;
    const level = (b: number): number => Math.sin(b) * (b % 7);
    const peaks = new WaveformPeaks();
    const blocks = [new ChannelBlock(), new ChannelBlock()];
    for (let b = 0; b < count; b++) {
      blocks[0].samples.fill(level(b)).fill(level(b) / 3, 0, 99);
      blocks[1].samples.fill(-level(b) / 2);
      for (const block of blocks) block.scan(BLOCK_FRAMES);
      peaks.push(blocks);
    }
    const { pairs, framesPerColumn } = peaks.finish();
    const inColumn = framesPerColumn / BLOCK_FRAMES;
    expect(inColumn).toBe(2);
    const wanted = Array.from({ length: count / inColumn }, (_, c) => {
      const both = [level(2 * c), level(2 * c + 1)].flatMap((x) => [x, x / 3, -x / 2]);
      return [Math.fround(Math.min(...both)), Math.fround(Math.max(...both))];
    });
    expect([...pairs]).toEqual(wanted.flat());
  });
});
