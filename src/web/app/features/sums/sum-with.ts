import { isPartOf } from './part-of';
import { SUMS } from './all-sums';

/** Address of the first sum that a unit can be a part of; null where it is part of none. */
export function sumWith({
  id,
  category,
}: {
  readonly id: string;
  readonly category: string;
}): Record<string, string> | null {
  for (const sum of SUMS) {
    const part = sum.parts.find((p) => isPartOf(p, category));
    if (part) return { sum: sum.id, [part.id]: id };
  }
  return null;
}
