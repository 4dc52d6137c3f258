import { expect, it } from 'vitest';
import { fractionalDelay } from './fractional-delay';

const sine = (frequency: number, delay: number): Float64Array =>
  Float64Array.from({ length: 4096 }, (_, i) => Math.sin(2 * Math.PI * frequency * (i - delay)));

// A sine delayed by d samples is sin(2πf(n − d)): the definition. 0.01 dB of its amplitude is 1.2e-3.
it.each([0, 0.25, 0.5, 0.9, 1])('delays sines up to 0.9 of half the sample rate by %d of a sample', (delay) => {
  for (const frequency of [0.001, 0.02, 0.2, 0.45]) {
    const delayed = fractionalDelay(sine(frequency, 0), delay);
    const wanted = sine(frequency, delay);
    for (let i = 100; i < 3996; i++) expect(Math.abs(delayed[i] - wanted[i])).toBeLessThan(1.2e-3);
  }
});
