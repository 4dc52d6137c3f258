import { FftPlan } from '#core/dsp/fft';
import { seededBits } from '#core/stats/random';
import { standardNormal } from '#core/stats/normal';

/** One early reflection, as it arrives at the microphone facing the talker. */
export interface Reflection {
  readonly delayMs: number;
  /** Amplitude re the direct sound at 15 cm. */
  readonly gain: number;
  readonly angleDeg: number;
}

/** A small room: a few reflections and a diffuse tail. */
export interface Room {
  readonly reflections: readonly Reflection[];
  /** Reverberation time in seconds. */
  readonly t60: number;
  /** Amplitude of the diffuse tail re the direct sound at 15 cm. */
  readonly tailGain: number;
  /** Background noise, dB SPL, A-weighted. */
  readonly noiseDbA: number;
}

/** The net loft of the demo: carpet, shelves, a window to the harbour. */
export const NET_LOFT: Room = {
  reflections: [
    { delayMs: 2.1, gain: 0.12, angleDeg: 75 },
    { delayMs: 4.4, gain: 0.08, angleDeg: 120 },
    { delayMs: 7.9, gain: 0.06, angleDeg: 180 },
    { delayMs: 11.3, gain: 0.05, angleDeg: -100 },
    { delayMs: 16.8, gain: 0.04, angleDeg: 40 },
  ],
  t60: 0.32,
  tailGain: 0.14,
  noiseDbA: 30,
};

/** Samples that are convolved at a time. */
const CHUNK = 32_768;

/**
 * The diffuse tail of a room for a dry signal: convolution with exponentially decaying noise whose energy is 1.
 *
 * @param dry - the signal
 * @param sampleRate - in hertz
 * @param t60 - reverberation time in seconds
 * @param seed - of the tail
 * @returns as long as the dry signal
 */
export function diffuseTail(dry: Float64Array, sampleRate: number, t60: number, seed: string): Float64Array {
  const bits = seededBits(seed);
  const length = Math.min(CHUNK, Math.round(t60 * sampleRate));
  const predelay = Math.round(0.018 * sampleRate);
  const impulse = new Float64Array(length);
  let energy = 0;
  for (let i = predelay; i < length; i++) {
    impulse[i] = standardNormal(bits) * 10 ** ((-3 * (i - predelay)) / (t60 * sampleRate));
    energy += impulse[i] ** 2;
  }
  const scale = 1 / Math.sqrt(energy);
  return overlapAdd(
    dry,
    impulse.map((x) => x * scale),
  );
}

function overlapAdd(signal: Float64Array, impulse: Float64Array): Float64Array {
  const size = 2 * CHUNK;
  const fft = new FftPlan(size);
  const { input, output } = fft;
  const transform = (part: Float64Array): void => {
    input.re.fill(0);
    input.im.fill(0);
    input.re.set(part);
    fft.forward();
  };
  transform(impulse);
  const kernel = { re: output.re.slice(), im: output.im.slice() };
  const out = new Float64Array(signal.length);
  const product = new Float64Array(2 * size);
  for (let from = 0; from < signal.length; from += CHUNK) {
    transform(signal.subarray(from, from + CHUNK));
    for (let k = 0; k < size; k++) {
      product[2 * k] = output.re[k] * kernel.re[k] - output.im[k] * kernel.im[k];
      product[2 * k + 1] = output.re[k] * kernel.im[k] + output.im[k] * kernel.re[k];
    }
    // Conjugated before, the forward transform goes back.
    for (let k = 0; k < size; k++) {
      input.re[k] = product[2 * k];
      input.im[k] = -product[2 * k + 1];
    }
    fft.forward();
    const end = Math.min(size, signal.length - from);
    for (let i = 0; i < end; i++) out[from + i] += output.re[i] / size;
  }
  return out;
}
