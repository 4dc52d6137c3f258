import type { GearKind } from './gear-kind';
import type { ShippedKindId } from './shipped-kinds';
import type { SheetField } from './sheet/sheet-field';

/** Hatches that a person’s kind can have; those that ship have their own. */
export const OWN_HATCHES = ['rings', 'bricks', 'grid', 'chevrons'] as const;
export type OwnHatch = (typeof OWN_HATCHES)[number];

/** What a person has made of a kind, or the kind that they have added: a document with versions. */
export interface KindDocument {
  /** Of a kind that ships: what is added to it. Any other name is a kind of its own. */
  readonly id: string;
  readonly version: number;
  readonly name: string;
  /** The kind that ships after which it is measured: its steps, figures, claims, and the fields of its sheet. */
  readonly like: ShippedKindId;
  readonly hatch: OwnHatch | null;
  /** Fields of its data sheet beside those of the kind that it is like. */
  readonly fields: readonly SheetField[];
  /** Fields of the kind that it is like that its sheet does not show. */
  readonly withoutFields: readonly string[];
  /** Columns of lists by their names, in order; null: the key figures of the kind. */
  readonly columns: readonly string[] | null;
}

/**
 * A kind as a document makes it.
 *
 * @param document - undefined where nobody has changed it
 * @param base - the kind that ships after which it is measured
 */
export function kindOf(document: KindDocument | undefined, base: GearKind): GearKind {
  if (!document) return base;
  const without = new Set(document.withoutFields);
  return {
    ...base,
    id: document.id,
    name: document.name,
    like: base.id,
    hatch: document.hatch ?? base.hatch ?? base.id,
    sheet: [...base.sheet.filter((f) => !without.has(f.id)), ...document.fields],
    columns: document.columns,
  };
}
