import FFT from 'fft.js';
import { describe, expect, it } from 'vitest';
import { lcgNoise } from '../testing/signals';
import { FftPlan } from './fft';

describe('FftPlan', () => {
  it.each([16, 32, 64, 128])('of %i points is the sum of its definition', (n) => {
    const plan = new FftPlan(n);
    const [re, im] = [lcgNoise(n, 1, 1), lcgNoise(n, 1, 2)];
    plan.input.re.set(re);
    plan.input.im.set(im);
    plan.forward();
    for (let k = 0; k < n; k++) {
      let [sumRe, sumIm] = [0, 0];
      for (let i = 0; i < n; i++) {
        const angle = (-2 * Math.PI * k * i) / n;
        sumRe += re[i] * Math.cos(angle) - im[i] * Math.sin(angle);
        sumIm += re[i] * Math.sin(angle) + im[i] * Math.cos(angle);
      }
      expect(plan.output.re[k]).toBeCloseTo(sumRe, 11);
      expect(plan.output.im[k]).toBeCloseTo(sumIm, 11);
    }
  });

  it.each([2048, 8192, 16_384, 32_768, 65_536])('of %i points agrees with the package fft.js', (n) => {
    const plan = new FftPlan(n);
    const reference = new FFT(n);
    const data = lcgNoise(2 * n, 1, 3);
    const expected = new Float64Array(2 * n);
    reference.transform(expected, data);
    for (let i = 0; i < n; i++) {
      plan.input.re[i] = data[2 * i];
      plan.input.im[i] = data[2 * i + 1];
    }
    plan.forward();
    let worst = 0;
    for (let i = 0; i < n; i++) {
      worst = Math.max(
        worst,
        Math.abs(plan.output.re[i] - expected[2 * i]),
        Math.abs(plan.output.im[i] - expected[2 * i + 1]),
      );
    }
    // Rounding of double sums: about ε·√N·log₂N on values of the order √N.
    expect(worst).toBeLessThan(1e-10);
  });

  it('can be run again and again, and two plans do not disturb each other', () => {
    const [a, b] = [new FftPlan(64), new FftPlan(64)];
    a.input.re.fill(1);
    b.input.re[0] = 1;
    a.forward();
    b.forward();
    expect(a.output.re[0]).toBe(64);
    expect([...b.output.re]).toEqual(new Array(64).fill(1));
    a.input.re.fill(0);
    a.input.im.fill(0);
    a.input.re[0] = 2;
    a.forward();
    expect([...a.output.re]).toEqual(new Array(64).fill(2));
  });

  it.each([0, 8, 48, 1000])('refuses a size of %i', (n) => {
    expect(() => new FftPlan(n)).toThrow(RangeError);
  });
});
