import type { FramePairPlan } from './fft';
import { GrowingFloats } from './growing-floats';
import { hannPlan } from './hann';
import { binRange, sumRange, type BinRange } from './bin-range';

/** Band that carries the body of consonants, and the band of the hiss. */
export const BODY_BAND = { lowHz: 1000, highHz: 5000 } as const;
export const HISS_BAND = { lowHz: 5000, highHz: 10_000 } as const;

/** Frame length: the power of two that lasts between 14 ms and 28 ms (1,024 at 44.1 and 48 kHz: 21 ms). */
export const sibilantFrameLength = (sampleRate: number): number => 2 ** Math.floor(Math.log2(0.028 * sampleRate));

/**
 * Power at 1–5 kHz and at 5–10 kHz in short Hann frames without overlap, one channel. Fricatives last 50–150 ms, so
 * the frames of the long-term spectrum would smear them. Two frames go through one complex FFT.
 */
export class SibilantFrames {
  /** Two numbers per frame: mean square at 1–5 kHz, and at 5–10 kHz (NaN where half the sample rate is lower). */
  readonly values = new GrowingFloats();
  readonly frameLength: number;
  private readonly fft: FramePairPlan;
  private readonly scale: number;
  private readonly body: BinRange;
  private readonly hiss: BinRange | null;
  private filled = 0;

  constructor(sampleRate: number) {
    const n = (this.frameLength = sibilantFrameLength(sampleRate));
    ({ fft: this.fft, scale: this.scale } = hannPlan(n));
    this.body = binRange(BODY_BAND, sampleRate / n);
    this.hiss = HISS_BAND.highHz < sampleRate / 2 ? binRange(HISS_BAND, sampleRate / n) : null;
  }

  /**
   * @param samples - full scale ±1
   * @param count - how many of them to take
   */
  push(samples: Float64Array, count: number): void {
    const { samples: buffer, powers } = this.fft;
    for (let taken = 0; taken < count;) {
      const part = Math.min(count - taken, buffer.length - this.filled);
      buffer.set(samples.subarray(taken, taken + part), this.filled);
      this.filled += part;
      taken += part;
      if (this.filled === buffer.length) {
        this.fft.framePair(this.scale, this.frameLength);
        for (const power of powers) {
          this.values.push(sumRange(power, this.body));
          this.values.push(this.hiss ? sumRange(power, this.hiss) : NaN);
        }
        this.filled = 0;
      }
    }
  }
}
