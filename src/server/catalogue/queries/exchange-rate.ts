import type { ExchangeRate } from '#core/rules/exchange-rates';
import type { Queryable } from '../../platform/db/database';

/** All rates that count, oldest first: of a day and a currency the newest. */
export async function listRates(db: Queryable): Promise<ExchangeRate[]> {
  return db.query(
    `SELECT DISTINCT ON (effective_on, currency) effective_on AS date, currency, rate FROM exchange_rate
     ORDER BY effective_on, currency, id DESC`,
  );
}

/** Notes rates, unless the same ones stand there. */
export async function noteRates(db: Queryable, rates: readonly ExchangeRate[]): Promise<void> {
  await db.query(
    `INSERT INTO exchange_rate (currency, effective_on, rate)
     SELECT n.currency, n.date, n.rate FROM jsonb_to_recordset($1::jsonb) AS n (date date, currency text, rate double precision)
     WHERE n.rate IS DISTINCT FROM (
       SELECT rate FROM exchange_rate e WHERE e.currency = n.currency AND e.effective_on = n.date ORDER BY id DESC LIMIT 1)`,
    [JSON.stringify(rates)],
  );
}
