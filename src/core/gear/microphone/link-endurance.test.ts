import { describe, expect, it } from 'vitest';
import type { AnalysedTake } from '../run/analysed-take';
import { radioFigure, runningTime } from './link-endurance';

const take = (change: Partial<AnalysedTake>): AnalysedTake => ({ role: 'radio', speechS: 0, stepPowers: new Float64Array(120).fill(1e-8), ...change }) as AnalysedTake; // prettier-ignore

describe('bursts beside a telephone', () => {
  it('are told per minute, with their number and the loudest', () => {
    const stepPowers = new Float64Array(120).fill(1e-8);
    stepPowers[30] = stepPowers[90] = 1e-6;
    const [figure] = radioFigure(take({ stepPowers }));
    expect(figure).toMatchObject({
      quantity: 'radioEvents',
      value: 10,
      condition: '12 s beside a telephone that sends',
    });
    expect(figure.settings).toEqual({ bursts: 2, loudestDb: 20 });
    expect(radioFigure(take({}))[0]).toMatchObject({ value: 0, uncertainty: 5, settings: { bursts: 0 } });
  });

  it('are not told of a take with words, of a short one, or of none', () => {
    expect(radioFigure(take({ speechS: 2 }))[0].notMeasured).toMatch(/must be silent/);
    expect(radioFigure(take({ stepPowers: new Float64Array(20).fill(1) }))[0].notMeasured).toMatch(/five seconds/);
    expect(radioFigure(undefined)).toEqual([]);
  });
});

describe('running time', () => {
  const cell = (row: string, value: number) => ({ row, column: 'minutes', value });
  it('is that of the part that stops first, in hours', () => {
    const [figure] = runningTime({
      cells: [cell('transmitter 1', 390), cell('transmitter 2', 372), cell('receiver', 420)],
    });
    expect(figure.value).toBeCloseTo(6.2, 9);
    expect(figure.condition).toBe('transmitter 2 stops first of 3 parts');
    expect(runningTime({ cells: [cell('transmitter 1', 390)] })[0].condition).toBe('transmitter 1');
  });

  it('is nothing where none was noted', () => {
    expect(runningTime(undefined)).toEqual([]);
    expect(runningTime({ cells: [cell('receiver', 0)] })).toEqual([]);
  });
});
