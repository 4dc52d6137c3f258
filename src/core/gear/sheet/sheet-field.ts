import type { SheetUnit } from './sheet-units';

interface FieldBase {
  /** Name in the archive and in files; one that is a figure of the registry stands beside the measured one. */
  readonly id: string;
  readonly name: string;
  /** Part of the sheet in which it stands. */
  readonly group: SheetGroup;
  /** What data sheets call it as well, in lower case. */
  readonly alsoCalled?: readonly string[];
}

/** Parts of a sheet, in the order in which they are filled in. */
export const SHEET_GROUPS = ['What it is', 'Electrical', 'Sound', 'Body', 'Box and maker'] as const;
export type SheetGroup = (typeof SHEET_GROUPS)[number];

/** A number with the unit and the conditions under which it holds. */
export interface NumberSheetField extends FieldBase {
  readonly type: 'number';
  /** Unit in which it is compared; others of its kind may be typed. */
  readonly unit: SheetUnit;
  readonly least?: number;
  readonly most?: number;
  /** A condition that its name says already: a weighting. One that contradicts it is refused. */
  readonly implies?: 'A-weighted' | 'unweighted';
  /** Which end of a range it is, where data sheets give both in one line: "40 Hz – 18 kHz". */
  readonly end?: 'low' | 'high';
}

/** One or several words, of a list or a person's own; what is marked as a class divides the units of a kind. */
export interface WordsSheetField extends FieldBase {
  readonly type: 'choice' | 'several';
  readonly options: readonly string[];
  readonly isClass?: boolean;
}

/** Something that is there or not. */
export interface YesNoSheetField extends FieldBase {
  readonly type: 'yes-no';
  readonly isClass?: boolean;
}

/** What nothing is compared by. */
export interface TextSheetField extends FieldBase {
  readonly type: 'text';
}

/** What a data sheet of a kind of gear has a place for. */
export type SheetField = NumberSheetField | WordsSheetField | YesNoSheetField | TextSheetField;

/** What stands in a field, as it was typed. */
export type SheetValue =
  | { readonly type: 'number'; readonly value: number; readonly unit: string; readonly condition: string }
  | { readonly type: 'words'; readonly words: readonly string[] }
  | { readonly type: 'yes-no'; readonly yes: boolean }
  | { readonly type: 'text'; readonly text: string };

/** Whether units of a kind can be divided by it. */
export const isClassField = (field: SheetField): boolean =>
  (field.type === 'choice' || field.type === 'several' || field.type === 'yes-no') && field.isClass === true;
