import { describe, expect, it } from 'vitest';
import { plosiveMeasurement, plosives } from './plosives';

/** Ten seconds of frames of 20 ms at 20–120 Hz, 0.001 all along, with peaks at some moments; speech from 2 to 8 s. */
const SPEECH = [{ startS: 2, endS: 8 }];
const db = (value: number): number => 20 * Math.log10(value);
const frames = (bursts: Readonly<Record<number, number>>): Float64Array => {
  const made = new Float64Array(500).fill(1e-3);
  for (const [at, aboveDb] of Object.entries(bursts)) made[Math.round(Number(at) * 50)] = 1e-3 * 10 ** (aboveDb / 20);
  return made;
};
const at = (bursts: Readonly<Record<number, number>>, speech = SPEECH) =>
  plosives(frames(bursts), speech).map((p) => p.atS);

describe('puffs of air', () => {
  it('stand 12 dB above the median of their band, and come up by 9 dB within a few frames', () => {
    const [found, ...rest] = plosives(frames({ 5: 20 }), SPEECH);
    expect(rest).toEqual([]);
    expect(found.atS).toBe(5);
    expect(found.peakDbfs).toBeCloseTo(db(1e-3) + 20, 9);
    expect([at({ 5: 11.9 }), at({ 5: 12.1 })]).toEqual([[], [5]]);
    // A deep voice comes up slowly: by 8 dB in four frames, from what was there before.
    const slow = frames({ 4.88: 4, 4.9: 8, 4.92: 12, 4.94: 14, 4.96: 16, 4.98: 18, 5: 20 });
    expect(plosives(slow, SPEECH)).toEqual([]);
    const sudden = frames({ 4.94: 10.9, 4.96: 14, 4.98: 17, 5: 20 });
    sudden.fill(1e-3 * 10 ** (10.9 / 20), 243, 247);
    expect(plosives(sudden, SPEECH).map((p) => p.atS)).toEqual([5]);
  });

  it('nearer than 0.12 s are one', () => {
    expect([at({ 5: 20, 5.1: 20 }), at({ 5: 20, 5.12: 20 })]).toEqual([[5], [5, 5.12]]);
  });

  it('count while somebody speaks, or as the words begin', () => {
    expect(at({ 1: 20, 9: 20 })).toEqual([]);
    expect([at({ 1.86: 20 }), at({ 1.88: 20 })]).toEqual([[], [1.88]]);
    expect([at({ 7.98: 20 }), at({ 8: 20 })]).toEqual([[7.98], []]);
    // Of two phrases close together it is told once.
    expect(at({ 4.96: 20 }, [{ startS: 2, endS: 4.98 }, { startS: 5, endS: 8 }])).toEqual([4.96]); // prettier-ignore
    expect(at({ 5: 20 }, [])).toEqual([]);
    // The first frames of a clip have nothing before them.
    expect(at({ 0.02: 20, 0.08: 20 }, [{ startS: 0, endS: 8 }])).toEqual([0.08]);
  });

  it('are told re the loudness of the speech: mean in decibels, scatter, the strongest', () => {
    const bursts = [-20, -24, -28].map((peakDbfs, i) => ({ atS: i, peakDbfs }));
    const found = plosiveMeasurement(bursts, -30);
    expect(found).toMatchObject({ value: 6, spread: { sd: 4, count: 3 }, settings: { bursts: 3, strongestDb: 10 } });
    expect(found.uncertainty).toBeCloseTo(4 / Math.sqrt(3), 9);
    expect(plosiveMeasurement(bursts.slice(0, 1), -30)).toMatchObject({ value: 10, spread: null, uncertainty: null });
    expect(plosiveMeasurement([], -30).notMeasured).toBe('No burst was found.');
    expect(plosiveMeasurement(bursts, -Infinity).notMeasured).toBe('The clip holds no speech.');
  });
});
