import type { PricedUnit } from '#core/rules/price-frontier';

/** A unit as a dot of the chart, in pixels. */
export interface FrontierDot {
  readonly unit: PricedUnit;
  readonly x: number;
  readonly y: number;
  /** Ends of the 90 % interval. */
  readonly low: number;
  readonly high: number;
}

export interface FrontierChart {
  readonly dots: readonly FrontierDot[];
  /** Stairs through the units that no cheaper one equals. */
  readonly stairs: string;
  readonly priceTicks: readonly { readonly at: number; readonly label: string }[];
  readonly pointTicks: readonly { readonly at: number; readonly label: string }[];
}

/** Marks of a price axis: 1, 2, 5 and their tens. */
function priceMarks(low: number, high: number): number[] {
  const marks: number[] = [];
  for (let ten = 10 ** Math.floor(Math.log10(low)); ten <= high; ten *= 10)
    for (const step of [1, 2, 5]) if (step * ten >= low && step * ten <= high) marks.push(step * ten);
  return marks;
}

/**
 * Points over price, the price on a logarithmic axis: twice the price is the same way everywhere.
 *
 * @param rows - the cheapest first, at least one
 * @param width - of the chart, pixels
 * @param height - of the chart, pixels
 */
export function frontierChart(rows: readonly PricedUnit[], width: number, height: number): FrontierChart {
  const prices = rows.map((r) => r.price);
  const [low, high] = [Math.min(...prices) / 1.2, Math.max(...prices) * 1.2];
  const x = (price: number): number => (width * Math.log(price / low)) / Math.log(high / low);
  const bottom = Math.floor(2 * Math.min(...rows.map((r) => r.composite90[0]))) / 2;
  const top = Math.ceil(2 * Math.max(...rows.map((r) => r.composite90[1]))) / 2;
  const y = (points: number): number => height * (1 - (points - bottom) / Math.max(0.5, top - bottom));
  const dots = rows.map((unit) => ({ unit, x: x(unit.price), y: y(unit.composite), low: y(unit.composite90[0]), high: y(unit.composite90[1]) })); // prettier-ignore
  const on = dots.filter((d) => d.unit.isOnFrontier);
  const stairs = on.map((d, i) => (i === 0 ? `M${d.x.toFixed(1)} ${d.y.toFixed(1)}` : `H${d.x.toFixed(1)}V${d.y.toFixed(1)}`)).join(''); // prettier-ignore
  const pointTicks: { at: number; label: string }[] = [];
  for (let p = bottom; p <= top + 1e-9; p += 0.5) pointTicks.push({ at: y(p), label: p.toFixed(1) });
  return {
    dots,
    stairs: on.length === 0 ? '' : `${stairs}H${width}`,
    priceTicks: priceMarks(low, high).map((price) => ({ at: x(price), label: String(price) })),
    pointTicks,
  };
}
