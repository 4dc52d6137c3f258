import { describe, expect, it } from 'vitest';
import { THIRD_OCTAVE_BANDS } from '../dsp/third-octave-bands';
import { tonalChange, tonalClass, tonalWords, type ChangePoint } from './tonal-change';

/** Points of 1/12 octave from 20 Hz to 20 kHz that follow a curve. */
const curve = (db: (hz: number) => number, u = 0.1): ChangePoint[] =>
  Array.from({ length: 120 }, (_, i) => 20 * 2 ** (i / 12)).map((hz) => ({ hz, db: db(hz), u }));
const at = (change: ReturnType<typeof tonalChange>, hz: number) => change?.bands.find((b) => b.hz === hz);

describe('what a part does to the sound, by third octaves', () => {
  it('is the mean in decibels of the points of a band, with the middle at zero', () => {
    const change = tonalChange(curve((hz) => (hz < 1100 ? 3 : 6)));
    // 500, 630, 800 and 1,000 Hz at 3 dB, 1,250, 1,600 and 2,000 Hz at 6 dB; 1.1 kHz lies near the edge at 1,122 Hz.
    const inside = curve(() => 0).filter((p) => p.hz >= 891.3 && p.hz < 1122).map((p) => (p.hz < 1100 ? 3 : 6)); // prettier-ignore
    const band1k = inside.reduce((s, d) => s + d, 0) / inside.length;
    const middle = (3 * 3 + band1k + 3 * 6) / 7;
    expect(change?.levelDb).toBeCloseTo(middle, 9);
    expect(at(change, 1000)?.db).toBeCloseTo(band1k - middle, 9);
    expect(at(change, 100)?.db).toBeCloseTo(3 - middle, 9);
    expect(at(change, 8000)?.db).toBeCloseTo(6 - middle, 9);
  });

  it('is as unsure in a band as its points are together', () => {
    const change = tonalChange(curve(() => 0).map((p, i) => ({ ...p, u: i % 2 === 0 ? 0.3 : 0.1 })));
    // Four points to a band, two of each.
    expect(at(change, 1000)?.u).toBeCloseTo(Math.sqrt((0.09 + 0.01) / 2), 9);
  });

  it('leaves out bands of fewer than three points, and says nothing without the middle', () => {
    const { lowHz, highHz } = THIRD_OCTAVE_BANDS.find((b) => b.nominalHz === 100) ?? { lowHz: 0, highHz: 0 };
    const inBand = (p: ChangePoint): boolean => p.hz >= lowHz && p.hz < highHz;
    const points = curve(() => 0);
    const [first, second, third] = points.filter(inBand);
    const rest = points.filter((p) => !inBand(p));
    expect(at(tonalChange([...rest, first, second]), 100)).toBeUndefined();
    expect(at(tonalChange([...rest, first, second, third]), 100)?.db).toBe(0);
    // Four of the seven bands from 500 Hz to 2 kHz are enough, three are not.
    expect(tonalChange(points.filter((p) => p.hz < 1120))?.levelDb).toBe(0);
    expect(tonalChange(points.filter((p) => p.hz < 890))).toBeNull();
  });

  it('takes the largest change, up or down, at 63 Hz to 12.5 kHz', () => {
    const bump = (centre: number, db: number) => (hz: number) => (Math.abs(Math.log2(hz / centre)) < 1 / 6 ? db : 0);
    const both = (hz: number): number => bump(4000, 3)(hz) + bump(100, -5)(hz) + bump(16_000, 9)(hz) + bump(40, 9)(hz);
    expect(tonalChange(curve(both))?.largest).toMatchObject({ hz: 100, db: -5 });
    for (const [edge, db] of [
      [63, 2],
      [12_500, -2],
    ] as const)
      expect(tonalChange(curve(bump(edge, db)))?.largest.hz, `${edge} Hz`).toBe(edge);
    for (const beyond of [50, 16_000])
      expect(tonalChange(curve(bump(beyond, 4)))?.largest.hz, `${beyond} Hz`).not.toBe(beyond);
  });
});

describe('the word for it', () => {
  const largest = (db: number, u: number) => tonalClass({ largest: { hz: 1000, db, u } });

  it('is said where 1 dB is surely kept, or surely passed', () => {
    expect([largest(0.8, 0.1), largest(-0.8, 0.1), largest(0.75, 0.125)]).toEqual(['transparent', 'transparent', 'transparent']); // prettier-ignore
    expect([largest(0.8, 0.11), largest(1, 0), largest(1.2, 0.1), largest(-1.1, 0.06)]).toEqual(['undecided', 'transparent', 'undecided', 'undecided']); // prettier-ignore
    expect([largest(1.3, 0.1), largest(-1.3, 0.1), largest(1.01, 0)]).toEqual(['coloured', 'coloured', 'coloured']);
  });

  const bands = (changes: Readonly<Record<number, number>>, u = 0.1) => ({
    bands: THIRD_OCTAVE_BANDS.map(({ nominalHz }) => ({ hz: nominalHz, db: changes[nominalHz] ?? 0, u })),
  });

  it('names regions by the mean of their bands, more or less', () => {
    expect(tonalWords(bands({ 125: -1, 160: -2, 200: -1, 250: -2, 315: -1.5 }))).toBe('the lows 1.5 dB less');
    expect(tonalWords(bands({ 50: 3, 63: 3, 80: 3, 100: 3 }))).toBe('the lowest end 3.0 dB more');
    expect(tonalWords(bands({ 2500: 2, 3150: 2, 4000: 2, 5000: 2, 6300: -4, 8000: -4, 10_000: -4, 12_500: -4 }))).toBe(
      'the presence 2.0 dB more, the top 4.0 dB less',
    );
  });

  it('leaves out what is less than half a decibel, less than twice its ±, or between regions', () => {
    const none = 'no region changes by more than can be told';
    const lows = (db: number) => ({ 125: db, 160: db, 200: db, 250: db, 315: db });
    expect([tonalWords(bands(lows(0.49))), tonalWords(bands({ 1000: 6, 500: -6 }))]).toEqual([none, none]);
    expect(tonalWords(bands(lows(0.5)))).toBe('the lows 0.5 dB more');
    expect([tonalWords(bands(lows(0.9), 0.5)), tonalWords(bands(lows(1.1), 0.5))]).toEqual([none, 'the lows 1.1 dB more']); // prettier-ignore
    // One band of five that is unsure makes the region unsure.
    const unsure = bands(lows(1.1)).bands.map((b) => (b.hz === 200 ? { ...b, u: 0.6 } : b));
    expect(tonalWords({ bands: unsure })).toBe(none);
    expect(tonalWords({ bands: [] })).toBe(none);
  });
});
