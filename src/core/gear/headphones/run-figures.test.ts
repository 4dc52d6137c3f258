import { describe, expect, it } from 'vitest';
import type { AnalysedTake, TakeResponse } from '../run/analysed-take';
import type { Measurement } from '../../measure/measurement';
import { fractionalOctaveBands } from '../../dsp/fractional-octave';
import { summariseResponse } from '../../measure/response-summary';
import { headphonesRunFigures } from './run-figures';

/** A flat response at a level, with as much more below 150 Hz, and distortion of its own. */
function response(db: number, bassDb = 0, thdDb = -60): TakeResponse {
  const points = fractionalOctaveBands(24, 20, 20_000).map(({ lowHz, highHz }) => {
    const hz = Math.sqrt(lowHz * highHz);
    return { hz, db: db + (hz < 150 ? bassDb : 0), u: 0.01 };
  });
  return {
    points,
    lowestValidHz: 20,
    gateMs: 300,
    summary: summariseResponse({ points, lowestValidHz: 20 }),
    distortion: { hz: 1000, orders: [], thdDb, noiseDb: -90, bound: 'exact', uncertaintyDb: 0.1 },
    findings: [],
    room: null,
  };
}
const take = (role: string, of: TakeResponse | null): AnalysedTake => ({ role, response: of }) as AnalysedTake;
const figures = (...takes: AnalysedTake[]): readonly Measurement[] =>
  headphonesRunFigures(takes, { fullScaleDbu: null, claimedSensitivityMvPa: null }, new Set()).measurements;
const find = (list: readonly Measurement[], id: string) => list.find((m) => m.quantity === id);

describe('sides', () => {
  it('seated once each are told apart, without an uncertainty: the seat may be the reason', () => {
    const found = figures(take('sweep', response(-20)), take('sweep-right', response(-18.5)));
    expect(find(found, 'sideLevel')).toMatchObject({ value: expect.closeTo(1.5, 9) as number, uncertainty: null });
    expect(find(found, 'sideLevel')?.condition).toContain('1 seating left, 1 right');
    expect(find(found, 'sideDifference')?.condition).toContain('right louder');
    expect(find(found, 'sealSpread')).toBeUndefined();
  });

  it('seated again have the scatter of their seats: the mean of seats, and √(s²/n) of both sides', () => {
    const found = figures(
      ...[-20.4, -19.6].map((db) => take('sweep', response(db))),
      ...[-18.2, -17.8].map((db) => take('sweep-right', response(db))),
    );
    const level = find(found, 'sideLevel');
    expect(level?.value).toBeCloseTo(2, 9);
    // s/√2 is half of the distance of two: 0.4 and 0.2, by hand.
    expect(level?.uncertainty).toBeCloseTo(Math.hypot(0.4, 0.2), 2);
  });

  it('are left out of bass and treble where one seat alone says nothing: pooled over the sides that were seated again', () => {
    const found = figures(
      ...[0, 2, 4].map((bass) => take('sweep', response(-20, bass))),
      take('sweep-right', response(-20, 9)),
    );
    // Standard deviation of 0, 2, 4.
    expect(find(found, 'sealSpread')?.value).toBeCloseTo(2, 6);
    expect(find(found, 'sealSpread')?.condition).toContain('3 seatings of one side');
    expect(find(found, 'seatSpread')?.value).toBeCloseTo(0, 9);
  });

  it('distort as the worse one does', () => {
    const thd = find(
      figures(take('sweep', response(-20, 0, -61)), take('sweep-right', response(-20, 0, -48))),
      'thdSweep',
    );
    expect(thd?.value).toBe(-48);
    expect(thd?.condition).toContain('the worse side');
    expect(find(figures(take('sweep', response(-20))), 'thdSweep')?.condition).toContain('left side alone');
  });

  it('that reach the ends of the sweep have limits beyond them', () => {
    const found = figures(take('sweep', response(-20)));
    expect(find(found, 'responseLow6')).toMatchObject({ bound: 'at-most' });
    expect(find(found, 'responseHigh6')).toMatchObject({ bound: 'at-least' });
  });
});

describe('takes that do not hold the sweep', () => {
  it('are named by their side; what the other one says stands', () => {
    const found = figures(take('sweep', response(-20)), take('sweep-right', null), take('sweep-right', null));
    expect(find(found, 'sideLevel')?.notMeasured).toBe('None of the 2 takes of the right side holds the sweep. Is it the right file?'); // prettier-ignore
    expect(find(found, 'responseDeviation')?.value).not.toBeNull();
  });

  it('leave no response where neither side has one; a run without sweeps says nothing', () => {
    const found = figures(take('sweep', null), take('sweep-right', null));
    expect(find(found, 'responseDeviation')?.notMeasured).toMatch(/left side does not.*right side does not/);
    expect(figures(take('sweep', null)).map((m) => m.quantity)).toEqual(['responseDeviation', 'sideLevel']);
    expect(figures(take('other', null))).toEqual([]);
  });
});
