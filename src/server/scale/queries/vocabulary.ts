import type { Said } from '#domain/listening/vocabulary/collect-words';
import type { Queryable } from '../../platform/db/database';

/** Everything that was said of units of a kind, oldest first; of sittings that were left out, nothing. */
export async function everythingSaid(db: Queryable, category: string): Promise<Said[]> {
  return db.query(
    `SELECT w.word AS text, w.is_free AS "isFree", w.specimen_id AS "specimenId",
            coalesce(l.same_as, w.listener_id) AS "listenerId", w.held_on AS day
     FROM heard_word w
     JOIN unit u ON u.id = w.specimen_id
     LEFT JOIN listener l ON l.id = w.listener_id
     LEFT JOIN trial tr ON tr.id = w.trial_id
     LEFT JOIN panel_entry pe ON pe.id = w.panel_entry_id
     LEFT JOIN sitting si ON si.id = coalesce(tr.sitting_id, pe.sitting_id)
     WHERE u.category = $1 AND si.left_out IS NULL
     ORDER BY w.held_on, w.id`,
    [category],
  );
}

/** What words were made of, the newest line of each. */
export async function wordMeanings(db: Queryable): Promise<{ word: string; meaning: unknown }[]> {
  return db.query('SELECT DISTINCT ON (word) word, meaning FROM word_meaning ORDER BY word, id DESC');
}

export async function insertWordMeaning(db: Queryable, word: string, meaning: unknown, at: Date): Promise<void> {
  await db.query('INSERT INTO word_meaning (word, meaning, noted_at) VALUES ($1, $2, $3)', [
    word,
    JSON.stringify(meaning),
    at,
  ]);
}
