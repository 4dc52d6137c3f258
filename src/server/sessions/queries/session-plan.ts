import type {
  CorrectSlotTake,
  DecideTake,
  NewPlan,
  PlannedUnit,
  SlotTake,
  TakeSettings,
} from '#contracts/session-plan';
import type { Queryable } from '../../platform/db/database';
import { CLIP_COLUMNS, type ClipRow } from '../../runs/queries/clip';

export interface PlanDbRow {
  readonly id: string;
  readonly document: unknown;
  readonly status: 'planned' | 'running' | 'done' | 'cancelled';
  readonly cautions_seen: unknown;
  readonly started_at: Date | null;
  readonly finished_at: Date | null;
}

const PLAN_COLUMNS = 'id, document, status, cautions_seen, started_at, finished_at';

export async function insertPlan(db: Queryable, plan: NewPlan): Promise<string> {
  const [row] = await db.query<{ id: string }>(
    "INSERT INTO session_plan (document, status) VALUES ($1, 'planned') RETURNING id",
    [JSON.stringify(plan)],
  );
  return row.id;
}

/** The plan with another day; its slots stay. */
export async function setPlanDay(db: Queryable, id: string, plan: NewPlan): Promise<void> {
  await db.query('UPDATE session_plan SET document = $2 WHERE id = $1', [id, JSON.stringify(plan)]);
}

export async function replacePlan(db: Queryable, id: string, plan: NewPlan): Promise<void> {
  await setPlanDay(db, id, plan);
  await db.query('DELETE FROM session_slot WHERE plan_id = $1', [id]);
}

export async function findPlan(db: Queryable, id: string): Promise<PlanDbRow | null> {
  return (await db.query<PlanDbRow>(`SELECT ${PLAN_COLUMNS} FROM session_plan WHERE id = $1`, [id])).at(0) ?? null;
}

export async function listPlans(db: Queryable): Promise<PlanDbRow[]> {
  return db.query(`SELECT ${PLAN_COLUMNS} FROM session_plan ORDER BY document->>'day' DESC, id DESC`);
}

export async function movePlan(db: Queryable, id: string, status: PlanDbRow['status'], at: Date): Promise<void> {
  await db.query(
    `UPDATE session_plan SET status = $2,
            started_at = CASE WHEN $2 = 'running' THEN coalesce(started_at, $3) ELSE started_at END,
            finished_at = CASE WHEN $2 IN ('done', 'cancelled') THEN $3 ELSE NULL END
     WHERE id = $1`,
    [id, status, at],
  );
}

export async function seeCaution(db: Queryable, planId: string, seen: readonly string[]): Promise<void> {
  await db.query('UPDATE session_plan SET cautions_seen = $2 WHERE id = $1', [planId, JSON.stringify(seen)]);
}

export interface SlotDbRow {
  readonly id: string;
  readonly plan_id: string;
  readonly ordinal: number;
  readonly purpose: 'opening' | 'unit' | 'closing';
  readonly unit: unknown;
  readonly steps: unknown;
  readonly run_id: string | null;
  readonly started_at: Date | null;
  readonly finished_at: Date | null;
}

const SLOT_COLUMNS = 'id, plan_id, ordinal, purpose, unit, steps, run_id, started_at, finished_at';

export async function insertSlot(
  db: Queryable,
  planId: string,
  ordinal: number,
  purpose: SlotDbRow['purpose'],
  unit: PlannedUnit,
  steps: readonly string[],
): Promise<void> {
  await db.query('INSERT INTO session_slot (plan_id, ordinal, purpose, unit, steps) VALUES ($1, $2, $3, $4, $5)', [
    planId,
    ordinal,
    purpose,
    JSON.stringify(unit),
    JSON.stringify(steps),
  ]);
}

export async function slotsOfPlan(db: Queryable, planId: string): Promise<SlotDbRow[]> {
  return db.query(`SELECT ${SLOT_COLUMNS} FROM session_slot WHERE plan_id = $1 ORDER BY ordinal`, [planId]);
}

export async function findSlot(db: Queryable, id: string): Promise<SlotDbRow | null> {
  return (await db.query<SlotDbRow>(`SELECT ${SLOT_COLUMNS} FROM session_slot WHERE id = $1`, [id])).at(0) ?? null;
}

export async function startSlot(db: Queryable, id: string, at: Date): Promise<void> {
  await db.query('UPDATE session_slot SET started_at = coalesce(started_at, $2) WHERE id = $1', [id, at]);
}

export async function finishSlot(db: Queryable, id: string, runId: string, at: Date): Promise<void> {
  await db.query('UPDATE session_slot SET run_id = $2, finished_at = $3 WHERE id = $1', [id, runId, at]);
}

/** Steps and minutes of units that were run in the booth. */
export async function pastPaces(db: Queryable): Promise<{ steps: number; minutes: number }[]> {
  return db.query(
    `SELECT jsonb_array_length(steps) AS steps, extract(epoch FROM finished_at - started_at)::double precision / 60 AS minutes
     FROM session_slot WHERE run_id IS NOT NULL AND started_at IS NOT NULL ORDER BY id DESC LIMIT 100`,
  );
}

/** How many takes of each plan are kept: one per step counts. */
export async function keptByPlan(db: Queryable): Promise<{ plan_id: string; kept: number; steps: number }[]> {
  return db.query(
    `SELECT s.plan_id, sum(jsonb_array_length(s.steps))::int AS steps,
            (SELECT count(DISTINCT (t.slot_id, t.step))::int FROM slot_take t JOIN session_slot x ON x.id = t.slot_id
             WHERE x.plan_id = s.plan_id AND t.state = 'kept') AS kept
     FROM session_slot s GROUP BY s.plan_id`,
  );
}

export type SlotTakeRow = ClipRow & {
  readonly slot_take_id: string;
  readonly slot_id: string;
  readonly step: string;
  readonly attempt: number;
  readonly settings: unknown;
  readonly verdict: SlotTake['verdict'];
  readonly findings: unknown;
  readonly overruled: unknown;
  readonly state: SlotTake['state'];
  readonly note: string;
  readonly changes: unknown;
  readonly summary: unknown;
};

const TAKE_SELECT = `SELECT t.id AS slot_take_id, t.slot_id, t.step, t.attempt, t.settings, t.verdict, t.findings, t.overruled,
            t.state, t.note, t.changes, a.summary, ${CLIP_COLUMNS}
     FROM slot_take t
     JOIN clip c ON c.sha256 = t.clip_sha256
     LEFT JOIN analysis a ON a.clip_sha256 = t.clip_sha256 AND a.algorithm_version = $2`;

export async function takesOfPlan(db: Queryable, planId: string, algorithmVersion: number): Promise<SlotTakeRow[]> {
  return db.query(`${TAKE_SELECT} JOIN session_slot s ON s.id = t.slot_id WHERE s.plan_id = $1 ORDER BY t.id`, [
    planId,
    algorithmVersion,
  ]);
}

/** A take of a running session that a new one is held against. */
export interface CheckedTakeRow {
  readonly id: string;
  readonly slot_id: string;
  readonly unit: unknown;
  readonly step: string;
  readonly settings: unknown;
  readonly state: SlotTake['state'];
  readonly overruled: unknown;
  readonly summary: unknown;
  readonly step_powers: Uint8Array | null;
}

/** Measured takes of a session that nobody has replaced, of one slot and of those that are no run yet; newest first. */
export async function takesToCompare(
  db: Queryable,
  planId: string,
  slotId: string,
  algorithmVersion: number,
): Promise<CheckedTakeRow[]> {
  return db.query(
    `SELECT t.id, t.slot_id, s.unit, t.step, t.settings, t.state, t.overruled, a.summary, a.step_powers
     FROM slot_take t
     JOIN session_slot s ON s.id = t.slot_id
     JOIN analysis a ON a.clip_sha256 = t.clip_sha256 AND a.algorithm_version = $3
     WHERE s.plan_id = $1 AND (s.run_id IS NULL OR s.id = $2) AND t.state <> 'retaken' AND a.summary IS NOT NULL
     ORDER BY t.id DESC`,
    [planId, slotId, algorithmVersion],
  );
}

export async function findSlotTake(db: Queryable, id: string, algorithmVersion: number): Promise<SlotTakeRow | null> {
  return (await db.query<SlotTakeRow>(`${TAKE_SELECT} WHERE t.id = $1`, [id, algorithmVersion])).at(0) ?? null;
}

/** Takes that nobody had decided on when their turn became a run. */
export interface UndecidedRow extends ClipRow {
  readonly run_id: string;
  readonly slot_take_id: string;
  readonly step: string;
  readonly attempt: number;
}

/** Takes of the sessions of a specimen's runs that nobody decided on. */
export async function undecidedBesideRuns(db: Queryable, specimenId: string): Promise<UndecidedRow[]> {
  return db.query(
    `SELECT s.run_id, t.id AS slot_take_id, t.step, t.attempt, ${CLIP_COLUMNS}
     FROM slot_take t
     JOIN session_slot s ON s.id = t.slot_id
     JOIN clip c ON c.sha256 = t.clip_sha256
     JOIN run r ON r.id = s.run_id
     WHERE r.specimen_id = $1 AND t.state = 'open' ORDER BY t.id`,
    [specimenId],
  );
}

/** A new attempt at a step; earlier ones that nobody kept count as retaken. */
export async function insertSlotTake(
  db: Queryable,
  take: {
    readonly slotId: string;
    readonly step: string;
    readonly sha256: string;
    readonly settings: TakeSettings;
    readonly verdict: SlotTake['verdict'];
    readonly findings: SlotTake['findings'];
    readonly note: string;
  },
): Promise<string> {
  await db.query("UPDATE slot_take SET state = 'retaken' WHERE slot_id = $1 AND step = $2 AND state = 'open'", [
    take.slotId,
    take.step,
  ]);
  const [row] = await db.query<{ id: string }>(
    `INSERT INTO slot_take (slot_id, step, attempt, clip_sha256, settings, verdict, findings, state, note)
     SELECT $1, $2, coalesce(max(attempt), 0) + 1, $3, $4, $5, $6, 'open', $7 FROM slot_take WHERE slot_id = $1 AND step = $2
     RETURNING id`,
    [
      take.slotId,
      take.step,
      take.sha256,
      JSON.stringify(take.settings),
      take.verdict,
      JSON.stringify(take.findings),
      take.note,
    ],
  );
  return row.id;
}

export async function updateSlotTake(db: Queryable, id: string, change: DecideTake): Promise<void> {
  await db.query(`UPDATE slot_take SET state = $2, overruled = $3, note = coalesce($4, note) WHERE id = $1`, [
    id,
    change.state,
    JSON.stringify(change.overruled),
    change.note ?? null,
  ]);
}

/** Corrects what was noted with a take; what stood before is kept beside it. The verdict is that of the new settings. */
export async function correctSlotTake(
  db: Queryable,
  id: string,
  change: CorrectSlotTake & Pick<SlotTake, 'verdict' | 'findings'>,
  at: Date,
): Promise<void> {
  await db.query(
    `UPDATE slot_take SET changes = changes || jsonb_build_object('at', $3::text, 'before', settings), settings = $2,
            note = coalesce($4, note), verdict = $5, findings = $6
     WHERE id = $1`,
    [
      id,
      JSON.stringify(change.settings),
      at.toISOString(),
      change.note ?? null,
      change.verdict,
      JSON.stringify(change.findings),
    ],
  );
}

/** Attempts at a step of a turn. */
export async function attemptsAtStep(
  db: Queryable,
  slotId: string,
  step: string,
): Promise<
  {
    id: string;
    step: string;
    attempt: number;
    state: SlotTake['state'];
    settings: Record<string, string | number | boolean | null>;
  }[]
> {
  return db.query(
    'SELECT id, step, attempt, state, settings FROM slot_take WHERE slot_id = $1 AND step = $2 ORDER BY attempt',
    [slotId, step],
  );
}

/** Kept takes of a step other than these become retaken. */
export async function keepOnly(db: Queryable, slotId: string, step: string, kept: ReadonlySet<string>): Promise<void> {
  await db.query(
    `UPDATE slot_take SET state = 'retaken' WHERE slot_id = $1 AND step = $2 AND state = 'kept' AND NOT
       (id = ANY(SELECT jsonb_array_elements_text($3::jsonb)::bigint))`,
    [slotId, step, JSON.stringify([...kept])],
  );
}
