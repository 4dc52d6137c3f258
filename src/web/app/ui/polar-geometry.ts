import { firstOrderGain } from '#core/measure/polar-pattern';

/** Rings of a polar plot, dB re the front. */
export const RINGS_DB = [0, -5, -10, -15, -20, -25] as const;
const LOWEST_DB = -30;

/**
 * Where a level at an angle lies: 0° up, the radius linear in decibels from −30 dB in the middle to 0 dB at the rim.
 *
 * @param radius - of the rim
 */
export function polarPoint(angleDeg: number, db: number, radius: number): { x: number; y: number } {
  const r = radius * radiusShare(db);
  const angle = (angleDeg * Math.PI) / 180;
  return { x: r * Math.sin(angle), y: -r * Math.cos(angle) };
}

/** Share of the rim's radius for a level; levels above the front go a little beyond. */
export const radiusShare = (db: number): number => Math.max(0, Math.min(1.1, 1 - db / LOWEST_DB));

/**
 * A closed path through measured levels, mirrored: microphones are taken to be alike to the left and to the right.
 *
 * @param levels - at rising angles 0°…180°
 */
export function polarPath(levels: readonly { angleDeg: number; db: number }[], radius: number): string {
  const half = levels.map((l) => polarPoint(l.angleDeg, l.db, radius));
  const mirrored = levels
    .filter((l) => l.angleDeg > 0 && l.angleDeg < 180)
    .reverse()
    .map((l) => polarPoint(-l.angleDeg, l.db, radius));
  const text = [...half, ...mirrored].map(({ x, y }) => `${x.toFixed(1)} ${y.toFixed(1)}`);
  return `M${text.join('L')}Z`;
}

/** The path of a first-order pattern. */
export function patternPath(alpha: number, radius: number): string {
  const levels = Array.from({ length: 91 }, (_, i) => ({
    angleDeg: 2 * i,
    db: 20 * Math.log10(Math.abs(firstOrderGain(alpha, 2 * i)) + 1e-4),
  }));
  return polarPath(levels, radius);
}
