import type { DatedPrice, NeededPart } from '#core/rules/price-rule';
import type { FactRow } from './fact';
import type { SheetRow, TableRow } from './sheet-facts';
import type { GivenPoints, RepeatedReading, SpecimenBase } from './specimen-base';

/** All that is known of a unit, as the archive has it. What has not changed stays the same object. */
export interface KnownUnit {
  readonly base: SpecimenBase;
  readonly prices: readonly DatedPrice[];
  /** Parts without which it cannot be used. */
  readonly needs: readonly NeededPart[];
  readonly points: readonly GivenPoints[];
  /** What stands in its sheet. */
  readonly sheet: readonly SheetRow[];
  /** Tables that were filled in, newest first. */
  readonly tables: readonly TableRow[];
  /** The figures that may count, by quantity, newest first. */
  readonly facts: readonly FactRow[];
  /** Exact figures, where it was measured under several versions of a protocol. */
  readonly bridging: readonly FactRow[];
  /** Readings, where it was read more than once in the same way. */
  readonly repeated: readonly RepeatedReading[];
}

/** What was known before where nothing has changed, so that what follows from it need not be made again. */
export const unlessChanged = <T>(before: T | undefined, now: T): T =>
  before !== undefined && (before === now || JSON.stringify(before) === JSON.stringify(now)) ? before : now;

/** The same, part by part. */
export function knownAgain(before: KnownUnit | undefined, now: KnownUnit): KnownUnit {
  if (!before) return now;
  const parts = {
    base: unlessChanged(before.base, now.base),
    prices: unlessChanged(before.prices, now.prices),
    needs: unlessChanged(before.needs, now.needs),
    points: unlessChanged(before.points, now.points),
    sheet: unlessChanged(before.sheet, now.sheet),
    tables: unlessChanged(before.tables, now.tables),
    facts: unlessChanged(before.facts, now.facts),
    bridging: unlessChanged(before.bridging, now.bridging),
    repeated: unlessChanged(before.repeated, now.repeated),
  };
  const isSame = (Object.keys(parts) as (keyof KnownUnit)[]).every((key) => parts[key] === before[key]);
  return isSame ? before : parts;
}
