import { kernelInstance, type KernelExports } from '../dsp/kernel-instance';
import { BYTES_PER_SAMPLE, type SampleEncoding } from './audio-format';
import { SAMPLE_DECODER_KERNEL } from './sample-decoder-kernel';

/** kernels/sample-decoder.ts. */
interface SampleDecoderKernel extends KernelExports, Record<SampleEncoding, (from: number, count: number) => void> {
  readonly BYTES: { readonly value: number };
  plan(bytes: number, samples: number): void;
  valuesPlace(): number;
  planesPlace(): number;
  spread(channels: number, frames: number): void;
}

/**
 * Little-endian interleaved samples to one array of doubles per channel, full scale ±1. Every PCM and float value is
 * represented exactly.
 *
 * Fill `bytes`, then decode parts of it.
 */
export class SampleDecoder {
  private readonly kernel = kernelInstance<SampleDecoderKernel>(SAMPLE_DECODER_KERNEL);
  /** As they stand in the file. */
  readonly bytes: Uint8Array<ArrayBuffer>;
  private readonly frameBytes: number;
  /** All that is decoded at once: the samples of one channel, or those of all, one channel after the other. */
  private readonly decoded: Float64Array;

  /**
   * @param encoding - how samples are stored
   * @param channels - 1 or more
   * @param capacity - in frames: what `bytes` holds
   * @param atOnce - in frames: the most that is decoded by one call
   */
  constructor(
    private readonly encoding: SampleEncoding,
    private readonly channels: number,
    capacity: number,
    atOnce: number,
  ) {
    this.frameBytes = channels * BYTES_PER_SAMPLE[encoding];
    this.kernel.plan(capacity * this.frameBytes, atOnce * channels);
    const { buffer } = this.kernel.memory;
    this.bytes = new Uint8Array(buffer, this.kernel.BYTES.value, capacity * this.frameBytes);
    const place = channels === 1 ? this.kernel.valuesPlace() : this.kernel.planesPlace();
    this.decoded = new Float64Array(buffer, place, atOnce * channels);
  }

  /**
   * @param from - first frame of `bytes`
   * @param frames - how many
   * @param into - one array per channel, each at least `frames` long
   */
  decode(from: number, frames: number, into: readonly Float64Array[]): void {
    const { kernel, channels, decoded } = this;
    kernel[this.encoding](from * this.frameBytes, frames * channels);
    if (channels > 1) kernel.spread(channels, frames);
    for (let c = 0; c < channels; c++) into[c].set(decoded.subarray(c * frames, (c + 1) * frames));
  }
}
