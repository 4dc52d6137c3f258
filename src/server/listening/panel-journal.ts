import { panelEntrySchema } from '#contracts/live-panel';
import { openTurn, panelState, type PanelState } from '#domain/listening/panel/panel-state';
import { turnTitle } from '#domain/listening/panel/panel-refusal';
import type { Queryable } from '../platform/db/database';
import { Failure } from '../platform/failure';
import { panelEntries } from './queries/live-panel';

/** The state of a panel, from its journal. */
export async function readPanel(db: Queryable, testId: string): Promise<PanelState> {
  return panelState(
    (await panelEntries(db, testId)).map((row) => ({
      id: row.id,
      sitting: row.sitting_id,
      at: row.made_at.toISOString(),
      entry: panelEntrySchema.parse(row.document),
    })),
  );
}

/**
 * Orders of a turn that is still open would be lost with the end of its test.
 *
 * @throws Failure `answer-refused`
 */
export async function mustHaveNoOpenTurn(db: Queryable, testId: string): Promise<void> {
  const state = await readPanel(db, testId);
  const turn = openTurn(state);
  if (turn !== null)
    throw new Failure(
      'answer-refused',
      `${turnTitle(turn, state)} is still being heard. Close it, so that its orders count, or leave it out; then end the panel.`,
    );
}
