import type { ChannelBlock } from './channel-block';
import { GrowingFloats } from './growing-floats';
import { binRange, shareOf } from './bin-range';
import { HannFrames, hannRoom } from './hann-frames';
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
 * (16,384 at 48 kHz: 2.9 Hz between bins; 8,192 at 44.1 kHz: 5.4 Hz, a little more than the 20 Hz band is wide).
 */
export function frameLength(sampleRate: number): number {
  return 2 ** Math.floor(Math.log2(0.35 * sampleRate));
}

/** Bytes that they need behind their block. */
export const bandPowerRoom = (sampleRate: number): number => hannRoom(frameLength(sampleRate));

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
  private readonly hann: HannFrames;
  /** Which of the summed pieces a value is the sum of: from one on, up to another. */
  private readonly pieces: readonly (readonly [number, number])[];

  /**
   * @param sampleRate - in hertz
   * @param block - the block that is pushed, with {@link bandPowerRoom}
   */
  constructor(sampleRate: number, block: ChannelBlock) {
    const size = (this.frameLength = frameLength(sampleRate));
    const binWidth = sampleRate / size;
    const audio = { lowHz: AUDIO_BAND.lowHz, highHz: highestTotalHz(sampleRate) };
    const heard = [...THIRD_OCTAVE_BANDS.filter((b) => b.highHz <= sampleRate / 2), audio];
    // No bin is summed twice: the totals are made of the pieces between all edges.
    const edges = [...new Set(heard.flatMap((b) => [b.lowHz, b.highHz]))].sort((a, b) => a - b);
    this.pieces = heard.map((b) => [edges.indexOf(b.lowHz), edges.indexOf(b.highHz)]);
    this.hann = new HannFrames(block, {
      size,
      step: size / 2,
      ranges: edges.slice(1).map((highHz, i) => binRange({ lowHz: edges[i], highHz }, binWidth)),
      onFrames: (count) => {
        this.keep(0);
        if (count === 2) this.keep(1);
      },
    });
    const range = binRange(audio, binWidth);
    this.hann.weigh(
      Float64Array.from({ length: size / 2 }, (_, k) => shareOf(k, range) * aWeightingPower(k * binWidth)),
    );
  }

  /** Frames finished so far. */
  get frames(): number {
    return this.hann.frames;
  }

  /** Sum of the power per bin over all frames so far, one-sided. */
  get powerSum(): Float64Array {
    return this.hann.powerSum;
  }

  /** Begins anew, as if nothing had been pushed. */
  restart(): void {
    this.values.clear();
    this.hann.restart();
  }

  /** Takes the block as what came before: the first frame begins in it. */
  prime(): void {
    this.hann.prime();
  }

  /** Takes the block as it stands. */
  push(): void {
    this.hann.push();
  }

  /** Takes the last whole frame, if one is waiting; what is left of less than a frame is not used. */
  finish(): void {
    this.hann.finish();
  }

  private keep(frame: 0 | 1): void {
    const from = frame * (this.frameLength / 2);
    if (isZero(this.hann.samples, from, from + this.frameLength)) this.hann.powers[frame].fill(0);
    const sums = this.hann.rangeSums(frame);
    const { pieces, values } = this;
    const bands = pieces.length - 1;
    for (let b = 0; b < THIRD_OCTAVE_BANDS.length; b++) values.push(b < bands ? total(sums, pieces[b]) : NaN);
    values.push(total(sums, pieces[bands]));
    values.push(this.hann.addFrame(frame));
  }
}

function total(sums: Float64Array, [from, to]: readonly [number, number]): number {
  let sum = 0;
  for (let i = from; i < to; i++) sum += sums[i];
  return sum;
}

/** Ends at the first sample that is not zero: costs nothing but in silence. */
function isZero(samples: Float32Array, from: number, to: number): boolean {
  for (let i = from; i < to; i++) if (samples[i] !== 0) return false;
  return true;
}
