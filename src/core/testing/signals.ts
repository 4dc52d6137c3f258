import { joinedFloats } from '../dsp/float-pieces';
import type { AudioFormat } from '../audio/audio-format';
import { memoryStream } from '../audio/memory-stream';
import { analyseClip, type ClipAnalysis } from '../measure/clip-analysis';

// Signals for tests, made from their definitions.

/** Samples by a formula; `Float64Array.from` takes ten times as long. */
export function samplesOf(count: number, formula: (n: number) => number): Float64Array {
  const samples = new Float64Array(count);
  for (let n = 0; n < count; n++) samples[n] = formula(n);
  return samples;
}

/** A sine; its peak is `levelDbfs` re full scale. Phase in degrees. */
export function sine(hz: number, levelDbfs: number, seconds: number, sampleRate = 48_000, phaseDeg = 0): Float64Array {
  const amplitude = 10 ** (levelDbfs / 20);
  const phase = (phaseDeg * Math.PI) / 180;
  const count = Math.round(seconds * sampleRate);
  return samplesOf(count, (n) => amplitude * Math.sin((2 * Math.PI * hz * n) / sampleRate + phase));
}

/** Uniform white noise in ±amplitude from a linear congruential generator that other programs can repeat (Numerical Recipes' constants). */
export function lcgNoise(count: number, amplitude: number, seed = 12345): Float64Array {
  let s = seed;
  return samplesOf(count, () => {
    s = (Math.imul(1664525, s) + 1013904223) >>> 0;
    return amplitude * (s / 2 ** 31 - 1);
  });
}

export const joined = (...parts: readonly Float64Array[]): Float64Array<ArrayBuffer> => joinedFloats(parts);

export function mixed(a: Float64Array, b: Float64Array): Float64Array {
  return samplesOf(a.length, (n) => a[n] + (n < b.length ? b[n] : 0));
}

export function scaled(signal: Float64Array, gainDb: number): Float64Array {
  const gain = 10 ** (gainDb / 20);
  return samplesOf(signal.length, (n) => signal[n] * gain);
}

export const analyse = (
  channels: readonly Float64Array[],
  sampleRate = 48_000,
  format: Partial<AudioFormat> = {},
): Promise<ClipAnalysis> =>
  analyseClip(memoryStream(channels, sampleRate, format), { reopen: () => memoryStream(channels, sampleRate, format) });

/**
 * Something with the rhythm of speech: bursts of noise of 0.1–0.4 s (syllables) in phrases, with their true times.
 *
 * @param phrases - start and end of each phrase, in seconds
 * @param levelDbfs - peak of the noise
 */
export function syllables(
  phrases: readonly (readonly [number, number])[],
  seconds: number,
  levelDbfs: number,
  sampleRate = 48_000,
  seed = 7,
): Float64Array {
  const out = new Float64Array(Math.round(seconds * sampleRate));
  const noise = lcgNoise(out.length, 10 ** (levelDbfs / 20), seed);
  for (const [start, end] of phrases) {
    for (let i = Math.round(start * sampleRate); i < Math.round(end * sampleRate); i++) {
      const t = i / sampleRate - start;
      // Four syllables a second, never quite silent between them.
      out[i] = noise[i] * (0.15 + 0.85 * Math.sin(Math.PI * 4 * t) ** 2);
    }
  }
  return out;
}
