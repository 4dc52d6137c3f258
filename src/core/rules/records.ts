import { QUANTITY_IDS, quantity, type QuantityId } from '../measure/registry';
import type { UnitFacts } from './criterion-points';
import { COVERAGE, spreadOf } from './figures-apart';

/** A figure that was the best so far when its unit was first tested. */
export interface RecordStep {
  readonly unit: string;
  /** Day of the unit's first test, ISO 8601. */
  readonly day: string;
  readonly value: number;
  /** Standard uncertainty of another reading. */
  readonly spread: number;
  /** Whether it beat the one before by more than both leave open; true for the first. */
  readonly isBeyondDoubt: boolean;
}

/** The best figures of one quantity over time. */
export interface QuantityRecords {
  readonly quantity: QuantityId;
  /** Oldest first; the last one holds the record. */
  readonly steps: readonly RecordStep[];
  /** Units that do not stand behind the holder by more than both leave open, the best first. */
  readonly ties: readonly string[];
}

/**
 * The best figure of each quantity and its holders over time: by the figures that count today, in the order in which the
 * units were first tested. Quantities of which no way is better have no record, and limits hold none.
 *
 * @param units - of one kind
 * @param firstTested - day of each unit's first test; units without one are left out
 */
export function recordsOf(units: readonly UnitFacts[], firstTested: ReadonlyMap<string, string>): QuantityRecords[] {
  const dated = units
    .flatMap((unit) => {
      const day = firstTested.get(unit.id);
      return day === undefined ? [] : [{ unit, day }];
    })
    .sort((a, b) => (a.day < b.day ? -1 : a.day > b.day ? 1 : 0));
  return QUANTITY_IDS.flatMap((id): QuantityRecords[] => {
    const { better, group } = quantity(id);
    if (better === null || group === 'recording') return [];
    const sign = better === 'higher' ? 1 : -1;
    const figures = dated.flatMap(({ unit, day }): RecordStep[] => {
      const fact = unit.figures[id];
      if (!fact || fact.value === null || fact.bound !== 'exact') return [];
      const spread = spreadOf(fact);
      return [{ unit: unit.id, day, value: fact.value, spread, isBeyondDoubt: true }];
    });
    const steps: RecordStep[] = [];
    for (const figure of figures) {
      const best = steps.at(-1);
      if (!best || sign * (figure.value - best.value) > 0)
        steps.push({ ...figure, isBeyondDoubt: !best || isApart(figure, best) });
    }
    const holder = steps.at(-1);
    if (!holder) return [];
    const ties = figures
      .filter((f) => f.unit !== holder.unit && !isApart(f, holder))
      .sort((a, b) => sign * (b.value - a.value))
      .map((f) => f.unit);
    return [{ quantity: id, steps, ties }];
  });
}

const isApart = (a: RecordStep, b: RecordStep): boolean =>
  Math.abs(a.value - b.value) > COVERAGE * Math.hypot(a.spread, b.spread);
