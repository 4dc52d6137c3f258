import { numberText } from '../../text/read-number';
import { isClassField, type NumberSheetField, type SheetField, type SheetValue } from './sheet-field';
import { conversionTo, unitsOf } from './sheet-units';

/**
 * A value as it is shown and can be typed again.
 *
 * @example
 *   sheetValueText({ type: 'number', value: -128, unit: 'dBu', condition: 'A-weighted' }); // => '−128 dBu, A-weighted'
 */
export function sheetValueText(value: SheetValue): string {
  switch (value.type) {
    case 'number':
      return [numberText(value.value, { unit: value.unit }), value.condition].filter((t) => t !== '').join(', ');
    case 'words':
      return value.words.join(', ');
    case 'yes-no':
      return value.yes ? 'yes' : 'no';
    case 'text':
      return value.text;
  }
}

/** The number of a field in the unit that it is compared in; null where it has none. */
export function sheetNumber(field: SheetField, value: SheetValue | undefined): number | null {
  if (field.type !== 'number' || value?.type !== 'number') return null;
  const number = conversionTo(field.unit, value.unit)?.(value.value) ?? NaN;
  return Number.isFinite(number) ? number : null;
}

/** What a number comes to in the field's own unit, where it was given in another one; '' where there is nothing to say. */
export function convertedText(field: SheetField, value: SheetValue): string {
  const number = sheetNumber(field, value);
  if (number === null || field.type !== 'number' || value.type !== 'number') return '';
  const [unit] = unitsOf(field.unit);
  const isSame = conversionTo(field.unit, value.unit) === conversionTo(field.unit, unit);
  if (isSame || bare(value.unit) === bare(unit)) return '';
  const rounded = unit.startsWith('dB') ? number.toFixed(LEVEL_DECIMALS) : number.toPrecision(SHOWN_DIGITS);
  return numberText(Number(rounded), { unit });
}

/** A unit without its SI prefix: 2.6 kΩ are read as 2600 Ω by everybody. */
const bare = (unit: string): string => unit.replace(/^[kMmcµ](?=[\p{L}Ω])/u, '');
/** As many digits as a data sheet is good for. */
const SHOWN_DIGITS = 4;
const LEVEL_DECIMALS = 1;

/** Classes that a unit belongs to by a field; none where it is no class or nothing is noted. */
export function classesOf(field: SheetField, value: SheetValue | undefined): readonly string[] {
  if (!isClassField(field) || value === undefined) return [];
  if (value.type === 'words') return value.words;
  return value.type === 'yes-no' ? [value.yes ? 'yes' : 'no'] : [];
}

/** Why a value cannot stand in a field; null where it can. What comes in by files and requests is not typed into it. */
export function misfit(field: SheetField, value: SheetValue): string | null {
  const fits = field.type === 'choice' || field.type === 'several' ? value.type === 'words' : value.type === field.type;
  if (!fits) return `takes ${TAKES[field.type]}`;
  if (field.type === 'choice' && value.type === 'words' && value.words.length !== 1) return 'takes one word';
  if (field.type !== 'number' || value.type !== 'number') return null;
  const number = sheetNumber(field, value);
  if (number === null) return `takes a number in ${unitsOf(field.unit).join(', ')}, not in “${value.unit}”`;
  const { least = -Infinity, most = Infinity } = field;
  return number >= least && number <= most ? null : `takes a number ${rangeText(field)}`;
}

/** The range of a field in its own unit, in words; '' where it has none. */
export function rangeText({ unit: own, least, most }: NumberSheetField): string {
  const [unit] = unitsOf(own);
  return [
    ...(least === undefined ? [] : [`from ${numberText(least, { unit })}`]),
    ...(most === undefined ? [] : [`up to ${numberText(most, { unit })}`]),
  ].join(' ');
}

const TAKES: Readonly<Record<SheetField['type'], string>> = {
  number: 'a number',
  choice: 'words',
  several: 'words',
  'yes-no': 'yes or no',
  text: 'a text',
};
