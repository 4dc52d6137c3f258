import type { DatedPrice } from '#core/rules/price-rule';
import type { PriceInput } from '#contracts/run-document';
import { amongUpTo } from '../../platform/db/among';
import type { Queryable } from '../../platform/db/database';

/** Notes a price; the same price noted twice stays one. @returns whether it counts: one that was removed stays so */
export async function notePrice(db: Queryable, specimenId: string, price: PriceInput): Promise<boolean> {
  const { amount, currency, kind, date, region = '', tax = null, shop = '', note = '' } = price;
  const rows = await db.query<{ left_out: boolean }>(
    `INSERT INTO every_price (specimen_id, amount, currency, kind, effective_on, region, tax, shop, note)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9)
     ON CONFLICT (specimen_id, kind, currency, effective_on, amount, region, coalesce(tax, ''), shop)
     DO UPDATE SET note = CASE WHEN every_price.note = '' THEN excluded.note ELSE every_price.note END
     RETURNING left_out`,
    [specimenId, amount, currency, kind, date, region, tax, shop, note],
  );
  return !rows[0].left_out;
}

/** A price as it is noted. */
export type NotedPrice = DatedPrice & { readonly id: string; readonly specimen_id: string; readonly note: string };

/** Prices of some specimens, or of all, newest first. */
export async function listPrices(
  db: Queryable,
  ids: readonly string[] | null = null,
  until: string | null = null,
): Promise<NotedPrice[]> {
  const { sql, values } = amongUpTo(ids, until, { id: 'specimen_id', day: 'effective_on' }, 1);
  const rows = await db.query<
    Pick<NotedPrice, 'id' | 'specimen_id' | 'amount' | 'currency' | 'kind' | 'date'> & {
      region: string;
      tax: DatedPrice['tax'] | null;
      shop: string;
      note: string;
    }
  >(
    `SELECT id, specimen_id, amount, currency, kind, effective_on AS date, region, tax, shop, note FROM price
     WHERE true ${sql}
     ORDER BY effective_on DESC, id DESC`,
    values,
  );
  // What nobody has noted is not there.
  return rows.map(({ region, tax, shop, ...price }) => ({
    ...price,
    ...(region === '' ? {} : { region }),
    ...(tax === null ? {} : { tax }),
    ...(shop === '' ? {} : { shop }),
  }));
}
