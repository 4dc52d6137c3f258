import { STRIDE, type BlockExtremes } from './block-extremes';

/**
 * The four-phase interpolator of ITU-R BS.1770-5 Annex 2 (48 taps, 4 × oversampling). Written from memory and
 * confirmed in the tests: phases 2 and 3 mirror phases 1 and 0, every phase passes DC within 0.25 dB, and the
 * tones of EBU Tech 3341 cases 15–19 and libebur128's readings come back.
 */
export const TRUE_PEAK_PHASES: readonly Float64Array[] = (() => {
  const phase0 = [
    0.001708984375, 0.010986328125, -0.0196533203125, 0.033203125, -0.0594482421875, 0.1373291015625, 0.97216796875,
    -0.102294921875, 0.047607421875, -0.026611328125, 0.014892578125, -0.00830078125,
  ];
  const phase1 = [
    -0.0291748046875, 0.029296875, -0.0517578125, 0.089111328125, -0.16650390625, 0.465087890625, 0.77978515625,
    -0.2003173828125, 0.1015625, -0.0582275390625, 0.0330810546875, -0.0189208984375,
  ];
  return [phase0, phase1, [...phase1].reverse(), [...phase0].reverse()].map((p) => Float64Array.from(p));
})();

const TAPS = 12;
/** No output can exceed the largest input in its window by more than the largest sum of |coefficients|. */
const LARGEST_GAIN = Math.max(...TRUE_PEAK_PHASES.map((p) => p.reduce((s, c) => s + Math.abs(c), 0)));

/**
 * True peak of one channel: the largest magnitude of the 4 × oversampled signal, and never less than the sample
 * peak. Stretches whose samples are so small that the interpolator cannot exceed the maximum found so far are
 * skipped; the result is the same to the last bit, and speech is mostly skipped.
 */
export class TruePeakMeter {
  /** Largest magnitude so far, linear, full scale 1. */
  peak = 0;
  private readonly window: Float64Array;
  /** Largest magnitude of the stride before: the interpolator still reaches into it. */
  private before = 0;

  /** @param blockFrames - the longest block that will be pushed */
  constructor(blockFrames: number) {
    this.window = new Float64Array(TAPS - 1 + blockFrames);
  }

  /**
   * @param samples - full scale ±1
   * @param count - how many of them to take, at most `blockFrames`; less than a full stride only in the last block
   * @param extremes - the same block's extremes
   * @param samplePeak - largest magnitude of the clip up to and including this block (raises the bar for skipping)
   */
  push(samples: Float64Array, count: number, extremes: BlockExtremes, samplePeak: number): void {
    const window = this.window;
    window.set(samples.subarray(0, count), TAPS - 1);
    let peak = Math.max(this.peak, samplePeak);
    for (let s = 0; s < extremes.strides; s++) {
      const largest = Math.max(extremes.highest[s], -extremes.lowest[s]);
      if (Math.max(largest, this.before) * LARGEST_GAIN > peak) {
        peak = interpolatedPeak(window, s * STRIDE, Math.min(count, (s + 1) * STRIDE), peak);
      }
      this.before = largest;
    }
    this.peak = peak;
    window.copyWithin(0, count, count + TAPS - 1);
  }

  /**
   * Lets the filter ring out past the last sample. The clip is taken to be followed by silence.
   */
  finish(): void {
    this.window.fill(0, TAPS - 1, 2 * (TAPS - 1));
    this.peak = interpolatedPeak(this.window, 0, TAPS - 1, this.peak);
  }
}

function interpolatedPeak(window: Float64Array, from: number, to: number, start: number): number {
  let peak = start;
  for (const phase of TRUE_PEAK_PHASES) {
    for (let i = from; i < to; i++) {
      let sum = 0;
      for (let t = 0; t < TAPS; t++) sum += phase[t] * window[i + TAPS - 1 - t];
      const magnitude = Math.abs(sum);
      if (magnitude > peak) peak = magnitude;
    }
  }
  return peak;
}
