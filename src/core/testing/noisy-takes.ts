import { fillStandardNormal } from '../stats/normal';
import { seededBits, SeededWords, uniform } from '../stats/random';
import { samplesOf } from './signals';

// Spoken takes with noise of known level, and with what spoils its reading. For tests and for the coverage report.

const RATE = 48_000;
/** Phrases of the usual take: four pauses between and around them, of 0.9 to 2.4 s. */
export const PHRASES = [
  [1.4, 4.1],
  [5.3, 7.8],
  [9.1, 12.2],
  [13.4, 15.6],
] as const;
const SECONDS = 18;

/** Normal noise of a colour: white, or falling above a corner like a room. */
export function colouredNoise(seconds: number, rms: number, cornerHz: number | null, seed: string): Float64Array {
  const words = new SeededWords(seed);
  const count = Math.round(seconds * RATE);
  const white = new Float32Array(count);
  fillStandardNormal(white, words, new Uint32Array(count));
  const share = cornerHz === null ? 1 : 1 - Math.exp((-2 * Math.PI * cornerHz) / RATE);
  // A one-pole low pass passes share/(2 − share) of the power of white noise.
  const scale = rms / Math.sqrt(share / (2 - share));
  let state = 0;
  return samplesOf(count, (n) => (state += share * (white[n] - state)) * scale);
}

/** Faults of a pause, each with the level of noise that the speech truly stands in. */
export const PAUSE_FAULTS = [
  'none',
  'gated',
  'click',
  'breath',
  'expander-15',
  'expander-30',
  'padding',
  'reverberation',
  'breathing',
  'automatic-gain',
] as const;
export type PauseFault = (typeof PAUSE_FAULTS)[number];

/**
 * A spoken take.
 *
 * @param fault - what spoils its pauses
 * @param seed - any text
 * @param options - level of the noise (plain RMS, dB re full scale) and its corner
 */
export function noisyTake(
  fault: PauseFault,
  seed: string,
  options: { readonly noiseDb?: number; readonly cornerHz?: number | null } = {},
): Float64Array {
  const rms = 10 ** ((options.noiseDb ?? -75) / 20);
  const bits = seededBits(`${seed}/fault`);
  const noise = colouredNoise(SECONDS, rms, options.cornerHz ?? null, `${seed}/noise`);
  const voice = colouredNoise(SECONDS, 0.1, 1500, `${seed}/voice`);
  const speech = samplesOf(voice.length, (i) => voice[i] * envelope(i / RATE));
  const phase = 2 * Math.PI * uniform(bits);
  const period = 5 + 4 * uniform(bits);
  const at = (i: number): number => i / RATE;
  switch (fault) {
    case 'none':
      return samplesOf(speech.length, (i) => speech[i] + noise[i]);
    case 'gated':
      return samplesOf(speech.length, (i) => (sincePhrase(at(i)) > 0.12 ? 0 : speech[i] + noise[i]));
    case 'click': {
      const start = PHRASES[3][1] + 0.7 + uniform(bits);
      const click = colouredNoise(0.03, 10 ** (-50 / 20), null, `${seed}/click`);
      const from = Math.round(start * RATE);
      return samplesOf(speech.length, (i) => speech[i] + noise[i] + (click[i - from] ?? 0));
    }
    case 'breath': {
      const start = PHRASES[3][1] + 0.5;
      const breath = colouredNoise(SECONDS, 3 * rms, null, `${seed}/breath`);
      return samplesOf(speech.length, (i) => {
        const t = at(i) - start;
        return speech[i] + noise[i] + (t > 0 && t < 1.7 ? breath[i] * Math.sin((Math.PI * t) / 1.7) : 0);
      });
    }
    case 'expander-15':
    case 'expander-30': {
      const depth = fault === 'expander-15' ? -15 : -30;
      // Holds for 0.15 s, then closes within 0.1 s.
      const gain = (t: number): number =>
        10 ** ((depth * Math.min(1, Math.max(0, (sincePhrase(t) - 0.15) / 0.1))) / 20);
      return samplesOf(speech.length, (i) => speech[i] + noise[i] * gain(at(i)));
    }
    case 'padding': {
      const dither = colouredNoise(SECONDS, rms * 10 ** (-10.9 / 20), null, `${seed}/dither`);
      const from = PHRASES[3][1] + 0.25;
      return samplesOf(speech.length, (i) => speech[i] + (at(i) > from ? dither[i] : noise[i]));
    }
    case 'reverberation': {
      const room = colouredNoise(SECONDS, 0.1 * 10 ** (-18 / 20), 1500, `${seed}/room`);
      return samplesOf(speech.length, (i) => speech[i] + noise[i] + room[i] * tail(at(i), 2));
    }
    case 'breathing':
      return samplesOf(
        speech.length,
        (i) => speech[i] + noise[i] * 10 ** ((3 * Math.sin((2 * Math.PI * at(i)) / period + phase)) / 20),
      );
    case 'automatic-gain':
      return samplesOf(
        speech.length,
        (i) => speech[i] + noise[i] * 10 ** ((10 * (1 - Math.exp(-sincePhrase(at(i)) / 0.6))) / 20),
      );
  }
}

/** Four syllables a second inside the phrases. */
function envelope(t: number): number {
  const phrase = PHRASES.find(([start, end]) => t >= start && t < end);
  return phrase ? 0.15 + 0.85 * Math.sin(Math.PI * 4 * (t - phrase[0])) ** 2 : 0;
}

/** Seconds since the last phrase ended; 0 inside one, and before the first. */
function sincePhrase(t: number): number {
  const last = PHRASES.findLast(([start]) => start <= t);
  return last ? Math.max(0, t - last[1]) : 0;
}

const tail = (t: number, rt60S: number): number => {
  const since = sincePhrase(t);
  return t < PHRASES[0][0] ? 0 : 10 ** ((-60 * since) / rt60S / 20);
};

/** Samples in a second of all of these. */
export const NOISY_RATE = RATE;
