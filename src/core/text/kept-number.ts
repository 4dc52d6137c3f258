import { numberText, readNumber, type NumberSheet } from './read-number';
import type { Reading } from './reading';

/** A field that shows another unit than its value is kept in. */
export interface KeptSheet extends NumberSheet {
  /** How many of the unit shown one of the unit kept is: 100 for metres that are shown as centimetres. 1 where left out. */
  readonly shownPer?: number;
}

/** More digits than anybody types; what binary fractions leave behind them goes. */
const DIGITS = 9;
const tidy = (value: number): number => Number(value.toPrecision(DIGITS));

/**
 * Reads a number in the unit that is shown (range and further units are the sheet's) as one in the unit that is kept.
 *
 * @example
 *   readKept('15 cm', { unit: 'cm', shownPer: 100 }); // => { isUnderstood: true, value: 0.15 }
 */
export function readKept(text: string, sheet: KeptSheet): Reading<number> {
  const read = readNumber(text, sheet);
  const { shownPer } = sheet;
  if (!read.isUnderstood || read.value === null || shownPer === undefined) return read;
  return { isUnderstood: true, value: tidy(read.value / shownPer) };
}

/**
 * A kept value in the unit that is shown.
 *
 * @example
 *   keptText(0.15, { unit: 'cm', shownPer: 100 }); // => '15 cm'
 */
export const keptText = (value: number, sheet: KeptSheet): string =>
  numberText(sheet.shownPer === undefined ? value : tidy(value * sheet.shownPer), sheet);
