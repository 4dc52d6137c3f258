import { describe, expect, it } from 'vitest';
import { readTone } from '../../measure/take-tone';
import { lcgNoise, mixed, scaled, sine } from '../../testing/signals';
import type { AnalysedTake } from '../run/analysed-take';
import { repeatsOf } from '../run/repeated-figures';
import { channelsByFrequency, distortionByLevel } from './tone-curves';
import { toneFigures } from './tone-figures';

const RATE = 48_000;
const SECONDS = 4;
const tone = (hz: number, db: number) => sine(hz, db, SECONDS, RATE);
const noise = (db: number, seed = 1) => scaled(lcgNoise(SECONDS * RATE, 1, seed), db);
const take = (role: string, ...channels: Float64Array[]): AnalysedTake => ({ role, levelDbu: null, tone: readTone(channels, RATE) }) as AnalysedTake; // prettier-ignore

/** A bend of a known size: y = x + k·x², whose second harmonic of a sine of amplitude A is k·A/2 of it. */
const bent = (db: number, k: number): Float64Array => tone(997, db).map((x) => x + k * x * x);

describe('distortion over level', () => {
  it('falls by 20 dB per decade of a square-law bend, as its formula says', () => {
    const k = 0.002;
    const levels = [-1, -20, -40];
    const points = distortionByLevel(levels.map((db) => take('full-tone', bent(db, k)))) ?? [];
    expect(points.map((p) => Math.round(p.levelDbfs))).toEqual([-40, -20, -1]);
    for (const { levelDbfs, thdDb } of points)
      expect(Math.abs(thdDb - 20 * Math.log10((k * 10 ** (levelDbfs / 20)) / 2))).toBeLessThan(0.05);
  });

  it('THD+N grows by as much as the tone falls where only noise is there, and its harmonics are limits', () => {
    const points = distortionByLevel([-10, -30].map((db, i) => take('full-tone', mixed(tone(997, db), noise(-80, i + 1))))) ?? []; // prettier-ignore
    expect(Math.abs(points[0].thdPlusNoiseDb - points[1].thdPlusNoiseDb - 20)).toBeLessThan(0.3);
    expect(points.map((p) => p.thdBound)).toEqual(['at-most', 'at-most']);
  });

  it('needs two levels, of tones that are alone and do not clip; the last of one level counts', () => {
    expect(distortionByLevel([take('full-tone', tone(997, -1)), take('full-tone', tone(997, -1.2))])).toBeNull();
    const clipped = tone(997, 3).map((x) => Math.max(-1, Math.min(1, x)));
    const other = [take('full-tone', clipped), take('full-tone', tone(440, -10)), take('full-tone', mixed(tone(997, -20), noise(-20)))]; // prettier-ignore
    expect(distortionByLevel([...other, take('full-tone', tone(997, -1))])).toBeNull();
    const points = distortionByLevel([take('full-tone', bent(-10, 0.01)), take('full-tone', tone(997, -1)), take('full-tone', bent(-10, 0.001))]); // prettier-ignore
    expect(Math.round(points?.[0].thdDb ?? 0)).toBe(Math.round(20 * Math.log10((0.001 * 10 ** -0.5) / 2)));
  });

  it('the figure is that of the strongest tone, in whatever order they were recorded, and clipping is none', () => {
    const [loud, faint] = [take('full-tone', bent(-1, 0.001)), take('full-tone', bent(-20, 0.001))];
    const thd = (...takes: AnalysedTake[]) => toneFigures(takes).find((m) => m.quantity === 'thdTone');
    expect(thd(loud, faint)?.condition).toContain('−1.0 dBFS');
    expect(thd(faint, loud)?.value).toBe(thd(loud, faint)?.value);
    const clipped = take('full-tone', tone(997, 3).map((x) => Math.max(-1, Math.min(1, x)))); // prettier-ignore
    expect(thd(loud, clipped)?.value).toBe(thd(loud)?.value);
    // Where no take is as it should be, the last one says why.
    expect(thd(take('full-tone', tone(440, -1)), clipped)?.notMeasured).toMatch(/clips/);
  });

  it('tones of other levels or frequencies are no repeats: no mean is made of them', () => {
    const noted = (...channels: Float64Array[]) => ({ step: 'distortion', settings: {}, analysed: take('full-tone', ...channels) }); // prettier-ignore
    expect(repeatsOf([noted(tone(997, -1)), noted(tone(997, -20))])).toHaveLength(1);
    expect(repeatsOf([noted(tone(100, -6)), noted(tone(1000, -6))])).toHaveLength(1);
    expect(repeatsOf([noted(tone(997, -1.1)), noted(tone(997, -1.12))])).toHaveLength(2);
  });
});

describe('channels over frequency', () => {
  it('crosstalk through a small capacitance rises by 20 dB per decade, whichever channel is fed', () => {
    // −100 dB at 1 kHz, in proportion to frequency.
    const through = (hz: number): number => -100 + 20 * Math.log10(hz / 1000);
    const takes = [10_000, 100, 1000].map((hz, i) => {
      const channels = [tone(hz, -6), mixed(tone(hz, -6 + through(hz)), noise(-150))];
      return take('one-channel', ...(i === 1 ? channels.reverse() : channels));
    });
    const points = channelsByFrequency(takes) ?? [];
    expect(points.map((p) => Math.round(p.hz))).toEqual([100, 1000, 10_000]);
    for (const { hz, crosstalkDb } of points) expect(Math.abs((crosstalkDb ?? 0) - through(hz))).toBeLessThan(0.1);
    expect(points.map((p) => p.balanceDb)).toEqual([null, null, null]);
    // The figure stays that of 1 kHz, though it was not recorded last.
    const last = [...takes.slice(2), ...takes.slice(0, 2)];
    expect(toneFigures(last).find((m) => m.quantity === 'crosstalk')?.value).toBeCloseTo(-100, 1);
  });

  it('puts balance beside it where the same tone was fed to both, and says limits as limits', () => {
    const points = channelsByFrequency([
      take('one-channel', tone(1000, -6), noise(-60)),
      take('both-channels', tone(1000, -6), tone(1000, -6.4)),
      take('both-channels', tone(10_000, -6), tone(10_000, -7)),
    ]);
    expect(points?.map((p) => p.crosstalkBound)).toEqual(['at-most', 'exact']);
    expect(points?.[1].crosstalkDb).toBeNull();
    expect(points?.map((p) => Math.round((p.balanceDb ?? 0) * 10) / 10)).toEqual([-0.4, -1]);
  });

  it('needs two frequencies, and two channels', () => {
    expect(channelsByFrequency([take('one-channel', tone(1000, -6), noise(-90))])).toBeNull();
    expect(channelsByFrequency([take('one-channel', tone(100, -6)), take('one-channel', tone(1000, -6))])).toBeNull();
  });
});
