import type { UnitFacts } from '#core/rules/criterion-points';
import { pricePoints, type BillLine } from '#core/rules/price-rule';
import type { Rubric } from '#core/rules/rubric';

/** What is paid until a unit can be used in one way. */
export interface Bill {
  /** Null: in any way. */
  readonly use: string | null;
  readonly currency: string;
  readonly lines: readonly BillLine[];
  readonly total: number;
  /** Why it cannot be told; null where it can. */
  readonly why: string | null;
}

/**
 * Bills of a unit that needs something: one for every use that a part is named for, and one for all of them where a part
 * is needed anyway.
 *
 * @returns none where it needs nothing, or its rules count no price
 */
export function billsOf(unit: UnitFacts, rubric: Rubric): Bill[] {
  const rule = rubric.criteria.find((c) => c.kind === 'price');
  const needs = unit.needs ?? [];
  if (!rule || needs.length === 0) return [];
  const named = [...new Set(needs.flatMap((n) => n.uses))].sort();
  const uses = needs.some((n) => n.uses.length === 0) ? [null, ...named] : named;
  return uses.map((use): Bill => {
    const { currency } = rule;
    const verdict = pricePoints(unit, { ...rule, parts: { use } });
    if (verdict.points === null) return { use, currency, lines: [], total: 0, why: verdict.why };
    const own = pricePoints(unit, { ...rule, parts: undefined, limit: null });
    const lines = [{ name: 'the unit', amount: verdict.total - sum(verdict.parts), why: own.why }, ...verdict.parts];
    return { use, currency, lines, total: verdict.total, why: null };
  });
}

const sum = (lines: readonly BillLine[]): number => lines.reduce((total, line) => total + line.amount, 0);
