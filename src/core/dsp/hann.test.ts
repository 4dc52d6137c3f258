import { expect, it } from 'vitest';
import { hann, hannPower } from './hann';

// The definition of the periodic form: its next sample would equal its first.
it.each([16, 64, 1024, 16_384])('the window of a frame of %i samples is that of its definition', (size) => {
  const { window, scale } = hannPower(size);
  const expected = hann(size);
  expect(window).toHaveLength(size);
  window.forEach((w, i) => expect(Math.abs(w - expected[i]), `sample ${i}`).toBeLessThan(1e-15));
  expect(scale * size * expected.reduce((sum, w) => sum + w * w, 0)).toBeCloseTo(2, 12);
});

it('is the same window for whoever asks, and another one for another size', () => {
  expect(hannPower(256)).toBe(hannPower(256));
  expect(hannPower(256).window).not.toBe(hannPower(512).window);
});

// 0.5 − 0.5·cos(2πi/N) at eighths: (1 − √½)/2 at one of them.
it('rises from nothing to one and falls again', () => {
  const window = hann(8);
  const eighth = (1 - Math.SQRT1_2) / 2;
  [0, eighth, 0.5, 1 - eighth, 1].forEach((w, i) => expect(window[i], `sample ${i}`).toBeCloseTo(w, 15));
  for (let i = 1; i < 8; i++) expect(window[i]).toBeCloseTo(window[8 - i], 15);
});
