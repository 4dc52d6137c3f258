import { editionSchema, type Edition } from '#contracts/edition';
import { reviewDocumentSchema, type ReviewDocument } from '#contracts/review';
import type { Queryable } from '../../platform/db/database';

/** A review as it is kept. */
export interface KeptReview {
  readonly id: string;
  readonly specimenId: string;
  readonly openedOn: string;
  readonly revision: number;
  readonly document: ReviewDocument;
}

/** An edition as it is kept, with the hash of its bytes. */
export interface KeptEdition {
  readonly id: string;
  readonly reviewId: string;
  readonly sha256: string;
  readonly edition: Edition;
  /** The bytes that the hash is of. */
  readonly document: string;
}

interface ReviewRow {
  readonly id: string;
  readonly specimen_id: string;
  readonly opened_on: string;
  readonly revision: number;
  readonly document: unknown;
}

const COLUMNS = `id, specimen_id, opened_on::text AS opened_on, revision, document`;

const fromRow = ({ id, specimen_id, opened_on, revision, document }: ReviewRow): KeptReview => ({
  id,
  specimenId: specimen_id,
  openedOn: opened_on,
  revision,
  document: reviewDocumentSchema.parse(document),
});

/** Reviews, the latest first. */
export async function listReviews(db: Queryable): Promise<KeptReview[]> {
  const rows = await db.query<ReviewRow>(`SELECT ${COLUMNS} FROM review ORDER BY opened_on DESC, id DESC`);
  return rows.map(fromRow);
}

/** Reviews of a unit, or all of them, the latest first, without what they say below the headline. */
export async function listHeadlines(
  db: Queryable,
  unit: string | null,
): Promise<(Pick<KeptReview, 'id' | 'specimenId' | 'openedOn'> & { readonly headline: string })[]> {
  return db.query(
    `SELECT id, specimen_id AS "specimenId", opened_on::text AS "openedOn", document->>'headline' AS headline
     FROM review WHERE $1::bigint IS NULL OR specimen_id = $1 ORDER BY opened_on DESC, id DESC`,
    [unit],
  );
}

export async function findReview(db: Queryable, id: string): Promise<KeptReview | null> {
  const [row] = await db.query<ReviewRow>(`SELECT ${COLUMNS} FROM review WHERE id = $1`, [id]);
  return (row as ReviewRow | undefined) ? fromRow(row) : null;
}

export async function addReview(
  db: Queryable,
  specimenId: string,
  openedOn: string,
  document: ReviewDocument,
): Promise<string> {
  const [{ id }] = await db.query<{ id: string }>(
    'INSERT INTO review (specimen_id, opened_on, document) VALUES ($1, $2, $3) RETURNING id',
    [specimenId, openedOn, JSON.stringify(document)],
  );
  return id;
}

/** @returns the next revision; null where it was saved meanwhile */
export async function saveReview(
  db: Queryable,
  id: string,
  revision: number,
  document: ReviewDocument,
): Promise<number | null> {
  const rows = await db.query<{ revision: number }>(
    'UPDATE review SET document = $3, revision = revision + 1 WHERE id = $1 AND revision = $2 RETURNING revision',
    [id, revision, JSON.stringify(document)],
  );
  return rows.at(0)?.revision ?? null;
}

export async function discardReview(db: Queryable, id: string): Promise<boolean> {
  const rows = await db.query(
    'DELETE FROM review WHERE id = $1 AND NOT EXISTS (SELECT 1 FROM edition WHERE review_id = $1) RETURNING id',
    [id],
  );
  return rows.length > 0;
}

interface EditionRow {
  readonly id: string;
  readonly review_id: string;
  readonly sha256: string;
  readonly document: string;
}

const editionFrom = ({ id, review_id, sha256, document }: EditionRow): KeptEdition => ({
  id,
  reviewId: review_id,
  sha256,
  edition: editionSchema.parse(JSON.parse(document)),
  document,
});

/** Editions of one review, the newest first. */
export async function editionsOf(db: Queryable, reviewId: string): Promise<KeptEdition[]> {
  const rows = await db.query<EditionRow>(
    'SELECT id, review_id, sha256, document FROM edition WHERE review_id = $1 ORDER BY number DESC',
    [reviewId],
  );
  return rows.map(editionFrom);
}

/** Which edition of every review is the newest, without what it says. */
export async function newestEditions(
  db: Queryable,
): Promise<
  { readonly id: string; readonly reviewId: string; readonly number: number; readonly publishedOn: string }[]
> {
  return db.query(
    `SELECT DISTINCT ON (review_id) id, review_id AS "reviewId", number, published_on::text AS "publishedOn"
     FROM edition ORDER BY review_id, number DESC`,
  );
}

export async function findEdition(db: Queryable, id: string): Promise<KeptEdition | null> {
  const [row] = await db.query<EditionRow>('SELECT id, review_id, sha256, document FROM edition WHERE id = $1', [id]);
  return (row as EditionRow | undefined) ? editionFrom(row) : null;
}

/** @param document - the bytes that the hash is of */
export async function addEdition(
  db: Queryable,
  reviewId: string,
  edition: Pick<Edition, 'number' | 'publishedOn'>,
  document: string,
  sha256: string,
): Promise<string> {
  const [{ id }] = await db.query<{ id: string }>(
    `INSERT INTO edition (review_id, number, published_on, document, sha256) VALUES ($1, $2, $3, $4, $5) RETURNING id`,
    [reviewId, edition.number, edition.publishedOn, document, sha256],
  );
  return id;
}
