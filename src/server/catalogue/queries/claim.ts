import { claimSchema, type Claim } from '#contracts/run-document';
import type { Queryable } from '../../platform/db/database';

/** Notes a claim of the data sheet, unless the same one is there. */
export async function noteClaim(db: Queryable, specimenId: string, claim: Claim, day: string): Promise<void> {
  await db.query(
    `INSERT INTO claim (specimen_id, quantity, value, unit, condition, effective_on)
     VALUES ($1, $2, $3, $4, $5, $6) ON CONFLICT DO NOTHING`,
    [specimenId, claim.quantity, claim.value, claim.unit, claim.condition, day],
  );
}

/** The claims that count: of each quantity the newest. */
export async function claimsOfSpecimen(db: Queryable, specimenId: string): Promise<Claim[]> {
  const rows = await db.query(
    `SELECT DISTINCT ON (quantity) quantity, value, unit, condition FROM claim
     WHERE specimen_id = $1 ORDER BY quantity, effective_on DESC, id DESC`,
    [specimenId],
  );
  return rows.map((row) => claimSchema.parse(row));
}
