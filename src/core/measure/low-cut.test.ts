import { describe, expect, it } from 'vitest';
import { butterworthHighPassDb } from '../dsp/butterworth';
import { fitLowCut, lowCutVerdict, lowCutWords } from './low-cut';

/** Third octaves from 25 Hz to 1 kHz. */
const HZ = Array.from({ length: 17 }, (_, i) => 25 * 2 ** (i / 3));
const cut = (cornerHz: number, order = 2) => HZ.map((hz) => ({ hz, db: butterworthHighPassDb(order, cornerHz, hz) }));
const flat = HZ.map((hz) => ({ hz, db: 0 }));
/** A level that swings by so much in the low end. */
const swinging = (db: number) => HZ.map((hz) => ({ hz, db: hz < 160 ? db : 0 }));

describe('the low-cut that fits a difference', () => {
  it.each([
    [1, 60],
    [2, 80],
    [3, 120],
    [4, 200],
  ])('of order %i at %i Hz is found on a grid of 1 %%', (order, corner) => {
    const found = fitLowCut(cut(corner, order).map((p) => ({ ...p, db: p.db + 7 })));
    expect(found?.order).toBe(order);
    expect(Math.abs((found?.cornerHz ?? 0) / corner - 1)).toBeLessThan(0.01);
    expect(found?.residualDb).toBeLessThan(0.1);
  });

  it('is none where nothing is cut, or too little is there to tell', () => {
    expect(fitLowCut(flat)).toBeNull();
    expect(fitLowCut(cut(80).slice(0, 5))).toBeNull();
  });
});

describe('what the parts of the material agree about', () => {
  it('is found, its corner as sure as it stays where it is from part to part', () => {
    // Parts left out one by one: ±4 %, the jackknife of n = 4 is √(3/4 · Σ(c − mean)²) of the logarithms.
    const corners = [96, 100, 100, 104];
    const verdict = lowCutVerdict(
      cut(100),
      [cut(100), cut(100)],
      corners.map((c) => cut(c)),
    );
    if (verdict.kind !== 'found') throw new Error(verdict.kind);
    const logs = corners.map((c) => Math.log(fitLowCut(cut(c))?.cornerHz ?? NaN));
    const middle = logs.reduce((s, c) => s + c, 0) / 4;
    const relative = Math.sqrt(0.75 * logs.reduce((s, c) => s + (c - middle) ** 2, 0));
    expect(relative).toBeCloseTo(0.05, 2);
    expect(verdict.cornerU).toBeCloseTo(verdict.cornerHz * Math.hypot(relative, 0.01 / Math.sqrt(12)), 9);
    expect(verdict.orders).toEqual([2, 2]);
    // Of material whose halves are farther apart than its parts, half of that over √2.
    const halved = lowCutVerdict(cut(100), [cut(92), cut(108)], [cut(100), cut(100)]);
    if (halved.kind !== 'found') throw new Error(halved.kind);
    expect(halved.cornerU / halved.cornerHz).toBeCloseTo(Math.log(108 / 92) / 2 / Math.SQRT2, 2);
    expect(lowCutVerdict(cut(100), [cut(100, 1), cut(100, 3)], [cut(100)])).toMatchObject({ orders: [1, 3] });
  });

  it('is not told where halves put it elsewhere, unless they scatter by as much', () => {
    const apart = [cut(70), cut(140)];
    expect(lowCutVerdict(cut(100), apart, [cut(100), cut(100)])).toEqual({ kind: 'untold', reason: expect.stringMatching(/^its halves put it at (69|70|71) and (139|140|141) Hz$/) as string }); // prettier-ignore
    expect(lowCutVerdict(cut(100), apart, [cut(80), cut(100), cut(125)]).kind).toBe('found');
  });

  it('is not told where it shows in a part only', () => {
    expect(lowCutVerdict(cut(100), [cut(100), flat], [cut(100)])).toMatchObject({ reason: expect.stringMatching(/a part of the material only/) as string }); // prettier-ignore
    expect(lowCutVerdict(cut(100), [cut(100), cut(100)], [cut(100), flat]).kind).toBe('untold');
    expect(lowCutVerdict(flat, [cut(100), cut(100)], [flat])).toMatchObject({ reason: 'its halves show one, the whole does not' }); // prettier-ignore
  });

  it('is none only where the low end is there, and steady enough for none to hide in', () => {
    expect(lowCutVerdict(flat, [flat, flat], [flat, flat])).toEqual({ kind: 'none' });
    expect(lowCutVerdict(flat, [flat, cut(100)], [flat, flat])).toEqual({ kind: 'none' });
    const loose = lowCutVerdict(flat, [flat, flat], [swinging(6), swinging(-6)]);
    expect(loose).toMatchObject({ kind: 'untold', reason: expect.stringMatching(/moves by \d\.\d dB/) as string });
    const high = flat.filter((p) => p.hz > 170);
    expect(lowCutVerdict(high, [high, high], [high])).toMatchObject({ reason: 'it holds too little below 160 Hz' });
  });
});

it('is said with its order, its corner and how sure that is', () => {
  const found = { kind: 'found', cornerHz: 80.4, order: 2, residualDb: 0.1, cornerU: 3.4, orders: [2, 2] } as const;
  expect(lowCutWords(found)).toBe('low-cut of order 2 at 80 ±3 Hz');
  expect(lowCutWords({ ...found, orders: [1, 3], cornerU: 0.2 })).toBe('low-cut of order 1 to 3 at 80 ±1 Hz');
  expect(lowCutWords({ kind: 'none' })).toBe('no hidden low-cut');
  expect(lowCutWords({ kind: 'untold', reason: 'why' })).toMatch(/cannot be told from these words: why$/);
});
