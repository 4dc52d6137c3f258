import { describe, expect, it } from 'vitest';
import { drawnPeaks } from './clip-surfer';

describe('waveform', () => {
  it('is drawn on a square-root scale that keeps signs', () => {
    const [high, low] = drawnPeaks([-0.25, 0.04, 0, 1]);
    expect([...high].map((x) => Math.round(x * 100) / 100)).toEqual([0.2, 1]);
    expect([...low]).toEqual([-0.5, 0]);
  });
});
