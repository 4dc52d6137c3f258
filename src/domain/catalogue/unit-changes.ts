import type { SeparateFacts } from '#contracts/events';

/** What has changed of units since they were read: all of a unit, or some facts of it. */
export class UnitChanges {
  /** Null: all of it. */
  private readonly byUnit = new Map<string, ReadonlySet<SeparateFacts> | null>();

  /**
   * @param unit - its number
   * @param only - the facts that changed; null: any may have
   */
  note(unit: string, only: SeparateFacts | null): void {
    const before = this.byUnit.get(unit);
    if (before === null) return;
    this.byUnit.set(unit, only === null ? null : new Set([...(before ?? []), only]));
  }

  get isEmpty(): boolean {
    return this.byUnit.size === 0;
  }

  /**
   * Units of which everything has to be read.
   *
   * @param isKnown - whether a unit was read before: one that was not has no facts to add to
   */
  whole(isKnown: (unit: string) => boolean): string[] {
    return [...this.byUnit].flatMap(([unit, facts]) => (facts === null || !isKnown(unit) ? [unit] : []));
  }

  /** Units of which these facts have to be read, beside those of {@link whole}. */
  of(facts: SeparateFacts, isKnown: (unit: string) => boolean): string[] {
    return [...this.byUnit].flatMap(([unit, some]) => (some?.has(facts) && isKnown(unit) ? [unit] : []));
  }
}
