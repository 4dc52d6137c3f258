import type { ChannelBlock } from './channel-block';
import { GrowingFloats } from './growing-floats';
import { binRange } from './bin-range';
import { HannFrames, hannRoom } from './hann-frames';

/** Band that carries the body of consonants, and the band of the hiss. */
export const BODY_BAND = { lowHz: 1000, highHz: 5000 } as const;
export const HISS_BAND = { lowHz: 5000, highHz: 10_000 } as const;

/** Frame length: the power of two that lasts between 14 ms and 28 ms (1,024 at 44.1 and 48 kHz: 21 ms). */
export const sibilantFrameLength = (sampleRate: number): number => 2 ** Math.floor(Math.log2(0.028 * sampleRate));

/** Bytes that they need behind their block. */
export const sibilantRoom = (sampleRate: number): number => hannRoom(sibilantFrameLength(sampleRate));

/**
 * Power at 1–5 kHz and at 5–10 kHz in short Hann frames without overlap, one channel. Fricatives last 50–150 ms, so
 * the frames of the long-term spectrum would smear them.
 */
export class SibilantFrames {
  /** Two numbers per frame: mean square at 1–5 kHz, and at 5–10 kHz (NaN where half the sample rate is lower). */
  readonly values = new GrowingFloats();
  readonly frameLength: number;
  private readonly hann: HannFrames;

  /**
   * @param sampleRate - in hertz
   * @param block - the block that is pushed, with {@link sibilantRoom}
   */
  constructor(sampleRate: number, block: ChannelBlock) {
    const size = (this.frameLength = sibilantFrameLength(sampleRate));
    const bands = HISS_BAND.highHz < sampleRate / 2 ? [BODY_BAND, HISS_BAND] : [BODY_BAND];
    this.hann = new HannFrames(block, {
      size,
      step: size,
      ranges: bands.map((band) => binRange(band, sampleRate / size)),
      onFrames: () => {
        this.keep(0);
        this.keep(1);
      },
    });
  }

  /** Begins anew, as if nothing had been pushed. */
  restart(): void {
    this.values.clear();
    this.hann.restart();
  }

  /** Takes the block as what came before. */
  prime(): void {
    this.hann.prime();
  }

  /** Takes the block as it stands. */
  push(): void {
    this.hann.push();
  }

  private keep(frame: 0 | 1): void {
    const sums = this.hann.rangeSums(frame);
    this.values.push(sums[0]);
    this.values.push(sums.length > 1 ? sums[1] : NaN);
  }
}
