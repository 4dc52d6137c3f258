import { MOST_POINTS, type Knot } from '#core/rules/points-curve';

/** Where a curve is drawn: its axis with some room at both ends, and its size in pixels. */
export interface CurveFrame {
  readonly low: number;
  readonly high: number;
  readonly width: number;
  readonly height: number;
}

/** Share of the axis that stays free beyond the outermost value. */
const MARGIN = 0.08;

/** A frame that holds a curve and all values of the catalogue. */
export function frameOf(curve: readonly Knot[], values: readonly number[], width: number, height: number): CurveFrame {
  const all = [...curve.map(([x]) => x), ...values];
  const [low, high] = [Math.min(...all), Math.max(...all)];
  const room = high > low ? MARGIN * (high - low) : 1;
  return { low: low - room, high: high + room, width, height };
}

export const xOf = (frame: CurveFrame, value: number): number =>
  (frame.width * (value - frame.low)) / (frame.high - frame.low);
export const yOf = (frame: CurveFrame, points: number): number => frame.height * (1 - points / MOST_POINTS);

/** A place on the screen as a knot, as finely as a pixel tells: three digits of the axis, tenths of a point. */
export function knotAt(frame: CurveFrame, x: number, y: number): Knot {
  const perPixel = (frame.high - frame.low) / frame.width;
  const step = 10 ** Math.floor(Math.log10(perPixel));
  const value = Math.round((frame.low + x * perPixel) / step) * step;
  const points = Math.round((1 - y / frame.height) * MOST_POINTS * 10) / 10;
  return [Number(value.toPrecision(12)), Math.min(MOST_POINTS, Math.max(0, points))];
}

/** The curve as a path, level beyond its ends. */
export function curvePath(frame: CurveFrame, curve: readonly Knot[]): string {
  const points = curve.map(([x, p]) => `${xOf(frame, x).toFixed(1)} ${yOf(frame, p).toFixed(1)}`);
  const first = yOf(frame, curve[0][1]).toFixed(1);
  const last = yOf(frame, curve[curve.length - 1][1]).toFixed(1);
  return `M0 ${first}L${points.join('L')}L${frame.width} ${last}`;
}
