import { describe, expect, it } from 'vitest';
import { fractionalOctaveBands } from '../../dsp/fractional-octave';
import type { FrequencyResponse } from '../../measure/frequency-response';
import { meanResponse } from './mean-response';
import { seatingMeasurements } from './seatings';
import { bandLevel, sideMeasurements } from './sides';

const FLAT = (hz: number): number => 0 * hz;

/** Flat at a level in 24ths of an octave, between two frequencies; what else there is, by frequency. */
function flat(
  db: number,
  { fromHz = 20, toHz = 20_000, u = 0.01, lowestValidHz = 20, more = FLAT } = {},
): FrequencyResponse {
  const points = fractionalOctaveBands(24, fromHz, toHz).map(({ lowHz, highHz }) => {
    const hz = Math.sqrt(lowHz * highHz);
    return { hz, db: db + more(hz), u };
  });
  return { points, lowestValidHz };
}
const of = (list: ReturnType<typeof sideMeasurements>, id: string) => list.find((m) => m.quantity === id);

describe('level of a band', () => {
  it('is the mean of its points, from its beginning to before its end', () => {
    const points = [90, 100, 150, 199, 200, 210].map((hz) => ({ hz, db: hz === 90 || hz >= 200 ? 99 : hz / 10, u: 0 }));
    // 10, 15 and 19.9 dB.
    expect(bandLevel({ points, lowestValidHz: 20 }, [100, 200])?.value).toBeCloseTo(44.9 / 3, 9);
  });

  it('is none where the response begins later, ends earlier, or is not valid yet', () => {
    expect(bandLevel(flat(-3), [500, 2000])?.value).toBeCloseTo(-3, 9);
    expect(bandLevel(flat(-3, { fromHz: 600 }), [500, 2000])).toBeNull();
    expect(bandLevel(flat(-3, { toHz: 1700 }), [500, 2000])).toBeNull();
    expect(bandLevel(flat(-3, { lowestValidHz: 600 }), [500, 2000])).toBeNull();
    expect(bandLevel({ points: [], lowestValidHz: 20 }, [500, 2000])).toBeNull();
  });

  it('is none where one point of it is no number', () => {
    expect(bandLevel(flat(-3, { more: (hz) => (hz > 900 && hz < 930 ? -Infinity : 0) }), [500, 2000])).toBeNull();
  });
});

describe('sides that are apart', () => {
  it('have an uncertainty only where both were seated twice', () => {
    const [one, two] = [[flat(-20)], [flat(-20.4), flat(-19.6)]];
    expect(of(sideMeasurements(one, two), 'sideLevel')?.uncertainty).toBeNull();
    expect(of(sideMeasurements(two, one), 'sideLevel')?.uncertainty).toBeNull();
    expect(of(sideMeasurements(two, two), 'sideLevel')?.uncertainty).toBeGreaterThan(0);
  });

  it('are unsure by the noise of their points, too: that of a mean falls with the seatings', () => {
    const noisy = (n: number) => Array.from({ length: n }, () => flat(-20, { u: 1 }));
    const [u4, u16] = [4, 16].map((n) => of(sideMeasurements(noisy(n), noisy(n)), 'sideLevel')?.uncertainty ?? NaN);
    expect(u4 / u16).toBeCloseTo(2, 6);
  });

  it('differ most where they do, whichever is louder there', () => {
    const dip = (hz: number): number => (hz > 900 && hz < 1120 ? -4 : hz > 3600 && hz < 4400 ? 3 : 0);
    const right = flat(-20, { more: dip });
    expect(of(sideMeasurements([flat(-20)], [right]), 'sideDifference')).toMatchObject({
      value: expect.closeTo(4, 6) as number,
      condition: 'third octave of 1 kHz, left louder, same artificial ear, 1 seating left, 1 right',
    });
    expect(of(sideMeasurements([right], [flat(-20)]), 'sideDifference')?.condition).toContain('1 kHz, right louder');
    const low = flat(-20, { more: (hz) => (hz > 450 && hz < 560 ? 2 : 0) });
    expect(of(sideMeasurements([flat(-20)], [low]), 'sideDifference')?.condition).toContain('of 501 Hz, right louder');
  });

  it('are not told where a sweep of either side does not reach', () => {
    const short = flat(-20, { toHz: 5000 });
    for (const [left, right] of [
      [[flat(-20)], [short]],
      [[short, flat(-20)], [flat(-20)]],
    ]) {
      const found = sideMeasurements(left, right);
      expect(of(found, 'sideDifference')?.notMeasured).toContain('100 Hz–8 kHz');
      expect(of(found, 'sideLevel')?.value).toBeCloseTo(0, 9);
    }
    expect(of(sideMeasurements([flat(-20, { fromHz: 900 })], [flat(-20)]), 'sideLevel')?.notMeasured).toContain('500 Hz–2 kHz'); // prettier-ignore
  });
});

describe('seatings', () => {
  const bass = (db: number) => flat(-20, { more: (hz) => (hz < 150 ? db : 0) });

  it('are pooled over both sides, each about its own mean, and say so', () => {
    const [seal] = seatingMeasurements([
      [bass(0), bass(2)],
      [bass(10), bass(14)],
    ]);
    // Variances of 2 and 8 with one degree of freedom each: √5.
    expect(seal.value).toBeCloseTo(Math.sqrt(5), 6);
    expect(seal.condition).toBe('40–100 Hz re 500 Hz–2 kHz, 4 seatings of two sides');
    expect(seal.uncertainty).toBeCloseTo(Math.sqrt(5) / 2, 6);
  });

  it('count re the middle: a level that is turned up is no other seat', () => {
    expect(seatingMeasurements([[flat(-20), flat(-14)]]).map((m) => m.value)).toEqual([0, 0].map(() => expect.closeTo(0, 9) as number)); // prettier-ignore
  });

  it('are not told of a band that one of the sweeps does not cover, nor without the middle', () => {
    const [seal, seat] = seatingMeasurements([[flat(-20), flat(-20, { fromHz: 60 })]]);
    expect(seal.notMeasured).toContain('40–100 Hz');
    expect(seat.value).toBeCloseTo(0, 9);
    const [low, high] = seatingMeasurements([[flat(-20), flat(-20, { toHz: 1500 })]]);
    expect([low.value, high.value]).toEqual([null, null]);
  });
});

describe('mean response', () => {
  const points = (...list: [number, number, number][]) => list.map(([hz, db, u]) => ({ hz, db, u }));

  it('is that of the decibels where all of them say something, its noise that of a mean', () => {
    const mean = meanResponse([
      { points: points([100, -2, 0.3], [200, -4, 0.3], [400, 0, 0.3]), lowestValidHz: 50 },
      { points: points([100, -6, 0.4], [400, 2, 0.4]), lowestValidHz: 90 },
    ]);
    expect(mean.points.map((p) => [p.hz, p.db])).toEqual([
      [100, -4],
      [400, 1],
    ]);
    expect(mean.points[0].u).toBeCloseTo(0.25, 9);
    // Valid where each of them is.
    expect(mean.lowestValidHz).toBe(90);
  });
});
