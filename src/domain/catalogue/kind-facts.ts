import type { GearKind } from '#core/gear/gear-kind';
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

/** What facts of every unit of the kind are made with. */
interface Shared {
  readonly kind: GearKind | null;
  readonly criteria: readonly Criterion[] | null;
  readonly rates: ExchangeRates;
  readonly scatters: KindScatters;
}

/** What a unit's facts were made of, and what came of it. */
interface Made {
  readonly known: KnownUnit;
  readonly comparable: readonly RankedFact[];
  readonly heard: HeardFact | null;
  readonly shared: Shared;
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
  private shared: Shared | null = null;
  private readonly made = new Map<string, Made>();

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
    const before = this.last?.units.length === units.length ? this.last.units : null;
    const has = (isSame: (was: KnownUnit, is: KnownUnit) => boolean): boolean =>
      before?.every((was, i) => was === units[i] || isSame(was, units[i])) ?? false;
    const isCompared = has((was, is) => was.facts === is.facts && was.bridging === is.bridging);
    if (!isCompared || this.last?.protocols !== protocols) this.compare(units, protocols);
    if (!has((was, is) => was.repeated === is.repeated)) this.scatters = this.scattersOf(units);
    this.last = { units, protocols };
    const shared = this.sharedBy(units, criteria, rates);
    const facts = units.map((unit) => this.factsOf(unit, heard.get(unit.base.id) ?? null, shared));
    if (this.made.size > units.length) this.forgetAllBut(units);
    return { facts, scatters: this.scatters };
  }

  /** The same object where nothing of it has changed. */
  private sharedBy(units: readonly KnownUnit[], criteria: readonly Criterion[] | null, rates: ExchangeRates): Shared {
    const kind = units.length === 0 ? null : gearKind(units[0].base.category);
    const { scatters } = this;
    const was = this.shared;
    const isSame = was?.kind === kind && was.criteria === criteria && was.rates === rates && was.scatters === scatters;
    return isSame ? was : (this.shared = { kind, criteria, rates, scatters });
  }

  private forgetAllBut(units: readonly KnownUnit[]): void {
    const ids = new Set(units.map((u) => u.base.id));
    for (const id of this.made.keys()) if (!ids.has(id)) this.made.delete(id);
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

  private factsOf(known: KnownUnit, heard: HeardFact | null, shared: Shared): UnitFacts {
    const { base, points, prices, needs, sheet, tables } = known;
    const before = this.made.get(base.id);
    const comparable = this.comparable.get(base.id) ?? NO_FACTS;
    const heardAgain = heard === null ? null : unlessChanged(before?.heard ?? undefined, heard);
    const isSame =
      before?.shared === shared &&
      before.comparable === comparable &&
      before.heard === heardAgain &&
      (before.known === known || hasSameParts(before.known, known));
    if (isSame) return before.facts;
    const { criteria, rates, scatters } = shared;
    const unit = {
      ...unitFacts(base.id, comparable, points, withRates(prices, rates)),
      ...(needs.length === 0 ? {} : { needs: needs.map((need) => partFacts(need, rates)) }),
      reviewedOn: base.first_tested,
      heard: heardAgain,
      sheet: sheetFacts(base.category, sheet),
      cells: cellFacts(tables),
    };
    const facts = withScatter(unit, criteria ?? [], scatters);
    this.made.set(base.id, { known, comparable, heard: heardAgain, shared, facts });
    return facts;
  }
}

/** Whether what facts are made of is the same, apart from what is compared with other units. */
const hasSameParts = (was: KnownUnit, is: KnownUnit): boolean =>
  was.base.first_tested === is.base.first_tested &&
  was.points === is.points &&
  was.prices === is.prices &&
  was.needs === is.needs &&
  was.sheet === is.sheet &&
  was.tables === is.tables;

const partFacts = (part: NeededPart, rates: ExchangeRates): NeededPart => ({
  ...part,
  prices: withRates(part.prices, rates).map(plainPrice),
});
