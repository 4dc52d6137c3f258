import type { FramePairPlan } from './fft';
import { GrowingFloats } from './growing-floats';
import { hannPlan } from './hann';
import { binRange } from './bin-range';
import { THIRD_OCTAVE_BANDS } from './third-octave-bands';
import { aWeightingPower } from './weighting-curves';

/** Lower and upper limit of unweighted and A-weighted totals, in hertz. */
export const AUDIO_BAND = { lowHz: 20, highHz: 20_000 } as const;
/** Values kept per frame: one per third octave, then the unweighted and the A-weighted total. */
export const VALUES_PER_FRAME = THIRD_OCTAVE_BANDS.length + 2;
export const Z_TOTAL = THIRD_OCTAVE_BANDS.length;
export const A_TOTAL = THIRD_OCTAVE_BANDS.length + 1;

/** Upper limit of the totals at a sample rate, in hertz: 20 kHz, or the last bin below half the sample rate. */
export const highestTotalHz = (sampleRate: number): number =>
  Math.min(AUDIO_BAND.highHz, sampleRate / 2 - sampleRate / frameLength(sampleRate));

/**
 * Frame length for a sample rate: the power of two that lasts between 0.17 s and 0.35 s
 * (16,384 at 44.1 and 48 kHz: 2.9 Hz between bins, enough for the 20 Hz band).
 */
export function frameLength(sampleRate: number): number {
  return 2 ** Math.floor(Math.log2(0.35 * sampleRate));
}

/**
 * Welch's method, one channel: Hann windows at 50 % overlap, and of each frame the mean square in every third
 * octave, unweighted 20 Hz–20 kHz, and A-weighted 20 Hz–20 kHz. Keeping band powers frame by frame (33 numbers)
 * instead of one averaged spectrum lets speech and silence be chosen after the only pass over the samples.
 *
 * Powers are mean squares of the signal (full scale ±1), window power compensated, one-sided.
 * A band that reaches above half the sample rate is NaN; the totals then end at half the sample rate.
 * Two successive frames go through one complex FFT, as its real and its imaginary part. What rounding leaves of the
 * loud one in the silent one is no sound: a frame of zeros alone is zero, whatever stands beside it.
 */
export class BandPowerFrames {
  readonly frameLength: number;
  /** VALUES_PER_FRAME numbers per frame, frame after frame. */
  readonly values = new GrowingFloats();
  private readonly hop: number;
  private readonly fft: FramePairPlan;
  /** How many of the bands lie below half the sample rate: they come first. */
  private readonly heard: number;
  /** Samples of the two frames that are being gathered. */
  private readonly buffer: Float64Array;
  private readonly scale: number;
  private filled = 0;

  constructor(sampleRate: number) {
    const n = (this.frameLength = frameLength(sampleRate));
    this.hop = n / 2;
    ({ fft: this.fft, scale: this.scale } = hannPlan(n));
    const binWidth = sampleRate / n;
    const bands = THIRD_OCTAVE_BANDS.filter((b) => b.highHz <= sampleRate / 2);
    this.heard = bands.length;
    this.fft.planSums(
      [...bands, { lowHz: AUDIO_BAND.lowHz, highHz: highestTotalHz(sampleRate) }].map((b) => binRange(b, binWidth)),
      Float64Array.from({ length: n / 2 }, (_, k) => aWeightingPower(k * binWidth)),
    );
    this.buffer = this.fft.samples.subarray(0, n + this.hop);
  }

  /** Frames finished so far. */
  get frames(): number {
    return this.values.length / VALUES_PER_FRAME;
  }

  /** Mean power per bin over all frames so far, one-sided; the long-term spectrum in full resolution. */
  meanPowers(): Float64Array {
    return this.fft.powerSum.map((p) => p / Math.max(1, this.frames));
  }

  /**
   * @param samples - full scale ±1
   * @param count - how many of them to take
   */
  push(samples: Float64Array, count: number): void {
    let taken = 0;
    while (taken < count) {
      const part = Math.min(count - taken, this.buffer.length - this.filled);
      this.buffer.set(samples.subarray(taken, taken + part), this.filled);
      this.filled += part;
      taken += part;
      if (this.filled === this.buffer.length) {
        this.fft.framePair(this.scale, this.hop);
        this.storeFrame(0, 0);
        this.storeFrame(1, this.hop);
        this.buffer.copyWithin(0, 2 * this.hop);
        this.filled -= 2 * this.hop;
      }
    }
  }

  /** Takes the last whole frame, if one is waiting; what is left of less than a frame is not used. */
  finish(): void {
    if (this.filled >= this.frameLength) {
      this.buffer.fill(0, this.frameLength);
      this.fft.framePair(this.scale, this.hop);
      this.storeFrame(0, 0);
      this.filled = 0;
    }
  }

  private storeFrame(frame: 0 | 1, from: number): void {
    if (isZero(this.buffer, from, from + this.frameLength)) this.fft.powers[frame].fill(0);
    const sums = this.fft.sumFrame(frame);
    for (let b = 0; b < THIRD_OCTAVE_BANDS.length; b++) this.values.push(b < this.heard ? sums[b] : NaN);
    this.values.push(sums[this.heard]);
    this.values.push(sums[this.heard + 1]);
  }
}

/** Ends at the first sample that is not zero: costs nothing but in silence. */
function isZero(samples: Float64Array, from: number, to: number): boolean {
  for (let i = from; i < to; i++) if (samples[i] !== 0) return false;
  return true;
}
