import { describe, expect, it } from 'vitest';
import { cascadeGainDb } from '#core/dsp/biquad';
import { highPass, peaking } from '#core/dsp/eq-biquads';
import { exponentialSweep } from '#core/dsp/exponential-sweep';
import { headphonesRunFigures } from '#core/gear/headphones/run-figures';
import type { AnalysedTake } from '#core/gear/run/analysed-take';
import { measureResponse } from '#core/measure/response-report';
import { mean, standardDeviation } from '#core/stats/moments';
import { renderSeating, type HeadphonesModel } from './headphones';

const RATE = 48_000;
const SWEEP = { lowHz: 20, highHz: 20_500, seconds: 2 };
const played = exponentialSweep(SWEEP, RATE, -12);

/** What a run keeps of one seating. */
function seating(headphones: HeadphonesModel, side: 'left' | 'right', seed: string): AnalysedTake {
  const samples = renderSeating({
    sampleRate: RATE,
    durationS: 3.2,
    side,
    headphones,
    played,
    seed: `${side}/${seed}`,
  });
  return {
    role: side === 'left' ? 'sweep' : 'sweep-right',
    response: measureResponse(played, samples, RATE, { gateMs: 300 }),
  } as unknown as AnalysedTake;
}
const seatings = (headphones: HeadphonesModel, side: 'left' | 'right', count: number): AnalysedTake[] =>
  Array.from({ length: count }, (_, i) => seating(headphones, side, String(i)));

const PLAIN: HeadphonesModel = { levelDbfs: -6, lowHz: 12, highHz: 22_000, bells: [] };

describe('simulated headphones, measured as a run is', () => {
  it('come back: response, sides, seal and distortion', () => {
    const bells = [{ hz: 3000, db: 7, q: 1.4 }];
    const model: HeadphonesModel = {
      ...PLAIN,
      lowHz: 45,
      bells,
      right: { levelDb: 1.5, bells: [{ hz: 250, db: -4, q: 2 }] },
      bend: { square: 0.02, cube: 0 },
    };
    const { measurements, curves } = headphonesRunFigures(
      [...seatings(model, 'left', 2), ...seatings(model, 'right', 2)],
      { fullScaleDbu: null, claimedSensitivityMvPa: null },
      new Set(),
    );
    const value = (id: string): number => measurements.find((m) => m.quantity === id)?.value ?? NaN;
    // The bell at 250 Hz in the band in which the level is read, and in its own third octave (IEC 61260-1).
    const bell = (low: number, high: number): number =>
      mean(Array.from({ length: 200 }, (_, i) => cascadeGainDb([peaking(RATE, 250, -4, 2)], low * (high / low) ** ((i + 0.5) / 200), RATE))); // prettier-ignore
    expect(Math.abs(value('sideLevel') - 1.5 - bell(500, 2000))).toBeLessThan(0.01);
    expect(Math.abs(value('sideDifference') + 1.5 + bell(223.87, 281.84))).toBeLessThan(0.02);
    expect(measurements.find((m) => m.quantity === 'sideDifference')?.condition).toMatch(
      /^third octave of 251 Hz, left/,
    );
    // Without a draw of seal and seat, only the noise moves it.
    expect(value('sealSpread')).toBeLessThan(0.05);
    expect(value('seatSpread')).toBeLessThan(0.05);
    // A square of amplitude a has a second harmonic of square·a/2 re it: a = 0.25 at −12 dBFS; the peak at 3 kHz is not at 2 kHz.
    const secondHarmonic = 20 * Math.log10((0.02 * 10 ** (-12 / 20)) / 2);
    const between = cascadeGainDb([peaking(RATE, 3000, 7, 1.4)], 2000, RATE) - cascadeGainDb([peaking(RATE, 3000, 7, 1.4)], 1000, RATE); // prettier-ignore
    expect(Math.abs(value('thdSweep') - secondHarmonic - between)).toBeLessThan(0.3);
    // Every point within a tenth of a decibel of the sections that made it, mean of both sides.
    const made = (hz: number): number =>
      cascadeGainDb([highPass(RATE, 45), peaking(RATE, 3000, 7, 1.4)], hz, RATE) + (1.5 + cascadeGainDb([peaking(RATE, 250, -4, 2)], hz, RATE)) / 2; // prettier-ignore
    const points = curves.response?.points ?? [];
    const at = (hz: number) => points.reduce((a, b) => (Math.abs(b.hz - hz) < Math.abs(a.hz - hz) ? b : a));
    for (const hz of [40, 63, 125, 250, 1000, 3000, 8000]) {
      const [there, middle] = [at(hz), at(1000)];
      expect(Math.abs(there.db - middle.db - (made(there.hz) - made(middle.hz))), `${hz} Hz`).toBeLessThan(0.15);
    }
    expect(curves.sides?.left.length).toBe(curves.sides?.right.length);
  });

  it('whose seal is a matter of luck say so: the scatter that was drawn comes back', () => {
    const model: HeadphonesModel = { ...PLAIN, sealDb: 4, seatDb: 0 };
    const takes = seatings(model, 'left', 12);
    const { measurements } = headphonesRunFigures(takes, { fullScaleDbu: null, claimedSensitivityMvPa: null }, new Set()); // prettier-ignore
    const found = measurements.find((m) => m.quantity === 'sealSpread');
    // The same from the responses themselves, by another way: mean of 40–100 Hz less that of 500 Hz–2 kHz.
    const level = ({ response }: AnalysedTake, low: number, high: number): number => {
      const inside = (response?.points ?? []).filter((p) => p.hz >= low && p.hz < high);
      return inside.reduce((s, p) => s + p.db, 0) / inside.length;
    };
    const byHand = standardDeviation(takes.map((t) => level(t, 40, 100) - level(t, 500, 2000)));
    expect(found?.value).toBeCloseTo(byHand, 6);
    expect(byHand).toBeGreaterThan(1.5);
    expect(byHand).toBeLessThan(5);
    expect(found?.condition).toBe('40–100 Hz re 500 Hz–2 kHz, 12 seatings of one side');
    expect(found?.uncertainty).toBeCloseTo(byHand / Math.sqrt(22), 6);
    expect(measurements.some((m) => m.quantity === 'sideLevel')).toBe(false);
    expect(measurements.find((m) => m.quantity === 'responseLow3')?.condition).toContain('left side alone');
  });
});
