import { sharedHannPlan } from './hann';

/** A one-sided spectrum of mean squares: the sum over all bins is the mean square of the signal. */
export interface PowerSpectrum {
  /** Mean square per bin; bin k stands at k·binHz. Bin 0 is not filled. Length: half the frame. */
  readonly powers: Float64Array;
  readonly binHz: number;
  /** Frames that were averaged; 0 where the signal is shorter than a frame. */
  readonly frames: number;
}

/**
 * Welch's method over samples in memory: Hann (periodic), 50 % overlap, mean of the frames' powers, window power
 * compensated. What is left of less than a frame is not used.
 *
 * @param samples - one channel
 * @param sampleRate - in hertz
 * @param frameLength - a power of two, 16 or more
 */
export function welch(samples: Float64Array, sampleRate: number, frameLength: number): PowerSpectrum {
  const { fft, scale } = sharedHannPlan(frameLength);
  const hop = frameLength / 2;
  const powers = new Float64Array(frameLength / 2);
  const add = (power: Float64Array): void => {
    for (let k = 1; k < powers.length; k++) powers[k] += power[k];
  };
  const frames = samples.length < frameLength ? 0 : Math.floor((samples.length - frameLength) / hop) + 1;
  for (let f = 0; f < frames; f += 2) {
    const part = samples.subarray(f * hop, f * hop + frameLength + hop);
    fft.samples.set(part);
    fft.samples.fill(0, part.length);
    fft.framePair(scale, hop);
    add(fft.powers[0]);
    if (f + 1 < frames) add(fft.powers[1]);
  }
  if (frames > 0) for (let k = 0; k < powers.length; k++) powers[k] /= frames;
  return { powers, binHz: sampleRate / frameLength, frames };
}
