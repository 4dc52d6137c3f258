import { sheetField } from '#core/gear/kinds';
import { sheetValueText } from '#core/gear/sheet/sheet-value';
import type { Rubric } from '#core/rules/rubric';
import type { SpecimenSheet } from '#contracts/specimen';
import { formatNumber, formatPrice } from '../../ui/format';
import { relationWords } from './relation-words';

/** Something that was said of a unit on a day. */
export interface HistoryLine {
  readonly day: string;
  readonly text: string;
  /** Day of what has taken its place; null where it stands. */
  readonly until: string | null;
}

const EVENT_WORDS = {
  firmware: 'New firmware',
  repair: 'Repaired',
  'due-back': 'To be back',
  note: 'Note',
  sum: 'Sum kept',
} as const;

/**
 * All that was said of a unit, newest first, each with what has taken its place since. What was corrected or left out is no
 * part of it: it stands under the corrections.
 *
 * @param rubric - names the criteria; null where there is none
 */
export function unitHistory(sheet: SpecimenSheet, rubric: Rubric | null): HistoryLine[] {
  const { row, runs, prices, points, events, photographs, relations } = sheet;
  const stands = (day: string, text: string): HistoryLine => ({ day, text, until: null });
  const criteria = new Map(rubric?.criteria.map((c) => [c.id, c.name]));
  const lines = [
    ...runs.map((r) => stands(r.date, `Tested: ${r.protocol} ${r.protocolVersion}, ${takeWords(r.takes.length)}${r.purpose === 'unit' ? '' : `, ${r.purpose} the session`}`)), // prettier-ignore
    ...prices.map((p) => stands(p.date, `${p.kind} price ${formatPrice(p.amount, p.currency)}`)),
    ...superseded(sheet.sheet, (e) => e.field).map(({ entry, until }) => ({
      day: entry.date,
      until,
      text: `${sheetField(row.category, entry.field)?.name ?? entry.field}: ${entry.value === null ? 'taken back' : sheetValueText(entry.value)}${entry.reason ? ` (${entry.reason})` : ''}`,
    })),
    ...superseded(points, (p) => p.criterion).map(({ entry, until }) => ({
      day: entry.date,
      until,
      text: `${criteria.get(entry.criterion) ?? entry.criterion}: ${formatNumber(entry.value, 1)} points${entry.reason ? ` (${entry.reason})` : ''}`,
    })),
    ...events.map((e) => stands(e.day, `${EVENT_WORDS[e.kind]}${e.note ? `: ${e.note}` : ''}`)),
    ...photographs.map((p) => stands(p.date, `Photograph${p.caption ? `: ${p.caption}` : ` of the ${p.subject}`}`)),
    ...relations.map((r) => stands(r.since, `It ${relationWords(r)} ${r.other?.name ?? r.name}`)),
  ];
  // Of one day in the order of the work.
  return lines.map((line, i) => ({ line, i })).sort((a, b) => (a.line.day < b.line.day ? 1 : a.line.day > b.line.day ? -1 : a.i - b.i)).map(({ line }) => line); // prettier-ignore
}

const takeWords = (takes: number): string => (takes === 1 ? 'one take' : `${takes} takes`);

/** Entries, newest first, each with the day of the next newer one of its key. */
function superseded<T extends { readonly date: string }>(
  entries: readonly T[],
  keyOf: (entry: T) => string,
): { readonly entry: T; readonly until: string | null }[] {
  const newer = new Map<string, string>();
  return entries.map((entry) => {
    const key = keyOf(entry);
    const until = newer.get(key) ?? null;
    newer.set(key, entry.date);
    return { entry, until };
  });
}
