/**
 * The part of a condition that keeps rows of certain records, or of all.
 *
 * @param ids - numbers of records; null: all
 * @param column - where they stand
 * @param parameter - which parameter of the statement is the list, from 1
 * @returns text that begins with AND, and the parameters it needs
 */
export function among(
  ids: readonly string[] | null,
  column: string,
  parameter: number,
): { readonly sql: string; readonly values: readonly string[] } {
  if (ids === null) return { sql: '', values: [] };
  // A list that the planner can read: it sees how few there are, and looks them up instead of going through a table.
  return { sql: `AND ${column} = ANY ($${parameter}::text::bigint[])`, values: [`{${ids.join(',')}}`] };
}

/**
 * Both of them: rows of certain records that held on a day or before it.
 *
 * @param ids - as of {@link among}, in `column` of it
 * @param until - as of {@link upTo}
 * @param columns - where the records and the days stand
 * @param parameter - the first one of the statement that is free, from 1
 */
export function amongUpTo(
  ids: readonly string[] | null,
  until: string | null,
  columns: { readonly id: string; readonly day: string },
  parameter: number,
): { readonly sql: string; readonly values: readonly string[] } {
  const of = among(ids, columns.id, parameter);
  const by = upTo(until, columns.day, parameter + of.values.length);
  return { sql: `${of.sql} ${by.sql}`, values: [...of.values, ...by.values] };
}

/**
 * The part of a condition that keeps what held on a day or before it, or everything.
 *
 * @param until - ISO 8601; null: all days
 * @param column - where the day stands
 * @param parameter - which parameter of the statement is the day, from 1
 * @returns text that begins with AND, and the parameters it needs
 */
export function upTo(
  until: string | null,
  column: string,
  parameter: number,
): { readonly sql: string; readonly values: readonly string[] } {
  return until === null ? { sql: '', values: [] } : { sql: `AND ${column} <= $${parameter}::date`, values: [until] };
}
