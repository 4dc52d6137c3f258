import { ALGORITHM_VERSION } from '#core/measure/registry';
import type { DatedPrice, NeededPart } from '#core/rules/price-rule';
import { unitKey } from '#contracts/unit-name';
import { knownAgain, type KnownUnit } from '#domain/catalogue/known-unit';
import type { UnitChanges } from '#domain/catalogue/unit-changes';
import { groupBy } from '#domain/group-by';
import { inOrder } from '#domain/in-order';
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
   * @param changed - what has changed of which; null: all
   */
  async refresh(changed: UnitChanges | null): Promise<void> {
    if (changed?.isEmpty) return;
    const before = this.units;
    const isKnown = (id: string): boolean => before.has(id);
    const units = changed === null ? new Map<string, KnownUnit>() : new Map(before);
    const whole = changed && changed.whole(isKnown);
    const order = whole?.length === 0 ? this.order : await this.readWhole(units, whole);
    if (changed) {
      await this.readPart(units, await this.withThoseNeeding(changed.of('prices', isKnown)), (ids) => this.costs(ids));
      await this.readPart(units, changed.of('points', isKnown), (ids) => this.points(ids));
      await this.readPart(units, changed.of('sheet', isKnown), (ids) => this.sheets(ids));
    }
    // Both or nothing: what comes between is asked again.
    this.units = units;
    this.order = order;
  }

  /**
   * Everything about units.
   *
   * @param units - where they are put; those that are gone are taken out
   * @param whole - which; null: all
   * @returns all units in the order of lists
   */
  private async readWhole(units: Map<string, KnownUnit>, whole: readonly string[] | null): Promise<readonly string[]> {
    const { database: db, until } = this;
    const ids = whole && (await this.withThoseNeeding(whole));
    const bases = await listSpecimens(db, ALGORITHM_VERSION, ids, until);
    const costs = await this.costs(ids);
    const points = await this.points(ids);
    const sheets = await this.sheets(ids);
    const facts = groupBy(await currentFacts(db, ALGORITHM_VERSION, ids, until), (f) => f.specimen_id);
    const bridging = groupBy(await bridgingFacts(db, ALGORITHM_VERSION, ids, until), (f) => f.specimen_id);
    const repeated = groupBy(await repeatedFacts(db, ALGORITHM_VERSION, ids, until), (f) => f.specimen_id);
    const tables = groupBy(await tablesOfUnits(db, ids, until), (t) => t.specimen_id);
    let isReordered = false;
    for (const base of bases) {
      const { id } = base;
      const known = this.units.get(id);
      units.set(
        id,
        knownAgain(known, {
          base,
          ...costs(id),
          ...points(id),
          ...sheets(id),
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
    if (ids === null) return bases.map((b) => b.id);
    return isReordered ? (await specimensInOrder(db)).map((s) => s.id) : this.order;
  }

  private async readPart(
    units: Map<string, KnownUnit>,
    ids: readonly string[],
    read: (ids: readonly string[]) => Promise<(id: string) => Partial<KnownUnit>>,
  ): Promise<void> {
    if (ids.length === 0) return;
    const part = await read(ids);
    for (const id of ids) {
      const known = units.get(id);
      if (known) units.set(id, knownAgain(known, { ...known, ...part(id) }));
    }
  }

  /** What a unit costs in use follows from the prices of its parts. */
  private async withThoseNeeding(ids: readonly string[]): Promise<readonly string[]> {
    return ids.length === 0 ? ids : [...new Set([...ids, ...(await unitsNeeding(this.database, ids))])];
  }

  private async costs(ids: readonly string[] | null): Promise<(id: string) => Pick<KnownUnit, 'prices' | 'needs'>> {
    const needs = await needsOfUnits(this.database, ids, this.until);
    const parts = needs.flatMap((n) => n.other_id ?? []);
    const listed = await listPrices(this.database, ids && [...ids, ...parts], this.until);
    const prices = groupBy(listed, (p) => p.specimen_id);
    const needed = groupBy(needs, (n) => n.specimen_id);
    return (id) => ({
      prices: prices.get(id) ?? NONE,
      needs: (needed.get(id) ?? NONE).map((need) => neededPart(need, prices.get(need.other_id ?? '') ?? NONE)),
    });
  }

  private async points(ids: readonly string[] | null): Promise<(id: string) => Pick<KnownUnit, 'points'>> {
    const points = groupBy(await currentPoints(this.database, ids, this.until), (p) => p.specimen_id);
    return (id) => ({ points: points.get(id) ?? NONE });
  }

  private async sheets(ids: readonly string[] | null): Promise<(id: string) => Pick<KnownUnit, 'sheet'>> {
    const sheets = groupBy(await currentSheets(this.database, ids, this.until), (e) => e.specimen_id);
    return (id) => ({ sheet: (sheets.get(id) ?? NONE).map(({ field, value }) => ({ field, value })) });
  }

  /** By maker, model and label. */
  inOrder(): readonly KnownUnit[] {
    return inOrder(this.units, this.order);
  }
}
