import { describe, expect, it } from 'vitest';
import { BLOCK_FRAMES } from '../audio/sample-stream';
import { inBlocks } from '../testing/blocks';
import { lcgNoise, sine } from '../testing/signals';
import { BandPowerFrames, bandPowerRoom, A_TOTAL, VALUES_PER_FRAME, Z_TOTAL, frameLength } from './band-power-frames';
import { BiquadCascade } from './biquad';
import { ChannelBlock } from './channel-block';
import { THIRD_OCTAVE_BANDS } from './third-octave-bands';

function frames(signal: Float64Array, rate = 48_000, size = BLOCK_FRAMES): BandPowerFrames {
  const block = new ChannelBlock(bandPowerRoom(rate));
  const meter = new BandPowerFrames(rate, block);
  inBlocks(signal, block, () => meter.push(), size);
  meter.finish();
  return meter;
}

/** Mean over frames as a level; a full-scale sine reads 0. */
function level(meter: BandPowerFrames, value: number): number {
  const values = meter.values.view();
  let sum = 0;
  for (let f = 0; f < meter.frames; f++) sum += values[f * VALUES_PER_FRAME + value];
  return 10 * Math.log10((2 * sum) / meter.frames);
}
const band = (nominal: number): number => THIRD_OCTAVE_BANDS.findIndex((b) => b.nominalHz === nominal);

describe('BandPowerFrames', () => {
  // scipy 1.10.1, input the same generator and filter:
  //   b, a = butter(1, 1000/24000); x = lfilter(b, a, 0.1 * lcg(12345, 96000))
  //   f, p = welch(x, 48000, window='hann', nperseg=16384, noverlap=8192, detrend=False)
  //   band = Σ p·overlap(bin, band)·Δf with bins (k ± ½)·Δf, level = 10·log10(2·band)
  // The tolerance, 0.00005 dB, is ten times the rounding of single precision.
  it.each([
    [20, -58.38912260957418],
    [100, -51.11911214103799],
    [500, -45.26040549522017],
    [1000, -45.21553857188874],
    [2000, -45.9841601063021],
    [10000, -53.295795983123035],
    [20000, -63.645374035346606],
  ])('agrees with scipy.signal.welch in the %i Hz band', (nominal, expected) => {
    expect(level(reference(), band(nominal))).toBeCloseTo(expected, 4);
  });

  it('agrees with scipy in the totals, unweighted and A-weighted', () => {
    expect(level(reference(), Z_TOTAL)).toBeCloseTo(-33.94245063533316, 4);
    expect(level(reference(), A_TOTAL)).toBeCloseTo(-35.068244319103854, 4);
  });

  it('reads a full-scale sine as 0 dBFS in its band', () => {
    expect(level(frames(sine(1000, 0, 2)), band(1000))).toBeCloseTo(0, 2);
  });

  // Parseval: band powers add up to the mean square, up to what lies outside 17.8 Hz–22.4 kHz.
  it('keeps the power of white noise', () => {
    const noise = lcgNoise(480_000, 0.3);
    const meanSquare = noise.reduce((s, x) => s + x * x, 0) / noise.length;
    const inBand = meanSquare * ((20_000 - 20) / 24_000);
    expect(level(frames(noise), Z_TOTAL)).toBeCloseTo(10 * Math.log10(2 * inBand), 1);
  });

  it('takes frames in pairs or alone with the same result', () => {
    const n = frameLength(48_000);
    const noise = lcgNoise(2 * n, 0.2);
    const three = frames(noise);
    const one = frames(noise.subarray(0, n));
    expect(three.frames).toBe(3);
    expect(one.frames).toBe(1);
    const [a, b] = [three.values.view(), one.values.view()];
    // What the rounding of single precision makes of one frame depends on the other one.
    for (let v = 0; v < VALUES_PER_FRAME; v++) expect(a[v] / b[v]).toBeCloseTo(1, 6);
  });

  it('does not depend on how the samples are portioned', () => {
    const noise = lcgNoise(60_000, 0.2);
    const pieces = frames(noise, 48_000, 777);
    expect(pieces.values.view()).toEqual(frames(noise).values.view());
  });

  it('marks bands beyond half the sample rate as not measured', () => {
    const values = frames(lcgNoise(32_000, 0.1), 16_000).values.view();
    expect(values[band(6300)]).toBeGreaterThan(0);
    expect(values[band(8000)]).toBeNaN();
    expect(values[A_TOTAL]).toBeGreaterThan(0);
  });

  it('is worth 0.17 s to 0.35 s a frame at every rate', () => {
    for (const rate of [8000, 11_025, 44_100, 48_000, 96_000, 192_000]) {
      expect(frameLength(rate) / rate).toBeGreaterThan(0.17);
      expect(frameLength(rate) / rate).toBeLessThanOrEqual(0.35);
    }
  });
});

describe('THIRD_OCTAVE_BANDS', () => {
  // IEC 61260-1:2014 Annex E: 1/3-octave mid-band frequencies 20 Hz … 20 kHz, base ten.
  it('adjoin each other and lie about their nominal centres', () => {
    expect(THIRD_OCTAVE_BANDS).toHaveLength(31);
    THIRD_OCTAVE_BANDS.forEach((b, i) => {
      expect(Math.sqrt(b.lowHz * b.highHz) / b.nominalHz).toBeCloseTo(1, 1);
      expect(b.highHz / b.lowHz).toBeCloseTo(10 ** 0.1, 12);
      if (i > 0) expect(b.lowHz).toBe(THIRD_OCTAVE_BANDS[i - 1].highHz);
    });
  });
});

let cached: BandPowerFrames | null = null;
function reference(): BandPowerFrames {
  if (!cached) {
    const x = lcgNoise(96_000, 0.1);
    // The same filter to the last digit: scipy printed eight, so it is made here as butter() makes it.
    const k = Math.tan((Math.PI * 1000) / 48_000);
    const b = k / (1 + k);
    new BiquadCascade([{ b0: b, b1: b, b2: 0, a1: (k - 1) / (k + 1), a2: 0 }]).process(x);
    cached = frames(x);
  }
  return cached;
}
