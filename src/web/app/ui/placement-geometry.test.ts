import { describe, expect, it } from 'vitest';
import { distanceText, placementSketch } from './placement-geometry';

describe('the placement sketch', () => {
  it('puts the source where the step does: in front is up, 90° is right, behind is down', () => {
    const at = (angle: number) => placementSketch(1, angle).source;
    expect(at(0).x).toBeCloseTo(0, 9);
    expect(at(0).y).toBeLessThan(0);
    expect(at(90).x).toBeGreaterThan(0);
    expect(at(90).y).toBeCloseTo(0, 9);
    expect(at(180).y).toBeGreaterThan(0);
    expect(placementSketch(1, 0).arc).toBe('');
  });
  it('keeps near and far inside the picture, further is further out', () => {
    const r = (m: number): number => -placementSketch(m, 0).source.y;
    expect(r(0.03)).toBeGreaterThan(10);
    expect(r(0.15)).toBeGreaterThan(r(0.03));
    expect(r(3)).toBeGreaterThan(r(0.15));
    expect(r(20)).toBeLessThanOrEqual(100);
    expect([distanceText(0.15), distanceText(0.025), distanceText(1.5)]).toEqual(['15 cm', '2.5 cm', '1.5 m']);
  });
});
