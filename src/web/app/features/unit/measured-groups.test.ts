import { describe, expect, it } from 'vitest';
import { distanceChart, responseChart } from './measured-charts';
import { measuredGroups } from './measured-groups';

describe('measured part of a unit', () => {
  const figure = (quantity: 'sensitivity' | 'selfNoise' | 'hum', value: number | null, bound = 'exact') =>
    ({
      quantity,
      value,
      bound,
      condition: '',
      spread: null,
      uncertainty: null,
      notMeasured: null,
      settings: {},
    }) as never;
  const claim = (quantity: 'sensitivity' | 'selfNoise', value: number, unit: string, condition = '') => ({
    quantity,
    value,
    unit,
    condition,
  });
  const units = [
    {
      id: '1',
      figures: { sensitivity: { value: 20, uncertainty: null, bound: 'exact', notMeasured: null } },
      byHand: {},
      prices: [],
    },
    {
      id: '2',
      figures: { sensitivity: { value: 12, uncertainty: null, bound: 'exact', notMeasured: null } },
      byHand: {},
      prices: [],
    },
  ] as const;

  it('is grouped as a reviewer thinks, with claims where they can be compared and the reason where not', () => {
    const groups = measuredGroups(
      [figure('hum', -80), figure('sensitivity', 20), figure('selfNoise', 26, 'at-most')],
      [claim('sensitivity', -34, 'dBV/Pa'), claim('selfNoise', 15, 'dB SPL')],
      units,
      '1',
    );
    expect(groups.map((g) => g.title)).toEqual(['How loud it must be driven', 'How noisy it is']);
    const [sensitivity] = groups[0].rows;
    expect(sensitivity.others).toEqual([12]);
    expect(sensitivity.claim).toMatchObject({ text: 'claimed −34 dBV/Pa', isComparable: true });
    expect(sensitivity.claim?.remark).toBe('measured 20.00 mV/Pa; difference +0.05 mV/Pa');
    expect(groups[1].rows.map((r) => [r.id, r.claim?.remark ?? null])).toEqual([
      ['hum', null],
      ['selfNoise', 'claimed unweighted or without a weighting, measured A-weighted'],
    ]);
  });

  it('draws the response re 500 Hz–2 kHz and leaves out what the gate hides', () => {
    const points = [50, 500, 1000, 2000, 8000].map((hz) => ({ hz, db: hz === 8000 ? -17 : -20, u: 0 }));
    const chart = responseChart({ points, lowestValidHz: 100, gateMs: 10 }, '0°');
    expect(chart.series[0].points.map((p) => p.y)).toEqual([null, 0, 0, 0, 3]);
  });

  it('draws both sides of headphones re the level of both, and no band that would call flat neutral', () => {
    const points = (db: number) => [500, 1000, 2000, 8000].map((hz) => ({ hz, db, u: 0 }));
    const response = { points: points(-20), lowestValidHz: 20, gateMs: 300 };
    const sides = { left: points(-21), right: points(-19), lowestValidHz: 20 };
    const chart = responseChart(response, 'on an artificial ear', sides);
    expect(chart.series.map((s) => [s.name, s.points[0].y])).toEqual([
      ['Both sides', 0],
      ['Left', -1],
      ['Right', 1],
    ]);
    expect(new Set(chart.series.map((s) => s.dash)).size).toBe(3);
    expect(chart.axisTitle).toContain('on an artificial ear');
    expect(chart.tolerance).toBeUndefined();
    expect(responseChart(response, '0°').tolerance).toBeDefined();
  });

  it('draws a ladder with its two parts; a free field has no reverberant one', () => {
    const rungs = [0.15, 0.3, 0.6].map((distanceM) => ({ distanceM, db: -20 * Math.log10(distanceM) }));
    const fit = { directDb: 0, reverberantDb: 0, criticalM: 1, critical95: null, residualDb: 0 };
    expect(distanceChart({ rungs, fit }).series).toHaveLength(4);
    expect(distanceChart({ rungs, fit }).marks?.[0].text).toBe('critical distance');
    const free = distanceChart({ rungs, fit: { ...fit, reverberantDb: null, criticalM: null } });
    expect(free.series).toHaveLength(3);
    expect(free.series[1].points[0].y).toBeCloseTo(-20 * Math.log10(0.12), 6);
  });
});
