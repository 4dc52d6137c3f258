import type { NewRelation, RelationKind } from '#contracts/relation';
import { among, amongUpTo } from '../../platform/db/among';
import type { Queryable } from '../../platform/db/database';

export async function addRelation(
  db: Queryable,
  specimenId: string,
  { kind, other, name, uses, price }: NewRelation,
  day: string,
): Promise<string> {
  const [{ id }] = await db.query<{ id: string }>(
    `INSERT INTO unit_relation (specimen_id, kind, other_id, name, uses, amount, currency, price_on, effective_on)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9) RETURNING id`,
    [
      specimenId,
      kind,
      other,
      name,
      JSON.stringify(uses),
      price?.amount ?? null,
      price?.currency ?? null,
      price?.date ?? null,
      day,
    ],
  );
  return id;
}

/** Ends a relation: from this day on it does not hold. @returns the units that it is about; null where none held */
export async function endRelation(
  db: Queryable,
  id: string,
  day: string,
): Promise<{ specimen_id: string; other_id: string | null } | null> {
  const rows = await db.query<{ specimen_id: string; other_id: string | null }>(
    'UPDATE unit_relation SET ended_on = $2 WHERE id = $1 AND ended_on IS NULL RETURNING specimen_id, other_id',
    [id, day],
  );
  return rows.at(0) ?? null;
}

/** A relation with the names of both units. */
export interface RelationRow {
  readonly id: string;
  readonly kind: RelationKind;
  readonly specimen_id: string;
  readonly specimen_name: string;
  readonly other_id: string | null;
  readonly other_name: string | null;
  readonly name: string;
  readonly uses: readonly string[];
  readonly amount: number | null;
  readonly currency: string | null;
  readonly price_on: string | null;
  readonly since: string;
}

/** Relations that hold and name a unit, on either side; one of a unit to itself (they were merged) says nothing. */
export async function relationsOfUnit(db: Queryable, specimenId: string): Promise<RelationRow[]> {
  return db.query(
    `SELECT r.id, r.kind, r.specimen_id, u.name AS specimen_name, r.other_id, o.name AS other_name, r.name, r.uses,
            r.amount::float8 AS amount, r.currency, r.price_on, r.effective_on AS since
     FROM unit_relation r JOIN unit u ON u.id = r.specimen_id LEFT JOIN unit o ON o.id = r.other_id
     WHERE (r.specimen_id = $1 OR r.other_id = $1) AND r.specimen_id IS DISTINCT FROM r.other_id AND r.ended_on IS NULL
     ORDER BY r.kind, r.id`,
    [specimenId],
  );
}

/** A part that a unit needs. */
export interface NeedRow {
  readonly specimen_id: string;
  readonly other_id: string | null;
  readonly name: string;
  readonly uses: readonly string[];
  readonly amount: number | null;
  readonly currency: string | null;
  readonly price_on: string | null;
}

/** The price that was typed with a part; null where none was. */
export const typedPrice = ({ amount, currency, price_on }: Pick<NeedRow, 'amount' | 'currency' | 'price_on'>) =>
  amount === null || currency === null || price_on === null ? null : { amount, currency, date: price_on };

/** What some units need, or all, as it stands or stood on a day. */
export async function needsOfUnits(
  db: Queryable,
  ids: readonly string[] | null,
  until: string | null,
): Promise<NeedRow[]> {
  const { sql, values } = amongUpTo(ids, until, { id: 'r.specimen_id', day: 'r.effective_on' }, 1);
  const ended = until === null ? 'r.ended_on IS NULL' : `(r.ended_on IS NULL OR r.ended_on > $${values.length}::date)`;
  return db.query(
    `SELECT r.specimen_id, r.other_id, coalesce(o.name, r.name) AS name, r.uses, r.amount::float8 AS amount, r.currency,
            r.price_on
     FROM unit_relation r LEFT JOIN unit o ON o.id = r.other_id
     WHERE r.kind = 'needs' AND r.specimen_id IS DISTINCT FROM r.other_id AND ${ended} ${sql}
     ORDER BY r.id`,
    values,
  );
}

/** Units that need some of these: what they cost follows from theirs. */
export async function unitsNeeding(db: Queryable, ids: readonly string[]): Promise<string[]> {
  const { sql, values } = among(ids, 'other_id', 1);
  const rows = await db.query<{ specimen_id: string }>(
    `SELECT DISTINCT specimen_id FROM unit_relation WHERE kind = 'needs' ${sql}`,
    values,
  );
  return rows.map((r) => r.specimen_id);
}
