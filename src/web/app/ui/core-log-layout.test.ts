import { describe, expect, it } from 'vitest';
import type { Session } from '#contracts/session';
import { dayAt, heightOfDay, layOutCoreLog } from './core-log-layout';

describe('the core log as a time axis', () => {
  const session = (date: string) => ({ date, takes: 4 }) as never;
  const layers = [
    { session: session('2026-03-01'), top: 0, height: 10 },
    { session: session('2026-01-30'), top: 40, height: 10 },
    { session: session('2026-01-29'), top: 52, height: 10 },
  ];
  it('is the day of a layer inside it, and in proportion between two', () => {
    expect([0, 9, 40, 50, 55, 62].map((y) => dayAt(layers, y))).toEqual([
      '2026-03-01', '2026-03-01', '2026-01-30', '2026-01-30', '2026-01-29', '2026-01-29',
    ]); // prettier-ignore
    // Half of the thirty days between them.
    expect(dayAt(layers, 25)).toBe('2026-02-14');
    // A gap of a day has no day of its own but the older one.
    expect(dayAt(layers, 51)).toBe('2026-01-29');
  });
  it('ends with the newest above and the oldest below, and is nothing without layers', () => {
    expect([dayAt(layers, -20), dayAt(layers, 900)]).toEqual(['2026-03-01', '2026-01-29']);
    expect(dayAt([], 5)).toBeNull();
  });
  it('finds the height of a day again', () => {
    for (const day of ['2026-03-01', '2026-02-14', '2026-01-30', '2026-01-29'])
      expect(dayAt(layers, heightOfDay(layers, day) ?? NaN), day).toBe(day);
    expect(heightOfDay(layers, '2026-12-01')).toBe(0);
    expect(heightOfDay(layers, '2020-01-01')).toBeNull();
  });
});
describe('core log', () => {
  const session = (date: string, takes: number): Session => ({
    id: date,
    date,
    takes,
    category: 'microphone',
    units: [{ id: '1', name: 'x' }],
  });

  it('puts the newest on top, thickness by takes, gaps by time, within the height', () => {
    const { layers, years, height } = layOutCoreLog(
      [session('2025-03-01', 3), session('2025-02-01', 12), session('2023-02-01', 1)],
      400,
    );
    expect(layers.map((l) => l.session.date)).toEqual(['2025-03-01', '2025-02-01', '2023-02-01']);
    expect(layers[1].height).toBe(4 * layers[0].height);
    const gap = (i: number): number => layers[i].top - layers[i - 1].top - layers[i - 1].height;
    expect(gap(2)).toBeGreaterThan(10 * gap(1));
    expect(height).toBeCloseTo(400, 6);
    expect(years.map((y) => y.year)).toEqual(['2025', '2023']);
  });

  it('grows beyond the height rather than lose a layer', () => {
    const many = Array.from({ length: 500 }, (_, i) =>
      session(new Date(Date.UTC(2025, 0, 1) - i * 86_400_000).toISOString().slice(0, 10), 3),
    );
    const { layers, height } = layOutCoreLog(many, 400);
    expect(layers).toHaveLength(500);
    expect(height).toBeGreaterThan(400);
    expect(layers.every((l, i) => i === 0 || l.top > layers[i - 1].top + layers[i - 1].height)).toBe(true);
  });

  it('is empty without sessions', () => {
    expect(layOutCoreLog([], 400)).toEqual({ layers: [], years: [], height: 0 });
  });
});
