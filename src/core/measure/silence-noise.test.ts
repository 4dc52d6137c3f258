import { describe, expect, it } from 'vitest';
import { A_TOTAL, VALUES_PER_FRAME, Z_TOTAL } from '../dsp/band-power-frames';
import { THIRD_OCTAVE_BANDS } from '../dsp/third-octave-bands';
import { silenceMeasurements, silenceNoise, type NoiseInput } from './silence-noise';

const RATE = 48_000;
const LENGTH = 16_384;
const HOP_S = LENGTH / 2 / RATE;
const AT = THIRD_OCTAVE_BANDS.findIndex((b) => b.nominalHz === 1000);

/** Frames of a clip whose noise, all of it about 1 kHz, has a level over time; dB re full scale, mean squares. */
function clip(
  seconds: number,
  levelDb: (t: number) => number,
  zeros: (t: number) => boolean = () => false,
): NoiseInput {
  const power = (t: number): number => (zeros(t) ? 0 : 10 ** (levelDb(t) / 10));
  const frames = Math.floor(seconds / HOP_S) - 1;
  const bandFrames = new Float64Array(frames * VALUES_PER_FRAME);
  for (let f = 0; f < frames; f++)
    for (const at of [AT, Z_TOTAL, A_TOTAL]) bandFrames[f * VALUES_PER_FRAME + at] = power((f + 1) * HOP_S);
  const count = Math.floor(seconds * 50);
  return {
    ...{ bandFrames, frameLength: LENGTH, sampleRate: RATE, bits: 24 },
    // A scatter of a third of a decibel: a level without any would make every change a disturbance.
    framePowers: Float64Array.from(
      { length: count },
      (_, i) => power(i / 50) * 10 ** ((i % 2 === 0 ? 0.03 : -0.03) / 2),
    ),
    isZeroFrame: Uint8Array.from({ length: count }, (_, i) => (zeros(i / 50) ? 1 : 0)),
  };
}

/** Words from 0 to 3 s and from 7 to 10 s; 4 s of pause behind either, less what is trimmed. */
const PAUSES = [
  { startS: 3.2, endS: 6.8 },
  { startS: 10.2, endS: 13.8 },
];
const since = (t: number): number | null => (t >= 3 && t < 7 ? t - 3 : t >= 10 && t < 14 ? t - 10 : null);
const spoken = (pause: (sinceS: number) => number) =>
  clip(14.4, (t) => {
    const inPause = since(t);
    return inPause === null ? -20 : pause(inPause);
  });
/** AES17 dBFS of a mean square in dB: a full-scale sine is 0. */
const dbfs = (meanSquareDb: number): number => meanSquareDb + 10 * Math.log10(2);

describe('noise of pauses made by hand', () => {
  it('is the mean power of their frames, over as many seconds as they last', () => {
    const noise = silenceNoise(
      spoken(() => -80),
      PAUSES,
    );
    expect(noise?.a.levelDbfs).toBeCloseTo(dbfs(-80), 9);
    expect(noise?.z.levelDbfs).toBeCloseTo(dbfs(-80), 9);
    expect(noise).toMatchObject({ pauses: 2, bound: 'exact', refused: null, findings: [], highHz: 20_000 });
    expect(noise?.seconds).toBeCloseTo(7.2, 9);
    expect(noise?.thirdOctave[AT].levelDbfs).toBeCloseTo(dbfs(-80), 9);
    expect(noise?.thirdOctave[AT + 1].levelDbfs).toBeNull();
    const [z, a] = silenceMeasurements(noise);
    expect([z.quantity, a.quantity]).toEqual(['silenceRmsZ', 'silenceRmsA']);
    expect(a.condition).toMatch(/A-weighted, .*2 pauses of 7\.2 s/);
  });

  it('that still falls is at most what the end of each pause says', () => {
    // 9 dB in 4 s: over the middle of the thirds of 3.6 s, 5.4 dB.
    const noise = silenceNoise(
      spoken((s) => -70 - 2.25 * s),
      PAUSES,
    );
    expect(noise?.bound).toBe('at-most');
    expect(noise?.findings).toEqual([{ kind: 'room-tail', text: expect.stringMatching(/^the level still falls in the pauses, by 5\.[2-6] dB: tail of the room$/) as string }]); // prettier-ignore
    // Read at the last whole frame, whose middle lies less than a frame before the end of the pause.
    const [latest, earliest] = [3.8 - HOP_S, 3.8 - 2.1 * HOP_S].map((s) => dbfs(-70 - 2.25 * s));
    expect(noise?.a.levelDbfs).toBeGreaterThan(latest - 0.01);
    expect(noise?.a.levelDbfs).toBeLessThan(earliest);
  });

  it('that rises is at most what the beginning says, and half as unsure as it rises', () => {
    const noise = silenceNoise(
      spoken((s) => -80 + 2.25 * s),
      PAUSES,
    );
    expect(noise?.bound).toBe('at-most');
    expect(noise?.findings).toEqual([{ kind: 'automatic-gain', text: expect.stringMatching(/^the level rises in the pauses, by 5\.[2-6] dB: automatic gain\?$/) as string }]); // prettier-ignore
    const [soonest, latest] = [0.2 + HOP_S, 0.2 + 2.1 * HOP_S].map((s) => dbfs(-80 + 2.25 * s));
    expect(noise?.a.levelDbfs).toBeGreaterThan(soonest - 0.01);
    expect(noise?.a.levelDbfs).toBeLessThan(latest);
    expect(noise?.a.uncertaintyDb).toBeGreaterThan(5.2 / 2);
    expect(noise?.a.uncertaintyDb).toBeLessThan(3.2);
  });

  it('leaves out a click in a pause, and says where it was', () => {
    const noise = silenceNoise(
      spoken((s) => (s >= 2 && s < 2.04 ? -50 : -80)),
      PAUSES,
    );
    expect(noise?.a.levelDbfs).toBeCloseTo(dbfs(-80), 9);
    expect(noise?.findings).toEqual([{ kind: 'click', text: 'click in a pause at 5.0 s, 12.0 s, left out' }]);
    expect(noise?.segment.endS).toBeLessThan(5);
    // Where nothing is left without it, it is what there is.
    const short = [{ startS: 4.8, endS: 5.3 }];
    expect(
      silenceNoise(
        spoken((s) => (s >= 2 && s < 2.04 ? -50 : -80)),
        short,
      )?.a.levelDbfs,
    ).not.toBeNaN();
  });

  it('says where the pauses differ, and is as unsure as that', () => {
    const differs = (byDb: number) =>
      silenceNoise(
        clip(14.4, (t) => (since(t) === null ? -20 : t < 7 ? -80 : -80 + byDb)),
        PAUSES,
      );
    expect(differs(2)?.findings).toEqual([]);
    expect(differs(4)?.findings).toEqual([{ kind: 'unsteady', text: 'the pauses differ by 4.0 dB' }]);
    // Six seconds, three of them 4 dB higher: 2.191 dB over √6, widened by Student's t for six, 2.571 / 2.
    expect((differs(4)?.a.uncertaintyDb ?? 0) / ((2.191 / Math.sqrt(6)) * (2.571 / 2))).toBeCloseTo(1, 1);
    expect(differs(0)?.a.uncertaintyDb).toBeLessThan(0.15);
  });

  it('has no figure where a pause is digital silence, but leaves out zeros at the edges of the file', () => {
    const zeros = (from: number, to: number) =>
      silenceNoise(clip(14.4, (t) => (since(t) === null ? -20 : -80), (t) => t >= from && t < to), PAUSES); // prettier-ignore
    expect(zeros(4, 5)).toMatchObject({ refused: expect.stringMatching(/digital silence/) as string, pauses: 0 });
    const edge = silenceNoise(
      clip(14, (t) => (since(t) === null ? -20 : -80), (t) => t >= 10), // prettier-ignore
      [PAUSES[0], { startS: 10.2, endS: 14 }],
    );
    expect(edge?.a.levelDbfs).toBeCloseTo(dbfs(-80), 9);
    expect(edge?.findings).toEqual([{ kind: 'padding', text: 'digital silence at the edge of the file was left out' }]);
    expect(
      silenceNoise(
        spoken(() => -80),
        [],
      ),
    ).toBeNull();
  });

  it('leaves out a pause with a breath all through it, where most have none', () => {
    const breaths = (t: number) => (since(t) === null ? -20 : t > 10 ? -70 : -80);
    const three = [{ startS: 3.2, endS: 4.7 }, { startS: 5, endS: 6.8 }, { startS: 10.2, endS: 11.8 }]; // prettier-ignore
    const noise = silenceNoise(clip(14.4, breaths), three);
    expect(noise?.findings).toEqual([{ kind: 'sound', text: '1 of 3 pauses up to 10.0 dB louder (breath?), left out' }]); // prettier-ignore
    expect([noise?.pauses, noise?.a.levelDbfs]).toEqual([2, expect.closeTo(dbfs(-80), 9)]);
    // Half of the time is no exception: then the pauses differ.
    expect(silenceNoise(clip(14.4, breaths), PAUSES)?.findings[0]).toMatchObject({ kind: 'unsteady' });
  });

  it('leaves out an edge that was pasted, and says by how much it is quieter', () => {
    const faded = (t: number) => (since(t) === null ? -20 : t > 10 ? -95 : -80);
    const noise = silenceNoise(clip(12.2, faded), [PAUSES[0], { startS: 10.2, endS: 12.2 }]);
    expect(noise?.findings).toEqual([{ kind: 'padding', text: 'the edge of the file is 15.0 dB quieter than the pauses between the words (pasted or faded?), left out' }]); // prettier-ignore
    expect([noise?.pauses, noise?.a.levelDbfs]).toEqual([1, expect.closeTo(dbfs(-80), 9)]);
  });

  it('is a figure where a gate was seen behind fewer than half of the words, and none behind half of them', () => {
    const pauses = [0, 7, 14, 21].map((at) => ({ startS: at + 3.2, endS: at + 6.8 }));
    // Words for 3 s, 4 s of pause, four times; a gate that closes by 15 dB after a quarter of a second behind some.
    const gatedBehind = (some: readonly number[]) =>
      silenceNoise(
        clip(28.4, (t) => {
          const [phrase, sinceS] = [Math.floor(t / 7), (t % 7) - 3];
          if (sinceS < 0 || phrase > 3) return -20;
          return some.includes(phrase) && sinceS < 0.25 ? -60 : -75;
        }),
        pauses,
      );
    expect(gatedBehind([1])).toMatchObject({ refused: null, bound: 'at-least' });
    expect(gatedBehind([1])?.findings.map((f) => f.kind)).toContain('gate');
    expect(gatedBehind([0, 2])?.refused).toMatch(/^The noise falls by 1[45]\.\d dB after the words/);
  });

  it('is at least what a gate leaves, and none where it closes by more than 10 dB', () => {
    const gated = (byDb: number) =>
      silenceNoise(
        spoken((s) => (s < 0.5 ? -70 : -70 - byDb)),
        PAUSES,
      );
    expect(gated(8)).toMatchObject({ bound: 'at-least', refused: null });
    expect(gated(8)?.findings).toContainEqual({ kind: 'gate', text: expect.stringMatching(/^the noise falls by (7\.[89]|8\.[01]) dB after the words: gate or expander$/) as string }); // prettier-ignore
    expect(gated(15)?.refused).toMatch(
      /^The noise falls by (14\.[89]|15\.[01]) dB after the words: a gate or an expander hides it\.$/,
    );
    expect(silenceMeasurements(gated(15))[1]).toMatchObject({ value: null, notMeasured: gated(15)?.refused });
    expect(gated(5)?.bound).toBe('exact');
    // Of pauses that differ, by the one that falls furthest.
    const uneven = (s: number, t: number) => (s < 0.5 ? -70 : t > 8 ? -79 : -76.5);
    expect(silenceNoise(clip(14, (t) => (since(t) === null ? -20 : uneven(since(t) ?? 0, t))), PAUSES)?.findings).toContainEqual({ kind: 'gate', text: expect.stringMatching(/^the noise falls by (8\.9|9\.[01]) dB/) as string }); // prettier-ignore
  });

  it('leaves out a longer sound, and tells at most three places', () => {
    const sounds = silenceNoise(
      spoken((s) => (s >= 1 && s < 1.3 ? -60 : -80)),
      PAUSES,
    );
    expect(sounds?.findings).toEqual([{ kind: 'sound', text: 'a sound in a pause at 4.0 s, 11.0 s, left out' }]);
    const often = silenceNoise(
      spoken((s) => (s % 1 >= 0.5 && s % 1 < 0.54 ? -60 : -80)),
      PAUSES,
    );
    expect(often?.findings[0].text).toBe('click in a pause at 3.5 s, 4.5 s, 5.5 s …, left out');
  });

  it('below the steps of the format is none', () => {
    const at16 = (db: number) => silenceNoise({ ...spoken(() => db), bits: 16 }, PAUSES)?.refused ?? null;
    // 16 bits round with 2^−30/12, −101.1 dB; half of what of it lies below 20 kHz is −104.9 dB.
    expect(at16(-106)).toMatch(/below what 16 bits can hold/);
    expect(at16(-104)).toBeNull();
  });

  it('counts the seconds of the pauses that count, and says how many they are', () => {
    const one = silenceNoise(spoken(() => -80), [PAUSES[0]]); // prettier-ignore
    expect([one?.pauses, one?.seconds]).toEqual([1, expect.closeTo(3.6, 9)]);
    expect(silenceMeasurements(one)[1].condition).toContain('one pause of 3.6 s');
    expect(silenceMeasurements(one)[1].settings).toEqual({ startS: 3.2, endS: 6.8, highHz: 20_000 });
    const clicked = silenceNoise(spoken((s) => (s >= 2 && s < 2.04 ? -50 : -80)), PAUSES); // prettier-ignore
    expect(silenceMeasurements(clicked)[0].settings.findings).toBe('click in a pause at 5.0 s, 12.0 s, left out');
  });

  it('three clicks are told one by one', () => {
    const three = silenceNoise(spoken((s) => ([0.5, 1.5, 2.5].some((c) => s >= c && s < c + 0.04) ? -60 : -80)), [PAUSES[0]]); // prettier-ignore
    expect(three?.findings[0].text).toBe('click in a pause at 3.5 s, 4.5 s, 5.5 s, left out');
  });

  it('looks for lines where no click is near: 0.3 s before and behind it, half a second at least', () => {
    const clicked = (at: number, pause: readonly [number, number]) =>
      silenceNoise(spoken((s) => (s >= at && s < at + 0.04 ? -50 : -80)), [{ startS: pause[0], endS: pause[1] }])?.segment; // prettier-ignore
    expect(clicked(1, [3.2, 6.8])).toEqual({ startS: expect.closeTo(4.34, 9) as number, endS: 6.8 });
    expect(clicked(3, [3.2, 6.8])).toEqual({ startS: 3.2, endS: expect.closeTo(5.7, 9) as number });
    // Nothing of half a second is left: then the whole pause.
    expect(clicked(1, [3.5, 4.7])).toEqual({ startS: 3.5, endS: 4.7 });
  });

  it('has the K-weighted power of what is undisturbed, to be taken off speech', () => {
    const clean = silenceNoise(spoken(() => -80), PAUSES)?.kMeanSquare ?? NaN; // prettier-ignore
    expect(10 * Math.log10(clean)).toBeCloseTo(-80, 2);
    const clicked = silenceNoise(spoken((s) => (s >= 2 && s < 2.04 ? -50 : -80)), PAUSES)?.kMeanSquare ?? NaN; // prettier-ignore
    expect(clicked / clean).toBeCloseTo(1, 2);
  });

  it('a room that breathes, down in one pause and up in the other, has no tail and no automatic gain', () => {
    const course = (first: number, second: number) =>
      silenceNoise(clip(14.4, (t) => { const s = since(t); return s === null ? -20 : -75 + (t < 7 ? first : second) * (s - 2); }), PAUSES); // prettier-ignore
    const kinds = (noise: ReturnType<typeof silenceNoise>) => [noise?.bound, ...(noise?.findings.map((f) => f.kind) ?? [])]; // prettier-ignore
    expect(kinds(course(-2.25, -2.25))).toEqual(['at-most', 'room-tail']);
    expect(kinds(course(2.25, 2.25))).toEqual(['at-most', 'automatic-gain']);
    expect(kinds(course(-2.25, 2.25))).toEqual(['exact']);
    expect(kinds(course(2.25, -2.25))).toEqual(['exact']);
    // Where one goes and the other stands, half of the time goes: neither.
    expect(kinds(course(-2.25, 0))[0]).toBe(kinds(course(0, -2.25))[0]);
  });

  it('says of how many frames, and how long, the scatter is', () => {
    const noise = silenceNoise(spoken(() => -80), [PAUSES[0]]); // prettier-ignore
    // Frames 19 to 37: the first begins at 3.24 s, the last one ends at 6.66 s.
    expect(noise?.a.spread).toMatchObject({ count: 19, of: 'frames of 341 ms at 50 % overlap' });
    expect(noise?.a.spread?.sd).toBeCloseTo(0, 9);
  });

  it('at a rate that holds less than 20 kHz, counts all of the rounding noise', () => {
    // 16 bits at 32 kHz: all of −101.1 dB lies in the band, half of it is −104.1 dB.
    const at = (db: number) => silenceNoise({ ...spoken(() => db), sampleRate: 32_000, bits: 16 }, [{ startS: 4.9, endS: 10 }])?.refused ?? null; // prettier-ignore
    expect(at(-104.4)).toMatch(/below what 16 bits can hold/);
    expect(at(-103.8)).toBeNull();
  });
});
