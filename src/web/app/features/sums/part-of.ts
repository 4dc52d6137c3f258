import { gearKind } from '#core/gear/kinds';
import type { SumPart } from './sum';

/** Whether units of a kind can be a part: of one of its kinds, or of one's own that is measured like it. */
export const isPartOf = ({ kinds }: SumPart, category: string): boolean =>
  kinds.includes(category) || kinds.includes(gearKind(category).like ?? category);
