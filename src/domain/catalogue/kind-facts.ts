import { gearKind } from '#core/gear/kinds';
import type { UnitFacts } from '#core/rules/criterion-points';
import type { HeardFact } from '#core/rules/heard-points';
import type { ExchangeRates } from '#core/rules/exchange-rates';
import { withRates, type NeededPart } from '#core/rules/price-rule';
import type { Criterion } from '#core/rules/rubric';
import type { Protocol } from '#contracts/protocol';
import { groupBy } from '../group-by';
import { comparableFacts, type RankedFact } from './comparable-facts';
import { unlessChanged, type KnownUnit } from './known-unit';
import { cellFacts, sheetFacts } from './sheet-facts';
import { plainPrice, scattersOf, unitFacts, withScatter, type KindScatters } from './unit-facts';

/** What the units of a kind are ranked by. */
export interface OfKind {
  /** Facts of each unit, in the order in which they were given. */
  readonly facts: readonly UnitFacts[];
  readonly scatters: KindScatters;
}

/** What a unit's facts were made of, and what came of it. */
interface Made {
  readonly from: readonly unknown[];
  readonly facts: UnitFacts;
}

const NO_FACTS: readonly RankedFact[] = [];

/**
 * Facts of one kind of gear, put together from what is known of its units. It goes on from the last time: what follows
 * from facts that are the same objects as before is not made again, and the answer is the same as if it were.
 */
export class KindFacts {
  private last: { readonly units: readonly KnownUnit[]; readonly protocols: readonly Protocol[] } | null = null;
  private comparable: ReadonlyMap<string, readonly RankedFact[]> = new Map();
  private scatters: KindScatters = new Map();
  private made = new Map<string, Made>();

  /**
   * @param units - every unit of the kind, always in the same order
   * @param protocols - all versions of all protocols; the same object where nothing changed
   * @param heard - what blind answers say
   * @param criteria - the rules; the same object where nothing changed, null where there are none
   * @param rates - of exchange; the same object where nothing changed
   */
  of(
    units: readonly KnownUnit[],
    protocols: readonly Protocol[],
    heard: ReadonlyMap<string, HeardFact>,
    criteria: readonly Criterion[] | null,
    rates: ExchangeRates,
  ): OfKind {
    const has = (part: 'facts' | 'bridging' | 'repeated'): boolean =>
      this.last?.units.length === units.length && this.last.units.every((u, i) => u[part] === units[i][part]);
    if (!has('facts') || !has('bridging') || this.last?.protocols !== protocols) this.compare(units, protocols);
    if (!has('repeated')) this.scatters = this.scattersOf(units);
    this.last = { units, protocols };
    const made = new Map<string, Made>();
    const facts = units.map((unit) => {
      const one = this.factsOf(unit, heard.get(unit.base.id) ?? null, criteria, rates);
      made.set(unit.base.id, one);
      return one.facts;
    });
    this.made = made;
    return { facts, scatters: this.scatters };
  }

  private compare(units: readonly KnownUnit[], protocols: readonly Protocol[]): void {
    const all = comparableFacts(
      units.flatMap((u) => u.facts),
      units.flatMap((u) => u.bridging),
      protocols,
    );
    const before = this.comparable;
    const now = groupBy(all, (f) => f.specimen_id);
    this.comparable = new Map([...now].map(([id, facts]) => [id, unlessChanged(before.get(id), facts)]));
  }

  private scattersOf(units: readonly KnownUnit[]): KindScatters {
    const now = scattersOf(units.flatMap((u) => u.repeated));
    const isSame = JSON.stringify([...now]) === JSON.stringify([...this.scatters]);
    return isSame ? this.scatters : now;
  }

  private factsOf(
    known: KnownUnit,
    heard: HeardFact | null,
    criteria: readonly Criterion[] | null,
    rates: ExchangeRates,
  ) {
    const { base, points, prices, needs, sheet, tables } = known;
    const before = this.made.get(base.id);
    const facts = this.comparable.get(base.id) ?? NO_FACTS;
    const heardAgain = heard === null ? null : unlessChanged(before?.facts.heard ?? undefined, heard);
    const from = [
      gearKind(base.category),
      base.first_tested,
      facts,
      points,
      prices,
      needs,
      sheet,
      tables,
      heardAgain,
      criteria,
      rates,
      this.scatters,
    ];
    if (before?.from.every((part, i) => part === from[i])) return before;
    const unit = {
      ...unitFacts(base.id, facts, points, withRates(prices, rates)),
      ...(needs.length === 0 ? {} : { needs: needs.map((need) => partFacts(need, rates)) }),
      reviewedOn: base.first_tested,
      heard: heardAgain,
      sheet: sheetFacts(base.category, sheet),
      cells: cellFacts(tables),
    };
    return { from, facts: withScatter(unit, criteria ?? [], this.scatters) };
  }
}

const partFacts = (part: NeededPart, rates: ExchangeRates): NeededPart => ({
  ...part,
  prices: withRates(part.prices, rates).map(plainPrice),
});
