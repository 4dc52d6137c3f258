import type { Varies } from '#contracts/variant';
import type { Queryable } from '../../platform/db/database';

/** A unit, and what it is a configuration of. */
export interface VariantRow {
  readonly id: string;
  readonly maker: string;
  readonly model: string;
  readonly label: string;
  readonly category: string;
  readonly variant_of: string | null;
  readonly configuration: string;
  readonly varies: Varies | null;
}

export async function findVariant(db: Queryable, id: string): Promise<VariantRow | null> {
  const rows = await db.query<VariantRow>(
    'SELECT id, maker, model, label, category, variant_of, configuration, varies FROM unit WHERE id = $1',
    [id],
  );
  return rows.at(0) ?? null;
}

/** Configurations of a unit, without itself. */
export async function variantsOf(db: Queryable, main: string): Promise<VariantRow[]> {
  return db.query(
    `SELECT id, maker, model, label, category, variant_of, configuration, varies FROM unit WHERE variant_of = $1
     ORDER BY label, id`,
    [main],
  );
}

/** Those that are one unit with it: the unit that it is a configuration of, and the configurations of that, or of itself. */
export async function restOfFamily(db: Queryable, id: string): Promise<string[]> {
  const rows = await db.query<{ id: string }>(
    `SELECT o.id FROM specimen s JOIN specimen o ON coalesce(s.variant_of, s.id) IN (o.id, o.variant_of)
     WHERE s.id = $1 AND o.id <> s.id`,
    [id],
  );
  return rows.map((r) => r.id);
}

/** Makes a unit a configuration of another one, or lets it stand by itself. */
export async function setVariant(
  db: Queryable,
  unit: string,
  variant: { readonly of: string; readonly configuration: string; readonly varies: Varies } | null,
): Promise<void> {
  await db.query('UPDATE every_specimen SET variant_of = $2, configuration = $3, varies = $4 WHERE id = $1', [
    unit,
    variant?.of ?? null,
    variant?.configuration ?? '',
    variant?.varies ?? null,
  ]);
}

/** Adds a unit of the same model. Null where there is one of that label. */
export async function addUnitOfModel(db: Queryable, like: string, label: string): Promise<string | null> {
  const [row] = await db.query<{ id: string }>(
    `INSERT INTO every_specimen (model_id, label) SELECT model_id, $2 FROM every_specimen WHERE id = $1
     ON CONFLICT DO NOTHING RETURNING id`,
    [like, label],
  );
  return (row as { id: string } | undefined)?.id ?? null;
}

/** Notes which configuration stands in rankings; null: each. */
export async function noteCounting(db: Queryable, main: string, counts: string | null, day: string): Promise<void> {
  await db.query('INSERT INTO family_counting (specimen_id, counts_id, effective_on) VALUES ($1, $2, $3)', [
    main,
    counts,
    day,
  ]);
}
