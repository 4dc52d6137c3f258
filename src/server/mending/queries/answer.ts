import type { UnitAnswer } from '#contracts/unit-answer';
import type { Queryable } from '../../platform/db/database';

/** An answer as it can be left out. */
interface AnswerRow {
  readonly specimens: readonly string[];
  readonly day: string;
  readonly removed_at: Date | null;
}

export async function findAnswer(db: Queryable, id: string): Promise<AnswerRow | null> {
  const rows = await db.query<AnswerRow>(
    'SELECT specimens, held_on AS day, removed_at FROM heard_answer WHERE id = $1',
    [id],
  );
  return rows.at(0) ?? null;
}

export async function setAnswerRemoved(db: Queryable, id: string, at: Date | null): Promise<void> {
  await db.query('UPDATE heard_answer SET removed_at = $2 WHERE id = $1', [id, at]);
}

/** Answers that name a unit, newest first; of tests that are still blind, none: they would say what is what. */
export async function answersOfUnit(db: Queryable, specimenId: string, most: number): Promise<UnitAnswer[]> {
  return db.query(
    `SELECT h.id, h.held_on AS day, h.source, lt.document->>'name' AS test, h.attribute, l.name AS listener,
            (SELECT json_agg(coalesce(u.name, 'a unit that is gone') ORDER BY o.n)
             FROM jsonb_array_elements_text(h.specimens) WITH ORDINALITY AS o (id, n)
             LEFT JOIN unit u ON u.id = o.id::bigint) AS names,
            h.outcome, h.sighted, h.removed_at IS NOT NULL AS "isLeftOut"
     FROM heard_answer h
     LEFT JOIN listener l ON l.id = h.listener_id
     LEFT JOIN trial tr ON tr.id = h.trial_id
     LEFT JOIN sitting si ON si.id = tr.sitting_id
     LEFT JOIN every_listening_test lt ON lt.id = si.test_id
     WHERE h.specimens ? $1 AND (lt.id IS NULL OR lt.revealed_at IS NOT NULL) AND si.left_out IS NULL
     ORDER BY h.held_on DESC, h.id DESC LIMIT $2`,
    [specimenId, most],
  );
}
