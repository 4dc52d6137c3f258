import type { Reading } from './reading';

/**
 * Words as they are typed. What is longer than what is kept is refused with both lengths, not cut.
 *
 * @param text - as typed; blanks stay
 * @param most - most characters (UTF-16 units) that are kept; 0 for no limit
 */
export function readText(text: string, most: number): Reading<string> {
  if (text === '') return { isUnderstood: true, value: null };
  if (most === 0 || text.length <= most) return { isUnderstood: true, value: text };
  return {
    isUnderstood: false,
    why: `${String(text.length)} characters are written; ${String(most)} are kept. Nothing is cut: shorten it.`,
  };
}

/**
 * Several short texts parted by commas, without blanks around them; the second of two that are the same goes.
 *
 * @param text - as typed
 *
 * @example
 *   readList('pop filter, , windscreen'); // => { isUnderstood: true, value: ['pop filter', 'windscreen'] }
 */
export function readList(text: string): Reading<string[]> {
  const texts = text.split(',').map((t) => t.trim());
  const list = [...new Set(texts.filter((t) => t !== ''))];
  return { isUnderstood: true, value: list.length === 0 ? null : list };
}

/**
 * The code of a currency by ISO 4217: three letters, in either case.
 *
 * @param text - as typed
 *
 * @example
 *   readCurrency('eur'); // => { isUnderstood: true, value: 'EUR' }
 */
export function readCurrency(text: string): Reading<string> {
  const code = text.trim().toUpperCase();
  if (code === '') return { isUnderstood: true, value: null };
  if (/^[A-Z]{3}$/.test(code)) return { isUnderstood: true, value: code };
  return {
    isUnderstood: false,
    why: `“${text.trim()}” is no code of a currency; three letters such as EUR are taken.`,
  };
}
