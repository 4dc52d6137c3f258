import FFT from 'fft.js';
import { describe, expect, it } from 'vitest';
import { lcgNoise } from '../testing/signals';
import { FftPlan, FramePairPlan } from './fft';
import { hann } from './hann';

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

describe('FramePairPlan', () => {
  it.each([64, 128, 256, 512, 1024, 2048, 16_384])(
    'of %i samples has the powers of each frame by itself, also overlapping',
    (n) => {
      const plan = new FramePairPlan(n);
      const window = hann(n);
      plan.window.set(window);
      for (const step of [n / 2, n]) {
        const samples = lcgNoise(2 * n, 1, step);
        plan.samples.set(samples);
        plan.framePair(3, step);
        for (const [frame, powers] of plan.powers.entries()) {
          const alone = new FftPlan(n);
          for (let i = 0; i < n; i++) alone.input.re[i] = window[i] * samples[frame * step + i];
          alone.forward();
          const { re, im } = alone.output;
          expect(powers[0]).toBe(0);
          let worst = 0;
          for (let k = 1; k < n / 2; k++) worst = Math.max(worst, Math.abs(powers[k] - 3 * (re[k] ** 2 + im[k] ** 2)));
          // Rounding of sums of n values: powers are of the order of n.
          expect(worst, `frame ${frame}, step ${step}`).toBeLessThan(1e-13 * n);
        }
      }
    },
  );

  it.each([16, 32, 100])('refuses frames of %i samples', (n) => {
    expect(() => new FramePairPlan(n)).toThrow(RangeError);
  });
});
