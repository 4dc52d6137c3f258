import { butterworthHighPass, butterworthLowPass } from './butterworth';
import type { ChannelBlock } from './channel-block';
import { FRAMES_PER_SECOND } from './frame-power';
import { GrowingFloats } from './growing-floats';

/** Region of a plosive's puff. */
export const PUFF_BAND = { lowHz: 20, highHz: 120 } as const;
/** Rate to which samples are brought before they are filtered, at least. */
const LOW_RATE_HZ = 4000;

/**
 * Largest magnitude at 20–120 Hz in frames of 20 ms, one channel. Samples are first brought down to about 4–8 kHz by
 * triangular averaging (kernels/low-band.ts; what folds down into the band is at least 60 dB lower), then filtered by
 * Butterworth sections of fourth order at each edge.
 */
export class LowBandFrames {
  /** Largest magnitude per frame, full scale 1. */
  readonly peaks = new GrowingFloats();
  private readonly divisor: number;
  private readonly lowRate: number;
  private lowSamples = 0;
  private frame = 0;
  private frameEnd: number;
  private peak = 0;

  /**
   * @param sampleRate - in hertz
   * @param block - the block that is pushed
   * @param from - place in the clip of the first sample that is pushed
   * @param before - samples that the meter is primed with
   */
  constructor(
    sampleRate: number,
    private readonly block: ChannelBlock,
    from = 0,
    before = 0,
  ) {
    this.divisor = Math.max(1, Math.floor(sampleRate / LOW_RATE_HZ));
    this.lowRate = sampleRate / this.divisor;
    this.frameEnd = this.boundary(1);
    // Groups of samples lie as they do in the whole clip.
    block.kernel.enterGroup((from - before) % this.divisor);
    this.lowSamples = -(from % this.divisor) / this.divisor;
    const sections = [
      ...butterworthHighPass(4, PUFF_BAND.lowHz, this.lowRate),
      ...butterworthLowPass(4, PUFF_BAND.highHz, this.lowRate),
    ];
    block
      .part(block.kernel.LOW_SECTIONS, 5 * sections.length)
      .set(sections.flatMap(({ b0, b1, b2, a1, a2 }) => [b0, b1, b2, a1, a2]));
  }

  /** Takes the block as what came before the first frame: the filters settle on it. */
  prime(): void {
    this.block.kernel.lowBand(this.block.count, this.divisor);
  }

  /**
   * Closes a frame whose last group reaches beyond the end of what is pushed.
   *
   * @param frames - how many there are
   */
  closeAt(frames: number): void {
    if (this.frame < frames) this.closeFrame();
  }

  /** Takes the block as it stands. */
  push(): void {
    const { kernel, count } = this.block;
    const low = kernel.lowBand(count, this.divisor);
    for (let at = 0; at < low;) {
      const to = Math.min(low, at + Math.max(1, Math.ceil(this.frameEnd - this.lowSamples)));
      this.peak = Math.max(this.peak, kernel.largestLow(at, to));
      this.lowSamples += to - at;
      at = to;
      if (this.lowSamples >= this.frameEnd) this.closeFrame();
    }
  }

  private closeFrame(): void {
    this.peaks.push(this.peak);
    this.peak = 0;
    this.frame++;
    this.frameEnd = this.boundary(this.frame + 1);
  }

  /** Low-rate samples, whole or not, after which a frame ends. */
  private boundary(frame: number): number {
    return (frame * this.lowRate) / FRAMES_PER_SECOND;
  }
}
