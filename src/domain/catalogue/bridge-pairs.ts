import type { BridgePair } from '#core/stats/paired-offset';
import type { FactRow } from './fact';

/** The newest figure of each unit under each of two versions. */
export function bridgePairs(
  facts: readonly FactRow[],
  quantityId: string,
  from: number,
  to: number,
): { unit: string; pair: BridgePair }[] {
  const newest = (version: number): Map<string, FactRow> => {
    const found = new Map<string, FactRow>();
    for (const f of facts) {
      if (f.quantity === quantityId && f.protocol_version === version && f.value !== null && !found.has(f.specimen_id))
        found.set(f.specimen_id, f);
    }
    return found;
  };
  const [before, after] = [newest(from), newest(to)];
  return [...before].flatMap(([unit, b]) => {
    const a = after.get(unit);
    if (!a || a.value === null || b.value === null) return [];
    const pair = { before: b.value, after: a.value, beforeUncertainty: b.uncertainty, afterUncertainty: a.uncertainty };
    return [{ unit, pair }];
  });
}
