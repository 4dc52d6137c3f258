/** A point of a curve: at metric value x, this many points. */
export type Knot = readonly [x: number, points: number];

/** Highest number of points a criterion can have. */
export const MOST_POINTS = 5;

/**
 * Points for a metric value by straight lines between knots, and level beyond the first and the last one.
 *
 * @param knots - at least one, x strictly ascending (the contract makes sure)
 * @param x - metric value; NaN gives NaN
 * @returns points
 */
export function pointsOnCurve(knots: readonly Knot[], x: number): number {
  const last = knots.length - 1;
  if (x <= knots[0][0]) return knots[0][1];
  if (x >= knots[last][0]) return knots[last][1];
  let i = 1;
  while (knots[i][0] < x) i++;
  const [x0, p0] = knots[i - 1];
  const [x1, p1] = knots[i];
  return p0 + ((x - x0) / (x1 - x0)) * (p1 - p0);
}
