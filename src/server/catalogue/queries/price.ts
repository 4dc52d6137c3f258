import type { DatedPrice } from '#core/rules/price-rule';
import type { PriceInput } from '#contracts/run-document';
import { amongUpTo } from '../../platform/db/among';
import type { Queryable } from '../../platform/db/database';

/** Notes a price; the same price noted twice stays one. */
export async function notePrice(db: Queryable, specimenId: string, price: PriceInput): Promise<void> {
  await db.query(
    `INSERT INTO price (specimen_id, amount, currency, kind, effective_on) VALUES ($1, $2, $3, $4, $5)
     ON CONFLICT DO NOTHING`,
    [specimenId, price.amount, price.currency, price.kind, price.date],
  );
}

/** Prices of some specimens, or of all, newest first. */
export async function listPrices(
  db: Queryable,
  ids: readonly string[] | null = null,
  until: string | null = null,
): Promise<(DatedPrice & { id: string; specimen_id: string })[]> {
  const { sql, values } = amongUpTo(ids, until, { id: 'specimen_id', day: 'effective_on' }, 1);
  return db.query(
    `SELECT id, specimen_id, amount, currency, kind, effective_on AS date FROM price
     WHERE true ${sql}
     ORDER BY effective_on DESC, id DESC`,
    values,
  );
}
