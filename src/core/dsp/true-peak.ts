import type { ChannelBlock } from './channel-block';

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

/** No output can exceed the largest input in its window by more than the sum of |coefficients|: 1.4 outside, 2.0 inside. */
const gainOf = (phase: number): number => TRUE_PEAK_PHASES[phase].reduce((s, c) => s + Math.abs(c), 0);
const OUTER_GAIN = Math.max(gainOf(0), gainOf(3));
const INNER_GAIN = Math.max(gainOf(1), gainOf(2));

/**
 * True peak of one channel: the largest magnitude of the 4 × oversampled signal, and never less than the sample
 * peak. Stretches whose samples are so small that the interpolator cannot exceed the maximum found so far are
 * skipped; the result is the same to the last bit, and speech is mostly skipped. What remains goes through
 * kernels/true-peak.ts.
 */
export class TruePeakMeter {
  /** Largest magnitude so far, linear, full scale 1. */
  peak = 0;
  /** Largest magnitude of the stride before: the interpolator still reaches into it. */
  private before = 0;

  /** @param block - the block that is pushed */
  constructor(private readonly block: ChannelBlock) {
    const { kernel } = block;
    const twice = TRUE_PEAK_PHASES.flatMap((phase) => [...phase].flatMap((c) => [c, c]));
    block.part(kernel.PHASES, twice.length).set(twice);
  }

  /** Takes the block as what came before: the interpolator reaches into it. */
  prime(): void {
    const { highest, lowest, strides } = this.block;
    this.before = Math.max(highest[strides - 1], -lowest[strides - 1]);
  }

  /**
   * Takes the block as it stands: a full one, or the last.
   *
   * @param samplePeak - largest magnitude of the clip up to and including this block (raises the bar for skipping)
   */
  push(samplePeak: number): void {
    const { kernel, count } = this.block;
    const peak = Math.max(this.peak, samplePeak);
    this.peak = kernel.largestOfBlock(count, peak, this.before, INNER_GAIN, OUTER_GAIN);
    this.prime();
  }

  /**
   * Lets the filter ring out past the last sample. The clip is taken to be followed by silence.
   */
  finish(): void {
    this.peak = this.block.kernel.ringOut(this.block.count, this.peak);
  }
}
