import { addDays } from './local-day';
import type { Reading } from './reading';

/** What a field for a day takes, in words. */
export const ACCEPTED_DAY = 'a day as 2026-05-02, 2.5.2026, 2 May 2026, today or yesterday';

const MONTHS = 'january february march april may june july august september october november december'.split(' ');
const [EARLIEST, LATEST] = ['1900-01-01', '2199-12-31'];

/**
 * Reads a day as a person types it. What could be one of two days (3/4/2026) is refused, and so is a day that no
 * calendar has; nothing is moved to the nearest one.
 *
 * @param text - as typed: ISO 8601, day before month with points or with the month's name, today, yesterday
 * @param today - ISO 8601, what "today" means
 * @returns the day as ISO 8601, null for an empty text, or why it is refused
 *
 * @example
 *   readDay('2.5.2026', '2026-01-01'); // => { isUnderstood: true, value: '2026-05-02' }
 */
export function readDay(text: string, today: string): Reading<string> {
  const typed = text.trim();
  if (typed === '') return { isUnderstood: true, value: null };
  const word = typed.toLowerCase();
  if (word === 'today') return { isUnderstood: true, value: today };
  if (word === 'yesterday') return { isUnderstood: true, value: addDays(today, -1) };
  const parts = partsOf(word);
  if (!parts) return refused(`“${typed}” is no day that is understood in one way only`);
  const day = [String(parts.year).padStart(4, '0'), two(parts.month), two(parts.day)].join('-');
  if (!exists(day)) return refused(`“${typed}” is on no calendar`);
  if (day < EARLIEST || day > LATEST) return refused(`“${typed}” is not between ${EARLIEST} and ${LATEST}`);
  return { isUnderstood: true, value: day };
}

interface Parts {
  readonly year: number;
  readonly month: number;
  readonly day: number;
}

function partsOf(word: string): Parts | null {
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(word);
  if (iso) return { year: Number(iso[1]), month: Number(iso[2]), day: Number(iso[3]) };
  const points = /^(\d{1,2})\.\s*(\d{1,2})\.\s*(\d{4})$/.exec(word);
  if (points) return { day: Number(points[1]), month: Number(points[2]), year: Number(points[3]) };
  const named = /^(\d{1,2})\.?\s+([a-z]{3,9})\.?,?\s+(\d{4})$/.exec(word);
  const month = named ? monthOf(named[2]) : 0;
  return named && month > 0 ? { day: Number(named[1]), month, year: Number(named[3]) } : null;
}

/** 1 for January, under its whole name or three letters of it (four of September); 0 for none. */
const monthOf = (name: string): number =>
  MONTHS.findIndex((whole) => name === whole || name === whole.slice(0, 3)) + 1 || (name === 'sept' ? 9 : 0);

const two = (n: number): string => String(n).padStart(2, '0');

/** A Date takes the 31st of June as the first of July: what comes back is another day then. */
function exists(day: string): boolean {
  const at = new Date(`${day}T00:00:00Z`);
  return !Number.isNaN(at.getTime()) && at.toISOString().startsWith(day);
}

const refused = (what: string): Reading<string> => ({ isUnderstood: false, why: `${what}; ${ACCEPTED_DAY} is taken.` });
