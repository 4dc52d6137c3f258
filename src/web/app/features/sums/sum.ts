import type { CautionId } from '#core/rules/cautions';
import type { KeptSheet } from '#core/text/kept-number';
import type { QuantityId } from '#core/measure/registry';
import type { SheetUnit } from '#core/gear/sheet/sheet-units';

/** A unit of the catalogue that numbers are taken from. */
export interface SumPart {
  readonly id: string;
  readonly label: string;
  /** Kinds of gear, as they ship, that it can be. */
  readonly kinds: readonly string[];
}

/** Where a number of a field is found on a unit's page: measured first, else claimed. */
export interface FoundOn {
  readonly part: string;
  readonly quantity?: QuantityId;
  /** Field of the data sheet, and the unit that the sum wants it in. */
  readonly field?: string;
  readonly unit: SheetUnit;
}

/** One number that a sum is made of. */
export interface SumField {
  readonly id: string;
  readonly label: string;
  readonly sheet: KeptSheet;
  /** What it begins with; null: it has to be typed, or is not needed. */
  readonly usual: number | null;
  /** The sum can do without it. */
  readonly isOptional?: boolean;
  readonly from?: FoundOn;
}

/** A place on the line of levels. */
export interface LevelMark {
  readonly label: string;
  readonly value: number;
}

/** What a sum comes to. */
export interface SumAnswer {
  readonly lines: readonly { readonly label: string; readonly text: string }[];
  /** What it means, in words. */
  readonly words: readonly string[];
  readonly marks: readonly LevelMark[];
  readonly markUnit: string;
}

/** Numbers by the names of their fields; what may be left out is null. */
export type SumValues = Readonly<Record<string, number | null>>;

/** One small calculation. */
export interface Sum {
  readonly id: string;
  /** The question that it answers. */
  readonly title: string;
  readonly parts: readonly SumPart[];
  readonly fields: readonly SumField[];
  readonly formula: string;
  readonly cautions: readonly CautionId[];
  readonly answer: (values: (field: string) => number, optional: (field: string) => number | null) => SumAnswer;
}
