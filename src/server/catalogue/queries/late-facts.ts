import type { Queryable } from '../../platform/db/database';

/**
 * How many facts of a kind hold for a day or earlier but were noted after it: what is shown of that day was not all
 * known then.
 *
 * @param day - ISO 8601
 * @param zone - IANA name of the desk's time zone, whose days they are
 */
export async function lateFacts(db: Queryable, category: string, day: string, zone: string): Promise<number> {
  const [row] = await db.query<{ count: number }>(
    `SELECT count(*)::int AS count FROM (
       SELECT specimen_id, effective_on AS day, recorded_at FROM price
       UNION ALL SELECT specimen_id, effective_on, recorded_at FROM points
       UNION ALL SELECT specimen_id, effective_on, recorded_at FROM sheet_entry
       UNION ALL SELECT r.specimen_id, se.held_on, r.recorded_at FROM run r JOIN session se ON se.id = r.session_id
         WHERE r.purpose = 'unit') fact
     JOIN unit u ON u.id = fact.specimen_id
     WHERE u.category = $1 AND fact.day <= $2::date AND (fact.recorded_at AT TIME ZONE $3)::date > $2::date`,
    [category, day, zone],
  );
  return row.count;
}
