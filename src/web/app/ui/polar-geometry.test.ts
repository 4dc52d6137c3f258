import { describe, expect, it } from 'vitest';
import { patternPath, polarPath, polarPoint } from './polar-geometry';

describe('polar plot', () => {
  it('puts 0° up, 0 dB on the rim, −30 dB into the middle', () => {
    expect(polarPoint(0, 0, 100)).toEqual({ x: 0, y: -100 });
    expect(polarPoint(90, -15, 100).x).toBeCloseTo(50, 9);
    expect(polarPoint(180, -40, 100).y).toBeCloseTo(0, 9);
  });
  it('mirrors what was measured on one side', () => {
    const path = polarPath(
      [
        { angleDeg: 0, db: 0 },
        { angleDeg: 90, db: -6 },
        { angleDeg: 180, db: -30 },
      ],
      100,
    );
    expect(path).toBe('M0.0 -100.0L80.0 -0.0L0.0 0.0L-80.0 -0.0Z');
    expect(patternPath(1, 100).split('L').length).toBeGreaterThan(100);
  });
});
