import type { PanelEntry } from '#contracts/live-panel';
import type { Queryable } from '../../platform/db/database';

export interface PanelEntryRow {
  readonly id: string;
  readonly sitting_id: string | null;
  readonly document: unknown;
  readonly made_at: Date;
}

/** What happened in a panel, first things first. */
export async function panelEntries(db: Queryable, testId: string): Promise<PanelEntryRow[]> {
  return db.query('SELECT id, sitting_id, document, made_at FROM panel_entry WHERE test_id = $1 ORDER BY id', [testId]);
}

export async function insertPanelEntry(
  db: Queryable,
  row: { readonly testId: string; readonly sitting: string | null; readonly at: Date },
  entry: PanelEntry,
): Promise<string> {
  const [{ id }] = await db.query<{ id: string }>(
    'INSERT INTO panel_entry (test_id, sitting_id, document, made_at) VALUES ($1, $2, $3, $4) RETURNING id',
    [row.testId, row.sitting, JSON.stringify(entry), row.at],
  );
  return id;
}

/** Words of a note that was taken back; the journal keeps what was said, and that it was taken back. */
export async function removeWordsOfEntry(db: Queryable, entryId: string): Promise<void> {
  await db.query('DELETE FROM heard_word WHERE panel_entry_id = $1', [entryId]);
}

/** The take that was recorded of an item while it was heard; null for none. */
export async function setItemTake(db: Queryable, itemId: string, takeId: string | null): Promise<void> {
  await db.query('UPDATE test_item SET take_id = $2 WHERE id = $1', [itemId, takeId]);
}

/** Takes of units that can be linked to a panel: those that count, newest first. */
export async function takesOfUnits(
  db: Queryable,
  specimens: readonly string[],
): Promise<{ id: string; specimen_id: string; title: string; day: string }[]> {
  return db.query(
    `SELECT t.id, r.specimen_id, st.title, se.held_on AS day
     FROM take t JOIN run r ON r.id = t.run_id JOIN session se ON se.id = r.session_id JOIN step st ON st.id = t.step_id
     WHERE r.specimen_id IN (SELECT value::bigint FROM jsonb_array_elements_text($1::jsonb))
     ORDER BY se.held_on DESC, t.id DESC`,
    [JSON.stringify(specimens)],
  );
}
