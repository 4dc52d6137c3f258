import { describe, expect, it } from 'vitest';
import { sibilance } from './sibilance';

/** Frames of an eighth of a second; two numbers each, body and hiss: what their ratio is in dB, at a level in dB. */
const FRAME_S = 0.125;
const frames = (list: readonly (readonly [ratioDb: number, levelDb: number])[]): Float64Array =>
  Float64Array.from(list.flatMap(([ratio, level]) => [10 ** (level / 10), 10 ** ((level + ratio) / 10)]));
/** Loud enough on either side of the speech to show where they are counted by mistake. */
const HISS = [20, -10] as const;
const VOWEL = [-20, -10] as const;

describe('sibilance from frames made by hand', () => {
  // Speech from 1 s to 2 s holds the frames 8 … 15, and nothing on either side of them.
  const ratios = [-5, -4, 0, 2, 4, 6];
  const inside = [VOWEL, ...ratios.map((r) => [r, -12] as const), VOWEL];
  const take = [...Array.from({ length: 8 }, () => HISS), ...inside, HISS, HISS];

  it('is the 90th percentile of the fricatives inside the speech', () => {
    const figure = sibilance(frames(take), FRAME_S, [{ startS: 1, endS: 2 }]);
    // Type 7 of Hyndman & Fan: between the fifth and the sixth of six, at 0.9 · 5 = 4.5.
    expect(figure.value).toBeCloseTo(5, 9);
    expect(figure.settings).toEqual({ fricativeFrames: 6, fricatives: 1 });
    expect(figure.spread?.count).toBe(6);
    const middle = ratios.reduce((s, r) => s + r, 0) / 6;
    const sd = Math.sqrt(ratios.reduce((s, r) => s + (r - middle) ** 2, 0) / 5);
    expect(figure.spread?.sd).toBeCloseTo(sd, 9);
    expect(figure.uncertainty).toBeCloseTo((sd * 0.3) / 0.1755, 9);
  });

  it('takes frames that lie wholly inside the speech, and no more than there are', () => {
    const within = (startS: number, endS: number) => sibilance(frames(take), FRAME_S, [{ startS, endS }]).settings;
    expect(within(0.95, 2.05)).toEqual({ fricativeFrames: 6, fricatives: 1 });
    expect(within(1.126, 2)).toEqual({ fricativeFrames: 5, fricatives: 1 });
    expect(within(1, 1.75)).toEqual({ fricativeFrames: 5, fricatives: 1 });
    // Speech that goes on behind the last frame: the two loud ones count, too.
    expect(within(1, 9)).toEqual({ fricativeFrames: 8, fricatives: 1 });
  });

  it('counts fricatives, not frames: one more than two frames on is another one', () => {
    const [s, v] = [[3, -12] as const, VOWEL];
    const sounds = (list: readonly (readonly [number, number])[]) =>
      sibilance(frames(list), FRAME_S, [{ startS: 0, endS: 9 }]).settings['fricatives'];
    expect(sounds([s, s, v, s, s, s])).toBe(1);
    expect(sounds([s, s, v, v, s, s, s])).toBe(2);
  });

  it('is surer of several fricatives than of one as long', () => {
    const u = (list: readonly (readonly [number, number])[]) =>
      sibilance(frames(list), FRAME_S, [{ startS: 0, endS: 9 }]).uncertainty ?? NaN;
    const [s, t, v] = [[3, -12] as const, [1, -12] as const, VOWEL];
    expect(u([s, t, s, t, s, t]) / u([s, t, s, v, v, t, s, t])).toBeCloseTo(Math.SQRT2, 6);
    // In whatever order they come.
    expect(sibilance(frames([t, s, s, s, t, t, s]), FRAME_S, [{ startS: 0, endS: 9 }]).value).toBeCloseTo(3, 9);
    expect(sibilance(frames([s, t, t, t, t, t, t]), FRAME_S, [{ startS: 0, endS: 9 }]).value).toBeCloseTo(1.8, 9);
  });

  it('leaves out what is 35 dB below the loud frames, whatever its balance', () => {
    const loud = Array.from({ length: 10 }, () => [3, -12] as const);
    const faint = (level: number) => [...loud, [3, level], [3, level]] as (readonly [number, number])[];
    const count = (level: number) =>
      sibilance(frames(faint(level)), FRAME_S, [{ startS: 0, endS: 9 }]).settings['fricativeFrames'];
    expect([count(-46), count(-48)]).toEqual([12, 10]);
  });

  it('says why there is none', () => {
    const all = [{ startS: 0, endS: 9 }];
    expect(sibilance(frames(take), FRAME_S, []).notMeasured).toMatch(/No speech/);
    expect(sibilance(frames([[NaN, -10]]), FRAME_S, all).notMeasured).toMatch(/sample rate is too low/);
    expect(sibilance(frames([HISS, HISS, HISS, HISS, VOWEL]), FRAME_S, all).notMeasured).toMatch(/Too few/);
    expect(sibilance(frames([HISS, HISS, HISS, HISS, HISS]), FRAME_S, all).value).toBeCloseTo(20, 9);
  });
});
