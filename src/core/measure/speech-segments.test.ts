import { describe, expect, it } from 'vitest';
import { analyse, lcgNoise, mixed, scaled, sine, syllables } from '../testing/signals';
import { speechSegments, type Segment } from './speech-segments';

const PHRASES = [
  [1, 3.5],
  [4.6, 7],
  [8.2, 9.4],
] as const;
const PAUSES = [
  [0, 1],
  [3.5, 4.6],
  [7, 8.2],
  [9.4, 14],
] as const;

/** Share of frames of 20 ms that the detector and the label agree on. */
function hitRate(found: readonly Segment[], labels: readonly (readonly [number, number])[], seconds: number): number {
  const inside = (t: number, list: readonly (readonly [number, number])[]): boolean =>
    list.some(([a, b]) => t >= a && t < b);
  let hits = 0;
  const frames = Math.round(seconds * 50);
  for (let i = 0; i < frames; i++) {
    const t = (i + 0.5) / 50;
    if (
      inside(
        t,
        found.map((s) => [s.startS, s.endS]),
      ) === inside(t, labels)
    )
      hits++;
  }
  return hits / frames;
}

describe('speechSegments on labelled synthetic takes', () => {
  it.each([
    ['a quiet room', -85],
    ['an ordinary room', -65],
    ['a noisy room', -45],
  ])('finds 97 %% of the frames in %s (noise at %i dBFS, speech at −12)', async (_, noiseDb) => {
    const take = mixed(syllables(PHRASES, 14, -12), scaled(lcgNoise(14 * 48_000, 1, 3), noiseDb));
    const { segments } = await analyse([take]);
    expect(hitRate(segments.speech, PHRASES, 14)).toBeGreaterThan(0.97);
    for (const pause of segments.silence) {
      expect(PAUSES.some(([a, b]) => pause.startS >= a - 0.02 && pause.endS <= b + 0.02)).toBe(true);
    }
    expect(segments.silence.at(-1)?.startS).toBeGreaterThanOrEqual(9.4);
    expect(segments.silence.at(-1)?.endS).toBeCloseTo(14, 1);
  });

  it('does not mind a low level', async () => {
    const take = mixed(syllables(PHRASES, 14, -45), scaled(lcgNoise(14 * 48_000, 1, 3), -90));
    expect(hitRate((await analyse([take])).segments.speech, PHRASES, 14)).toBeGreaterThan(0.97);
  });

  it('is not fooled by rumble', async () => {
    const take = mixed(syllables(PHRASES, 14, -20), sine(12, -20, 14));
    expect(hitRate((await analyse([take])).segments.speech, PHRASES, 14)).toBeGreaterThan(0.97);
  });

  it('keeps a knock out of the silence', async () => {
    const take = scaled(lcgNoise(10 * 48_000, 1, 3), -80);
    take.set(scaled(lcgNoise(2400, 1, 4), -20), 5 * 48_000);
    const { speech, silence } = (await analyse([take])).segments;
    expect(speech).toEqual([]);
    expect(silence).toHaveLength(2);
    expect(silence.every((s) => s.endS <= 5 || s.startS >= 5.05)).toBe(true);
  });

  it('calls steady soft noise silence, and a steady tone neither', async () => {
    expect((await analyse([scaled(lcgNoise(5 * 48_000, 1), -60)])).segments).toEqual({
      speech: [],
      silence: [{ startS: 0, endS: 5 }],
      events: [],
    });
    expect((await analyse([sine(440, -12, 5)])).segments).toEqual({ speech: [], silence: [], events: [] });
  });

  it('has nothing to say of nothing', () => {
    expect(speechSegments(new Float64Array())).toEqual({ speech: [], silence: [], events: [] });
  });
});

describe('from frames of 20 ms made by hand', () => {
  /** Loud from 2 to 6 s and from 8 to 12 s, soft at 14 s, in 18 s of quiet. */
  const powers = (soft: number) =>
    Float64Array.from({ length: 900 }, (_, i) => {
      const t = i / 50;
      if ((t >= 2 && t < 6) || (t >= 8 && t < 12)) return 1e-3;
      return t >= 14 && t < 14.6 ? soft : 1e-9;
    });
  const rounded = (list: readonly Segment[]) => list.map((s) => [Math.round(s.startS), Math.round(s.endS)]);

  it('a soft sound is an event, what was said is none, whichever of two phrases it is', () => {
    const { speech, silence, events } = speechSegments(powers(1e-6));
    expect(rounded(speech)).toEqual([
      [2, 6],
      [8, 12],
    ]);
    expect(rounded(events)).toEqual([[14, 15]]);
    expect(silence).toHaveLength(4);
    expect(speechSegments(powers(1e-9)).events).toEqual([]);
    expect(rounded(speechSegments(powers(1e-3)).speech)).toContainEqual([14, 15]);
  });

  /** Levels over time in dB, K-weighted; frames of zeros where `isZero`. */
  const found = (seconds: number, levelDb: (t: number) => number, isZero: (t: number) => boolean = () => false) => {
    const count = Math.round(seconds * 50);
    return speechSegments(
      Float64Array.from({ length: count }, (_, i) => (isZero(i / 50) ? 0 : 10 ** (levelDb(i / 50) / 10))),
      Uint8Array.from({ length: count }, (_, i) => (isZero(i / 50) ? 1 : 0)),
    );
  };
  const exact = (list: readonly Segment[]) => list.map((s) => [s.startS, s.endS].map((v) => Number(v.toFixed(2))));

  it('pasted zeros say nothing of the floor: noise between the words is a pause all the same', () => {
    // A fifth of it zeros; with them the floor would be nothing, and the noise of the room stand far above it.
    const speechAt = (t: number): number => (t % 6 < 3 ? -20 : -60);
    const { speech, silence } = found(18, speechAt, (t) => t < 2 || t >= 16);
    expect(speech.length).toBe(3);
    expect(silence.some((s) => s.startS >= 3 && s.endS <= 6)).toBe(true);
  });

  it('a pause is trimmed by 0.2 s beside sound, and further while its edges stand out of its median', () => {
    const plain = (t: number): number => (t < 3 || t >= 8 ? -20 : -70);
    // Smoothing by 0.1 s takes two frames from either end of it.
    expect(exact(found(11, plain).silence)).toEqual([[3.24, 7.76]]);
    // A tail that falls by 30 dB a second, and a breath before the next word, both below what counts as sound.
    const tail = (t: number): number => (t < 3 || t >= 8 ? -20 : Math.max(-70, t >= 7.5 ? -62 : -48 - 30 * (t - 3)));
    const [[from, to]] = exact(found(11, tail).silence);
    // At −67 dB, 3 dB above the median, it is quiet: 0.63 s after the word.
    expect(from).toBeGreaterThan(3.6);
    expect(from).toBeLessThan(3.7);
    expect(to).toBeGreaterThan(7.42);
    expect(to).toBeLessThan(7.54);
  });

  it('at the edges of the file a pause is not trimmed', () => {
    const { silence } = found(11, (t) => (t < 3 || t >= 8 ? -70 : -20));
    expect(exact(silence)).toEqual([[0, 2.76], [8.24, 11]]); // prettier-ignore
  });

  it('half a second is a pause, less is none; 0.3 s between words belong to the phrase', () => {
    // Trimmed by 0.2 s on either side, and by two frames that smoothing takes.
    const pause = (seconds: number) => found(12, (t) => (t < 2 || (t >= 5 && t < 5 + seconds - 1e-9) ? -70 : -20));
    expect(exact(pause(0.96).silence)).toEqual([[0, 1.76]]);
    expect(exact(pause(0.98).silence)[1]).toEqual([5.24, 5.74]);
    expect(exact(pause(0.36).speech)).toEqual([[1.96, 12]]);
    expect(pause(0.4).speech.length).toBe(2);
  });

  it('0.15 s of sound is speech, less is an event', () => {
    const word = (seconds: number) => found(12, (t) => (t < 3 || (t >= 6 && t < 6 + seconds - 1e-9) ? -20 : -70));
    // Smoothing adds two frames on either side.
    expect(word(0.06).speech.length).toBe(1);
    expect(exact(word(0.06).events)).toEqual([[5.96, 6.1]]);
    expect(exact(word(0.08).speech)[1]).toEqual([5.96, 6.12]);
    expect(word(0.08).events).toEqual([]);
  });

  it('a steady clip is silence where it is soft', () => {
    const steady = (db: number) => found(6, (t) => db + (Math.floor(t * 50) % 2 === 0 ? 1 : -1));
    expect(exact(steady(-40).silence)).toEqual([[0, 6]]);
    expect(steady(-30)).toEqual({ speech: [], silence: [], events: [] });
  });
});
