import { describe, expect, it } from 'vitest';
import { BiquadCascade, type cascadeGainDb } from '../dsp/biquad';
import { highPass, lowPass } from '../dsp/eq-biquads';
import { lcgNoise, mixed, scaled, sine, syllables, analyse } from '../testing/signals';
import type { Segment } from './speech-segments';

// Labelled synthetic takes: speech of known times over what studios and desks add to it. The hit rate is the share of
// the clip's time in which speech and not-speech are told right; what the detector may miss are the edges of phrases.

const RATE = 48_000;
const SECONDS = 14;
const PHRASES = [
  [1, 3.1],
  [4.2, 5.9],
  [7, 9.3],
  [10.6, 12.4],
] as const;
/** Brings a signal to an RMS level (plain, in dB) over those samples that are not zero. */
const atLevel = (signal: Float64Array, level: number): Float64Array => {
  const heard = signal.filter((x) => x !== 0);
  const rms = Math.sqrt(heard.reduce((s, x) => s + x * x, 0) / heard.length);
  return signal.map((x) => (x / rms) * 10 ** (level / 20));
};
const shaped = (signal: Float64Array, ...sections: Parameters<typeof cascadeGainDb>[0]): Float64Array => {
  new BiquadCascade(sections).process(signal);
  return signal;
};
const SPEECH_DB = -22;
const noise = (level: number, seed = 5): Float64Array => atLevel(lcgNoise(SECONDS * RATE, 1, seed), level);
/** Speech is strongest at 200–800 Hz. */
const speech = atLevel(
  syllables(PHRASES, SECONDS, 0, RATE, 17).map((x, i, all) => (x === 0 ? 0 : 0.6 * x + 0.4 * (all[i - 1] ?? 0))),
  SPEECH_DB,
);
const rumble = (level: number): Float64Array =>
  atLevel(shaped(noise(0, 6), lowPass(RATE, 120), highPass(RATE, 20)), level);
/** Chords that change every 0.6 s and die away by 8 dB until the next. */
const music = (level: number): Float64Array => {
  const chords = [
    [220, 277, 330],
    [247, 311, 370],
    [196, 247, 294],
  ];
  const all = chords.map((chord) => chord.map((hz) => sine(hz, 0, SECONDS)).reduce(mixed));
  const played = all[0].map((_, i) => {
    const t = i / RATE;
    return all[Math.floor(t / 0.6) % 3][i] * 10 ** ((-8 * (t % 0.6)) / 0.6 / 20);
  });
  return atLevel(played, level);
};
/** A breath of 0.4 s before each phrase. */
const breaths = (level: number): Float64Array => {
  const hiss = shaped(noise(0, 8), highPass(RATE, 700));
  const breathed = hiss.map((x, i) => {
    const start = PHRASES.map(([from]) => from - 0.55).find((from) => i / RATE > from && i / RATE < from + 0.4);
    return start === undefined ? 0 : x * Math.sin((Math.PI * (i / RATE - start)) / 0.4);
  });
  return atLevel(breathed, level);
};
const mix = (...parts: readonly Float64Array[]): Float64Array => parts.reduce(mixed);

function hitRate(found: readonly Segment[]): number {
  const step = 0.01;
  let right = 0;
  for (let t = step / 2; t < SECONDS; t += step) {
    const isSpeech = PHRASES.some(([a, b]) => t >= a && t < b);
    const isFound = found.some((s) => t >= s.startS && t < s.endS);
    if (isSpeech === isFound) right++;
  }
  return right / (SECONDS / step);
}

describe('speech is told from', () => {
  it.each([
    ['silence', mix(speech, noise(-90)), 0.96],
    ['the noise of a room 20 dB under it', mix(speech, noise(-42)), 0.94],
    ['rumble as loud as itself', mix(speech, rumble(-22), noise(-70)), 0.94],
    ['breathing 26 dB under it', mix(speech, breaths(-48), noise(-85)), 0.96],
    ['music 18 dB under it', mix(speech, music(-40), noise(-85)), 0.92],
    ['all but the music, and 40 dB lower', scaled(mix(speech, breaths(-48), rumble(-40), noise(-70)), -40), 0.94],
  ])('%s', async (_, take, least) => {
    const { segments } = await analyse([take]);
    const rate = hitRate(segments.speech);
    expect(rate, `hit rate ${rate.toFixed(3)}`).toBeGreaterThanOrEqual(least);
  });

  it('breaths and knocks are events, and stay out of the silence that is measured', async () => {
    const knocked = mix(speech, breaths(-48), noise(-85));
    for (let i = 0; i < 1200; i++) knocked[Math.round(6.2 * RATE) + i] += 0.03 * Math.sin(i / 20) * (1 - i / 1200);
    const { segments, noise: pause } = await analyse([knocked]);
    expect(segments.events.length).toBeGreaterThanOrEqual(4);
    expect(segments.events.some((e) => e.startS < 6.22 && e.endS > 6.2)).toBe(true);
    // White noise, AES17 adds 3 dB; 20 kHz of 24 kHz in band.
    const expected = -85 + 3.01 + 10 * Math.log10(19_980 / 24_000);
    expect(Math.abs((pause?.z.levelDbfs ?? 0) - expected)).toBeLessThan(1);
  });
});
