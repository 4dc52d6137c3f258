import type { RecordStep } from '#core/rules/records';
import { stairsPath } from '../../ui/stairs-path';

/** A staircase of records, in pixels. */
export interface RecordStairs {
  readonly path: string;
  readonly dots: readonly { readonly step: RecordStep; readonly x: number; readonly y: number }[];
  readonly years: readonly { readonly at: number; readonly label: string }[];
}

/** Room above and below the outermost figures. */
const MARGIN = 0.15;

/**
 * Records over time: level until the next one.
 *
 * @param steps - oldest first, at least one
 * @param until - where the time ends, ISO 8601, not before the last step
 * @param width - pixels
 * @param height - pixels
 */
export function recordStairs(steps: readonly RecordStep[], until: string, width: number, height: number): RecordStairs {
  const from = Date.parse(`${steps[0].day.slice(0, 4)}-01-01`);
  const span = Math.max(1, Date.parse(until) - from);
  const x = (day: string): number => (width * (Date.parse(day) - from)) / span;
  const values = steps.map((s) => s.value);
  const [low, high] = [Math.min(...values), Math.max(...values)];
  const room = high > low ? MARGIN * (high - low) : 1;
  const y = (value: number): number => height * (1 - (value - low + room) / (high - low + 2 * room));
  const dots = steps.map((step) => ({ step, x: x(step.day), y: y(step.value) }));
  const years: { at: number; label: string }[] = [];
  for (let year = Number(steps[0].day.slice(0, 4)); `${year}-01-01` <= until; year++)
    years.push({ at: x(`${year}-01-01`), label: String(year) });
  return { path: `${stairsPath(dots)}H${width}`, dots, years };
}
