import type { ExchangeRate } from '../rules/exchange-rates';
import { readDay } from './read-day';
import { readNumber } from './read-number';
import { readCurrency } from './read-text';

/** What a file of rates says; nothing of it is used while a line is wrong. */
export interface ReadRates {
  readonly rates: readonly ExchangeRate[];
  readonly problems: readonly { readonly line: number; readonly field: string; readonly why: string }[];
}

/** A rate that a person may type: nothing costs less, and no currency is a million times a euro. */
export const RATE_SHEET = { unit: '', least: 1e-6, most: 1e9 } as const;
const COLUMNS = ['date', 'currency', 'rate'] as const;

/**
 * Reads lines of "date,currency,rate", with or without a head, parted by commas, semicolons or tabs.
 *
 * @param text - of the file
 * @param today - for words such as "today"
 */
export function readRates(text: string, today: string): ReadRates {
  const rates: ExchangeRate[] = [];
  const problems: { line: number; field: string; why: string }[] = [];
  const lines = text.replace(/^\uFEFF/u, '').split(/\r?\n/u);
  lines.forEach((raw, i) => {
    const line = raw.trim();
    if (line === '') return;
    const cells = line.split(/[\t;]/u.test(line) ? /[\t;]/u : /,/u).map((c) => c.trim().replace(/^"(.*)"$/u, '$1'));
    if (i === 0 && cells.map((c) => c.toLowerCase()).join() === COLUMNS.join()) return;
    const say = (field: string, why: string): void => void problems.push({ line: i + 1, field, why });
    if (cells.length !== COLUMNS.length) {
      say('line', `${cells.length} cells; date, currency and rate are taken`);
      return;
    }
    const [date, currency, rate] = [readDay(cells[0], today), readCurrency(cells[1]), readNumber(cells[2], RATE_SHEET)];
    if (!date.isUnderstood) say('date', date.why);
    if (!currency.isUnderstood) say('currency', currency.why);
    if (!rate.isUnderstood) say('rate', rate.why);
    if (!date.isUnderstood || !currency.isUnderstood || !rate.isUnderstood) return;
    if (date.value === null || currency.value === null || rate.value === null) say('line', 'a cell is empty');
    else rates.push({ date: date.value, currency: currency.value, rate: rate.value });
  });
  return { rates, problems };
}
