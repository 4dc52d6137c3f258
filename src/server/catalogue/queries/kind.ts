import type { KindDocument } from '#core/gear/kind-document';
import { kindDocumentSchema } from '#contracts/kind';
import type { Queryable } from '../../platform/db/database';

/** The newest version of each kind that a person has changed or added. */
export async function kindDocuments(db: Queryable): Promise<KindDocument[]> {
  const rows = await db.query<{ document: unknown }>(
    'SELECT DISTINCT ON (kind) document FROM kind_version ORDER BY kind, version DESC',
  );
  return kindDocumentSchema.array().parse(rows.map((r) => r.document));
}

export async function addKindVersion(db: Queryable, document: KindDocument): Promise<void> {
  await db.query('INSERT INTO kind_version (kind, version, document) VALUES ($1, $2, $3)', [
    document.id,
    document.version,
    JSON.stringify(document),
  ]);
}

/** How many units there are of each kind. */
export async function unitsByKind(db: Queryable): Promise<ReadonlyMap<string, number>> {
  const rows = await db.query<{ category: string; count: number }>(
    'SELECT category, count(*)::int AS count FROM unit GROUP BY category',
  );
  return new Map(rows.map((r) => [r.category, r.count]));
}

/** Fields of data sheets that something was ever filled into, by kind. */
export async function usedFields(db: Queryable): Promise<{ category: string; field: string }[]> {
  return db.query(
    `SELECT DISTINCT m.category, e.field FROM sheet_entry e JOIN every_specimen s ON s.id = e.specimen_id
     JOIN model m ON m.id = s.model_id ORDER BY 1, 2`,
  );
}
