import { describe, expect, it } from 'vitest';
import { newestFigure, runsOfTheUnit } from './newest-figure';

const reading = (value: number | null, day: string) => ({ value, day });

describe('the figure that counts', () => {
  it('is the newest that was measured: a newer run without it takes nothing away, and is named', () => {
    const readings = [reading(null, '2026-05-01'), reading(-60, '2026-04-01'), reading(-58, '2026-03-01')];
    expect(newestFigure(readings)).toEqual({ reading: readings[1], missingSince: '2026-05-01' });
  });

  it('is the newest where that one has it', () => {
    const readings = [reading(-61, '2026-05-01'), reading(-60, '2026-04-01')];
    expect(newestFigure(readings)).toEqual({ reading: readings[0], missingSince: null });
  });

  it('is the newest reason where nothing was ever measured, and nothing without a run', () => {
    const readings = [reading(null, '2026-05-01'), reading(null, '2026-04-01')];
    expect(newestFigure(readings)).toEqual({ reading: readings[0], missingSince: null });
    expect(newestFigure([])).toBeNull();
  });

  it('never comes from a run that opens or closes a session', () => {
    const runs = [{ purpose: 'closing' as const }, { purpose: 'unit' as const }, { purpose: 'opening' as const }];
    expect(runsOfTheUnit(runs)).toEqual([{ purpose: 'unit' }]);
  });
});
