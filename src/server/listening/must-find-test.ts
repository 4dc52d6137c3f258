import type { Queryable } from '../platform/db/database';
import { Failure } from '../platform/failure';
import { findTest, type TestDbRow } from './queries/listening';

/** @throws Failure `not-found` */
export async function mustFindTest(db: Queryable, id: string): Promise<TestDbRow> {
  const row = await findTest(db, id);
  if (!row) throw new Failure('not-found', `There is no listening test with the number ${id}.`);
  return row;
}
