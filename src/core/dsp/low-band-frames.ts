import { BLOCK_FRAMES } from '../audio/sample-stream';
import { BiquadCascade } from './biquad';
import { butterworthHighPass, butterworthLowPass } from './butterworth';
import { FRAMES_PER_SECOND } from './frame-power';
import { GrowingFloats } from './growing-floats';

/** Region of a plosive's puff. */
export const PUFF_BAND = { lowHz: 20, highHz: 120 } as const;
/** Rate to which samples are brought before they are filtered, at least. */
const LOW_RATE_HZ = 4000;

/**
 * Largest magnitude at 20–120 Hz in frames of 20 ms, one channel. Samples are first brought down to about 4–8 kHz by
 * triangular averaging (two sums per sample; what folds down into the band is at least 60 dB lower), then filtered by
 * Butterworth sections of fourth order at each edge.
 */
export class LowBandFrames {
  /** Largest magnitude per frame, full scale 1. */
  readonly peaks = new GrowingFloats();
  private readonly divisor: number;
  private readonly filter: BiquadCascade;
  private readonly lowRate: number;
  /** Low-rate samples of one block, filtered together. */
  private readonly low = new Float64Array(BLOCK_FRAMES);
  private inBlock = 0;
  private sum = 0;
  private ramp = 0;
  private rising = 0;
  private lowSamples = 0;
  private frame = 0;
  private peak = 0;

  /** @param sampleRate - in hertz */
  constructor(sampleRate: number) {
    this.divisor = Math.max(1, Math.floor(sampleRate / LOW_RATE_HZ));
    this.lowRate = sampleRate / this.divisor;
    this.filter = new BiquadCascade([
      ...butterworthHighPass(4, PUFF_BAND.lowHz, this.lowRate),
      ...butterworthLowPass(4, PUFF_BAND.highHz, this.lowRate),
    ]);
  }

  /**
   * @param samples - full scale ±1
   * @param count - how many of them to take, at most BLOCK_FRAMES
   */
  push(samples: Float64Array, count: number): void {
    const { divisor } = this;
    const { low } = this;
    let { inBlock, sum, ramp, rising } = this;
    let filled = 0;
    for (let i = 0; i < count;) {
      const end = Math.min(count, i + divisor - inBlock);
      for (; i < end; i++, inBlock++) {
        sum += samples[i];
        ramp += samples[i] * inBlock;
      }
      if (inBlock < divisor) break;
      // Triangle over two blocks: rising weights of the one before, falling weights of this one.
      low[filled++] = (rising + divisor * sum - ramp) / (divisor * divisor);
      rising = ramp;
      inBlock = 0;
      sum = 0;
      ramp = 0;
    }
    this.inBlock = inBlock;
    this.sum = sum;
    this.ramp = ramp;
    this.rising = rising;
    this.filter.process(low, filled);
    for (let i = 0; i < filled; i++) this.take(Math.abs(low[i]));
  }

  private take(magnitude: number): void {
    if (magnitude > this.peak) this.peak = magnitude;
    if (++this.lowSamples >= ((this.frame + 1) * this.lowRate) / FRAMES_PER_SECOND) {
      this.peaks.push(this.peak);
      this.peak = 0;
      this.frame++;
    }
  }
}
