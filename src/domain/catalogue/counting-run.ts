import { newestFigure, runsOfTheUnit } from '#core/rules/newest-figure';
import type { Rubric } from '#core/rules/rubric';
import type { UnitMeasurement } from '#contracts/measurement';
import type { Run } from '#contracts/specimen';
import type { DatedPrice } from '#core/rules/price-rule';

/** What counts of a unit: one run put together from the newest of every figure and curve. */
export interface CountingRun {
  readonly run: Run;
  /** Days of the figures that the newest run does not have, by quantity. */
  readonly older: ReadonlyMap<string, string>;
  /** Only runs that open or close sessions are there: what is shown is the control unit's, and is not ranked. */
  readonly isControlOnly: boolean;
}

/**
 * Puts together what counts of a unit. A newer run that lacks a figure takes nothing away.
 *
 * @param runs - of the unit, newest first
 */
export function countingRun(runs: readonly Run[]): CountingRun | null {
  const own = runsOfTheUnit(runs);
  const used = own.length > 0 ? own : runs;
  const newest = used.at(0);
  if (!newest) return null;
  const readings = new Map<string, (UnitMeasurement & { day: string })[]>();
  for (const run of used)
    for (const figure of run.measurements)
      readings.set(figure.quantity, [...(readings.get(figure.quantity) ?? []), { ...figure, day: run.date }]);
  const older = new Map<string, string>();
  const measurements = [...readings.values()].flatMap((all): UnitMeasurement[] => {
    const counting = newestFigure(all);
    if (!counting) return [];
    const { day, ...figure } = counting.reading;
    if (day !== newest.date) older.set(figure.quantity, day);
    return [figure];
  });
  const curve = <K extends Exclude<keyof Run['curves'], 'pairs'>>(key: K): Run['curves'][K] =>
    used.find((r) => r.curves[key] !== null)?.curves[key] ?? null;
  return {
    run: {
      ...newest,
      takes: used.find((r) => r.takes.some((t) => t.summary !== null))?.takes ?? newest.takes,
      measurements,
      curves: {
        response: curve('response'),
        sides: curve('sides'),
        polar: curve('polar'),
        distance: curve('distance'),
        room: curve('room'),
        noiseByGain: curve('noiseByGain'),
        distortionByLevel: curve('distortionByLevel'),
        channelsByFrequency: curve('channelsByFrequency'),
        holesByDistance: curve('holesByDistance'),
        windBySpeed: curve('windBySpeed'),
        conditions: curve('conditions'),
        pairs: used.find((r) => r.curves.pairs.length > 0)?.curves.pairs ?? [],
      },
    },
    older,
    isControlOnly: own.length === 0,
  };
}

/** What is missing of the prices, in a word or two; empty where a price is there that the rules count. */
export function priceGap(prices: readonly DatedPrice[], rubric: Rubric | null): string {
  if (prices.length === 0) return 'no price';
  const rule = rubric?.criteria.find((c) => c.kind === 'price');
  return rule && !prices.some((p) => p.currency === rule.currency || p.also?.[rule.currency] !== undefined)
    ? `none in ${rule.currency}`
    : '';
}
