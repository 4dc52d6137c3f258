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
  return {
    sql: `AND ${column} = ANY (ARRAY(SELECT jsonb_array_elements_text($${parameter}::jsonb)::bigint))`,
    values: [JSON.stringify(ids)],
  };
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
