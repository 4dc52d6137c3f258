import { describe, expect, it } from 'vitest';
import type { Rubric } from '#core/rules/rubric';
import type { UnitMeasurement } from '#contracts/measurement';
import type { Run } from '#contracts/specimen';
import { countingRun, priceGap } from './counting-run';
import { curvesSchema } from '#contracts/curves';

describe('what counts of a unit', () => {
  const figure = (quantity: 'noiseReSpeechA' | 'rearRejection', value: number | null): UnitMeasurement => ({
    quantity,
    value,
    uncertainty: 0.2,
    bound: 'exact',
    condition: '',
    notMeasured: value === null ? 'no such take' : null,
    settings: {},
    spread: null,
    anotherReading: null,
  });
  const run = (date: string, purpose: Run['purpose'], measurements: UnitMeasurement[]): Run => ({
    id: date,
    date,
    protocol: 'desk-voice',
    protocolVersion: 3,
    source: 'own',
    purpose,
    rig: null,
    takes: [],
    undecided: [],
    tables: [],
    corrections: [],
    measurements,
    curves: curvesSchema.parse({}),
  });

  it('is the newest of every figure, with the day of those that the newest run does not have', () => {
    const runs = [
      run('2026-05-01', 'unit', [figure('noiseReSpeechA', -62), figure('rearRejection', null)]),
      run('2026-04-01', 'unit', [figure('noiseReSpeechA', -60), figure('rearRejection', 12)]),
    ];
    const counting = countingRun(runs);
    expect(counting?.run.measurements.map((m) => m.value)).toEqual([-62, 12]);
    expect([...(counting?.older ?? [])]).toEqual([['rearRejection', '2026-04-01']]);
    expect(counting?.isControlOnly).toBe(false);
  });

  it('is never a run that closes a session, unless there is no other; then that is said', () => {
    const control = run('2026-06-01', 'closing', [figure('noiseReSpeechA', -50)]);
    const own = run('2026-04-01', 'unit', [figure('noiseReSpeechA', -60)]);
    expect(countingRun([control, own])?.run.measurements[0].value).toBe(-60);
    expect(countingRun([control])).toMatchObject({ isControlOnly: true, run: { date: '2026-06-01' } });
    expect(countingRun([])).toBeNull();
  });

  it('knows a price in a currency that the rules do not count', () => {
    const price = { amount: 75, currency: 'GBP', kind: 'street', date: '2026-05-01' } as const;
    const rules: Rubric = {
      id: 't',
      version: 1,
      name: 'T',
      category: 'microphone',
      stratumProbability: 0.9,
      weights: {},
      criteria: [
        { id: 'v', name: 'Value', meaning: '', kind: 'price', currency: 'EUR', basis: ['street'], curve: [[0, 5]], limit: null }, // prettier-ignore
      ],
    };
    expect(priceGap([], rules)).toBe('no price');
    expect(priceGap([price], rules)).toBe('none in EUR');
    expect(priceGap([price], null)).toBe('');
  });
});
