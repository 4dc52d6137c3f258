import { anotherReading, pooledReadings, scatterBetween } from '#core/measure/another-reading';
import { isQuantity } from '#core/measure/registry';
import { criterionPoints, type UnitFacts } from '#core/rules/criterion-points';
import type { DatedPrice } from '#core/rules/price-rule';
import type { Criterion } from '#core/rules/rubric';
import type { PooledScatter } from '#core/stats/pooled-scatter';
import type { MeasurementJson } from '#contracts/measurement';
import { groupBy } from '../group-by';
import type { RankedFact } from './comparable-facts';
import type { GivenPoints, RepeatedReading, SpecimenBase } from './specimen-base';

/** What readings of each figure differ by, among units of one kind. */
export type KindScatters = ReadonlyMap<string, PooledScatter>;

/** Standard uncertainty of a figure for another reading, as repeats of its category show; null for a limit. */
export function readingAgain(
  figure: Pick<MeasurementJson, 'quantity' | 'value' | 'uncertainty' | 'bound'>,
  scatters: KindScatters,
): number | null {
  const { quantity: id, value, uncertainty, bound } = figure;
  if (value === null || bound !== 'exact') return null;
  return anotherReading(uncertainty, scatterBetween(id, value, scatters.get(id) ?? null));
}

/** What readings of each figure differ by, as repeats of one kind of gear show. */
export function scattersOf(rows: readonly RepeatedReading[]): KindScatters {
  const scatters = new Map<string, PooledScatter>();
  for (const [id, readings] of groupBy(rows, (r) => r.quantity))
    if (isQuantity(id)) scatters.set(id, pooledReadings(id, [...groupBy(readings, (r) => r.group).values()]));
  return scatters;
}

/** Each figure with what another reading of it differs by; what the rules expect is the prior. */
export function withScatter(unit: UnitFacts, criteria: readonly Criterion[], scatters: KindScatters): UnitFacts {
  const figures = Object.entries(unit.figures).map(([id, fact]) => {
    if (!isQuantity(id) || fact.value === null) return [id, fact] as const;
    const rule = criteria.find((c) => c.kind === 'measured' && c.quantity === id);
    const usual = rule?.kind === 'measured' ? rule.repeatability : null;
    return [id, { ...fact, between: scatterBetween(id, fact.value, scatters.get(id) ?? null, usual) }] as const;
  });
  return { ...unit, figures: Object.fromEntries(figures) };
}

/**
 * A unit enters the ranking with its first test that says something of it: a measured run, or a table that its rules
 * count. Where the rules of a kind count neither, a run and anything but a price will do; before that there is nothing
 * to rank it by.
 */
export function isTested(base: SpecimenBase, unit: UnitFacts | undefined, criteria: readonly Criterion[]): boolean {
  if (!unit || base.last_tested === null) return false;
  if (base.takes > 0 && Object.keys(unit.figures).length > 0) return true;
  const byTests = criteria.filter((c) => c.kind === 'measured' || c.kind === 'table');
  const counting = byTests.length > 0 ? byTests : criteria.filter((c) => c.kind !== 'price');
  return counting.some((c) => criterionPoints(c, unit).points !== null);
}

/** What ranking knows of a unit: its figures, points by hand and prices. */
export function unitFacts(
  id: string,
  facts: readonly RankedFact[],
  points: readonly GivenPoints[],
  prices: readonly DatedPrice[],
): UnitFacts {
  return {
    id,
    figures: Object.fromEntries(
      facts
        .filter((f) => isQuantity(f.quantity))
        .map(({ quantity, value, uncertainty, bound, not_measured, remark }) => [
          quantity,
          { value, uncertainty, bound, notMeasured: not_measured, remark },
        ]),
    ),
    byHand: Object.fromEntries(points.map(({ criterion, value, reason }) => [criterion, { value, reason }])),
    prices: prices.map(plainPrice),
  };
}

/** A price without what the archive knows it by. */
export const plainPrice = ({ amount, currency, kind, date, region, tax, shop, also }: DatedPrice): DatedPrice => ({
  amount,
  currency,
  kind,
  date,
  ...(region === undefined ? {} : { region }),
  ...(tax === undefined ? {} : { tax }),
  ...(shop === undefined ? {} : { shop }),
  ...(also ? { also } : {}),
});
