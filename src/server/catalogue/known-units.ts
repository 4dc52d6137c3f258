import { ALGORITHM_VERSION } from '#core/measure/registry';
import type { DatedPrice, NeededPart } from '#core/rules/price-rule';
import { unitKey } from '#contracts/unit-name';
import { knownAgain, type KnownUnit } from '#domain/catalogue/known-unit';
import { groupBy } from '#domain/group-by';
import type { Database } from '../platform/db/database';
import { bridgingFacts, currentFacts, repeatedFacts } from '../runs/queries/measurement';
import { tablesOfUnits } from '../runs/queries/table-reading';
import { currentPoints } from './queries/points';
import { listPrices } from './queries/price';
import { needsOfUnits, typedPrice, unitsNeeding, type NeedRow } from './queries/relation';
import { currentSheets } from './queries/sheet';
import { listSpecimens, specimensInOrder } from './queries/specimen';

const NONE: readonly never[] = [];

/** A part of the catalogue has its prices; one that was typed has the one that was typed with it. */
function neededPart(need: NeedRow, prices: readonly DatedPrice[]): NeededPart {
  const { name, uses, other_id } = need;
  if (other_id !== null) return { name, uses, prices, isTyped: false };
  const typed = typedPrice(need);
  return { name, uses, prices: typed ? [{ ...typed, kind: 'street' }] : [], isTyped: true };
}

/** All units as the archive has them, kept up to date unit by unit. */
export class KnownUnits {
  private units = new Map<string, KnownUnit>();
  private order: readonly string[] = [];

  /** @param until - what held later than on this day is not known; null: all is */
  constructor(
    private readonly database: Database,
    private readonly until: string | null = null,
  ) {}

  /**
   * Reads units anew.
   *
   * @param changed - those whose facts have changed; null: all
   */
  async refresh(changed: readonly string[] | null): Promise<void> {
    if (changed?.length === 0) return;
    const { database: db, until } = this;
    // What a unit costs in use follows from the prices of its parts.
    const ids = changed && [...new Set([...changed, ...(await unitsNeeding(db, changed))])];
    const bases = await listSpecimens(db, ALGORITHM_VERSION, ids, until);
    const needs = await needsOfUnits(db, ids, until);
    const parts = needs.flatMap((n) => n.other_id ?? []);
    const prices = groupBy(await listPrices(db, ids && [...ids, ...parts], until), (p) => p.specimen_id);
    const needed = groupBy(needs, (n) => n.specimen_id);
    const points = groupBy(await currentPoints(db, ids, until), (p) => p.specimen_id);
    const facts = groupBy(await currentFacts(db, ALGORITHM_VERSION, ids, until), (f) => f.specimen_id);
    const bridging = groupBy(await bridgingFacts(db, ALGORITHM_VERSION, ids, until), (f) => f.specimen_id);
    const repeated = groupBy(await repeatedFacts(db, ALGORITHM_VERSION, ids, until), (f) => f.specimen_id);
    const sheets = groupBy(await currentSheets(db, ids, until), (e) => e.specimen_id);
    const tables = groupBy(await tablesOfUnits(db, ids, until), (t) => t.specimen_id);
    const before = this.units;
    const units = ids === null ? new Map<string, KnownUnit>() : new Map(before);
    let isReordered = false;
    for (const base of bases) {
      const { id } = base;
      const known = before.get(id);
      units.set(
        id,
        knownAgain(known, {
          base,
          prices: prices.get(id) ?? NONE,
          needs: (needed.get(id) ?? NONE).map((need) => neededPart(need, prices.get(need.other_id ?? '') ?? NONE)),
          points: points.get(id) ?? NONE,
          sheet: (sheets.get(id) ?? NONE).map(({ field, value }) => ({ field, value })),
          tables: (tables.get(id) ?? NONE).map(({ protocol, step, cells }) => ({ protocol, step, cells })),
          facts: facts.get(id) ?? NONE,
          bridging: bridging.get(id) ?? NONE,
          repeated: repeated.get(id) ?? NONE,
        }),
      );
      isReordered ||= !known || unitKey(known.base) !== unitKey(base);
    }
    const found = new Set(bases.map((b) => b.id));
    for (const id of ids ?? []) if (!found.has(id)) isReordered = units.delete(id) || isReordered;
    // Both or nothing: what comes between is asked again.
    const order =
      ids === null ? bases.map((b) => b.id) : isReordered ? (await specimensInOrder(db)).map((s) => s.id) : this.order;
    this.units = units;
    this.order = order;
  }

  /** By maker, model and label. */
  inOrder(): readonly KnownUnit[] {
    return this.order.flatMap((id) => this.units.get(id) ?? []);
  }
}
