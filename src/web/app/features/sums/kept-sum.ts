import type { UnitEvent } from '#contracts/session-plan';
import type { Sum, SumAnswer } from './sum';
import type { SumValue } from './sum-values';

/** Most characters of what is noted; the address has the rest. */
const MOST_TEXT = 480;

/**
 * An answer as it is kept with a unit: what it says, and the address with every number as it is now, so that what the
 * catalogue learns later does not change it.
 *
 * @param day - of keeping
 */
export function keptSum(
  sum: Sum,
  values: Readonly<Record<string, SumValue>>,
  answer: SumAnswer,
  day: string,
): UnitEvent {
  const query = new URLSearchParams({ sum: sum.id });
  for (const { id } of sum.fields) {
    const { value } = values[id];
    // What was left out is left out there as well, whatever is usual.
    query.set(id, value === null ? '' : String(value));
  }
  let note = sum.title;
  for (const { label, text } of answer.lines) {
    const longer = `${note}${note === sum.title ? ' ' : '; '}${label}: ${text}`;
    if (longer.length > MOST_TEXT) break;
    note = longer;
  }
  return { kind: 'sum', day, note, sum: query.toString() };
}
