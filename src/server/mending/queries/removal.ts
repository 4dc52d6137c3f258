import { clipOriginSchema } from '#contracts/clip';
import type { Removable } from '#contracts/removal';
import type { RemovalCounts } from '#domain/mending/removal-words';
import { among } from '../../platform/db/among';
import type { Queryable } from '../../platform/db/database';
import { TABLES_OF_UNITS } from './unit-merge';

/** What something is made of, by the numbers of its records. */
export interface RemovalScope {
  readonly what: Removable;
  readonly specimenId: string;
  /** The run that it is, or is of. */
  readonly ownRun: string | null;
  /** The unit and those that are part of it; none where the unit stays. */
  readonly units: readonly string[];
  readonly runs: readonly string[];
  readonly takes: readonly string[];
  /** Turns of sessions whose takes go. */
  readonly slots: readonly string[];
  /** Attempts of the booth that go. */
  readonly slotTakes: readonly string[];
  /** Clips of all of these that nothing else uses, and those that something else does. */
  readonly clips: readonly string[];
  readonly sharedClips: readonly string[];
  /** Compressed files that these clips were decoded from. */
  readonly originals: readonly { readonly sha256: string; readonly name: string; readonly bytes: number }[];
  readonly bytes: number;
  /** Photographs that go, and of their files those that no other photograph is. */
  readonly photographs: readonly string[];
  readonly photoFiles: readonly { readonly sha256: string; readonly format: string; readonly bytes: number }[];
  /** Tests that offer the unit, or the takes. */
  readonly tests: readonly TestRow[];
}

interface TestRow {
  readonly id: string;
  readonly name: string;
  readonly status: string;
  /** Items whose prepared clips go: of a unit, all of them go with the test. */
  readonly items: readonly string[];
}

const ids = async (db: Queryable, sql: string, values: readonly string[]): Promise<string[]> =>
  (await db.query<{ id: string }>(sql, values)).map((r) => r.id);

/** The run that a take or a run is of, with its unit; null where there is none. */
export async function ownerOf(
  db: Queryable,
  what: Removable,
  id: string,
): Promise<{ readonly specimen_id: string; readonly run_id: string | null } | null> {
  const sql = {
    unit: 'SELECT id AS specimen_id, NULL AS run_id FROM specimen WHERE id = $1',
    run: 'SELECT specimen_id, id AS run_id FROM every_run WHERE id = $1',
    take: `SELECT r.specimen_id, r.id AS run_id FROM every_take t JOIN every_run r ON r.id = t.run_id WHERE t.id = $1`,
    photograph: 'SELECT specimen_id, NULL AS run_id FROM photograph WHERE id = $1',
  }[what];
  return (await db.query<{ specimen_id: string; run_id: string | null }>(sql, [id])).at(0) ?? null;
}

/** Whether a take is the only one of its run, counting those that were left out. */
export async function isOnlyTake(db: Queryable, takeId: string): Promise<boolean> {
  const [row] = await db.query<{ count: number }>(
    `SELECT count(*)::int AS count FROM every_take t JOIN every_take o ON o.run_id = t.run_id WHERE t.id = $1`,
    [takeId],
  );
  return row.count === 1;
}

/** What a run or a take is, in words; its clip where it is a take. */
export async function titleOfRemoved(db: Queryable, what: Exclude<Removable, 'unit'>, id: string): Promise<string> {
  if (what === 'photograph') {
    const [photo] = await db.query<{ title: string }>(
      `SELECT 'Photograph of ' || effective_on || CASE WHEN caption = '' THEN '' ELSE ' (' || caption || ')' END AS title
       FROM photograph WHERE id = $1`,
      [id],
    );
    return photo.title;
  }
  const sql =
    what === 'run'
      ? `SELECT 'Run of ' || se.held_on || ' (' || p.slug || ')' AS title FROM every_run r`
      : `SELECT 'Take “' || st.title || '” of ' || se.held_on || ' (' || c.original_name || ')' AS title FROM every_take t
         JOIN step st ON st.id = t.step_id JOIN clip c ON c.sha256 = t.clip_sha256 JOIN every_run r ON r.id = t.run_id`;
  const [{ title }] = await db.query<{ title: string }>(
    `${sql} JOIN session se ON se.id = r.session_id JOIN protocol_version v ON v.id = r.protocol_version_id
     JOIN protocol p ON p.id = v.protocol_id WHERE ${what === 'run' ? 'r' : 't'}.id = $1`,
    [id],
  );
  return title;
}

/** Everything that hangs on a unit, a run or a take. */
export async function removalScope(
  db: Queryable,
  what: Removable,
  id: string,
  owner: { readonly specimen_id: string; readonly run_id: string | null },
): Promise<RemovalScope> {
  const units = what === 'unit' ? await ids(db, 'SELECT id FROM every_specimen WHERE id = $1 OR merged_into = $1', [id]) : []; // prettier-ignore
  const inUnits = among(units, 'specimen_id', 1);
  const runs = {
    unit: () => ids(db, `SELECT id FROM every_run WHERE true ${inUnits.sql}`, inUnits.values),
    run: () => Promise.resolve([id]),
    take: () => Promise.resolve([]),
    photograph: () => Promise.resolve([]),
  }[what];
  const runIds = await runs();
  const inRuns = among(runIds, 'run_id', 1);
  const takes = what === 'take' ? [id] : await ids(db, `SELECT id FROM every_take WHERE true ${inRuns.sql}`, inRuns.values); // prettier-ignore
  // Turns of a unit that became no run are known by its names.
  const named = among(units, 's.id', 2);
  const ofNames =
    what === 'unit'
      ? ` UNION SELECT sl.id FROM session_slot sl JOIN every_specimen s ON true ${named.sql}
          JOIN model m ON m.id = s.model_id JOIN every_session_plan p ON p.id = sl.plan_id
          WHERE sl.run_id IS NULL AND p.document->>'category' = m.category
            AND sl.unit @> jsonb_build_object('maker', m.maker, 'model', m.name, 'label', s.label)`
      : '';
  const slots = await ids(
    db,
    `SELECT id FROM session_slot WHERE true ${inRuns.sql}${ofNames}`,
    what === 'unit' ? [...inRuns.values, ...named.values] : inRuns.values,
  );
  const inSlots = among(slots, 'slot_id', 1);
  const slotTakes =
    what === 'take'
      ? // What the booth kept of it goes as well; other attempts at the step stay.
        await ids(
          db,
          `SELECT st.id FROM slot_take st JOIN session_slot sl ON sl.id = st.slot_id
           JOIN every_take t ON t.run_id = sl.run_id AND t.clip_sha256 = st.clip_sha256 WHERE t.id = $1`,
          [id],
        )
      : await ids(db, `SELECT id FROM slot_take WHERE true ${inSlots.sql}`, inSlots.values);
  const clips = await clipsOf(db, takes, slotTakes);
  const going = clips.filter((c) => !c.is_used);
  // The file of a recording of several channels is the recording's, not a channel's.
  const originals = going
    .filter((c) => !c.is_channel)
    .flatMap((c) => clipOriginSchema.nullable().parse(c.origin) ?? []);
  const photographs = what === 'photograph' ? [id] : await ids(db, `SELECT id FROM photograph WHERE true ${inUnits.sql}`, inUnits.values); // prettier-ignore
  const photoFiles = await photoFilesOf(db, photographs);
  return {
    what,
    specimenId: owner.specimen_id,
    ownRun: owner.run_id,
    units,
    runs: runIds,
    takes,
    slots,
    slotTakes,
    clips: going.map((c) => c.sha256),
    originals,
    sharedClips: clips.filter((c) => c.is_used).map((c) => c.sha256),
    bytes:
      going.reduce((sum, c) => sum + Number(c.bytes), 0) +
      [...originals, ...photoFiles].reduce((sum, p) => sum + p.bytes, 0),
    photographs,
    photoFiles,
    tests: await testsWith(db, units, takes),
  };
}

/** Clips of some takes and attempts, and whether anything else uses them. */
async function clipsOf(
  db: Queryable,
  takes: readonly string[],
  slotTakes: readonly string[],
): Promise<{ sha256: string; bytes: string; origin: unknown; is_channel: boolean; is_used: boolean }[]> {
  const [goes, attempts] = [JSON.stringify(takes), JSON.stringify(slotTakes)];
  return db.query(
    `WITH goes AS (SELECT value::bigint AS id FROM jsonb_array_elements_text($1::jsonb)),
          attempts AS (SELECT value::bigint AS id FROM jsonb_array_elements_text($2::jsonb)),
          own AS (SELECT clip_sha256 FROM every_take WHERE id IN (SELECT id FROM goes)
                  UNION SELECT clip_sha256 FROM slot_take WHERE id IN (SELECT id FROM attempts))
     SELECT c.sha256, c.bytes, c.origin, c.channel_of IS NOT NULL AS is_channel,
            EXISTS (SELECT 1 FROM every_take t WHERE t.clip_sha256 = c.sha256 AND t.id NOT IN (SELECT id FROM goes))
            OR EXISTS (SELECT 1 FROM slot_take s WHERE s.clip_sha256 = c.sha256 AND s.id NOT IN (SELECT id FROM attempts))
            OR EXISTS (SELECT 1 FROM calibration k WHERE k.clip_sha256 = c.sha256) AS is_used
     FROM own JOIN clip c ON c.sha256 = own.clip_sha256 ORDER BY c.sha256`,
    [goes, attempts],
  );
}

/** Files of photographs that no other photograph is. */
async function photoFilesOf(
  db: Queryable,
  photographs: readonly string[],
): Promise<{ sha256: string; format: string; bytes: number }[]> {
  return db.query(
    `WITH goes AS (SELECT value::bigint AS id FROM jsonb_array_elements_text($1::jsonb))
     SELECT DISTINCT p.sha256, p.format, p.bytes::float8 AS bytes FROM photograph p
     WHERE p.id IN (SELECT id FROM goes)
       AND NOT EXISTS (SELECT 1 FROM photograph o WHERE o.sha256 = p.sha256 AND o.id NOT IN (SELECT id FROM goes))
     ORDER BY p.sha256`,
    [JSON.stringify(photographs)],
  );
}

async function testsWith(db: Queryable, units: readonly string[], takes: readonly string[]): Promise<TestRow[]> {
  const ofUnits = among(units, 'i.specimen_id', 1);
  const ofTakes = among(takes, 'i.take_id', 2);
  return db.query(
    `SELECT lt.id, lt.document->>'name' AS name, lt.status,
            (SELECT json_agg(a.id::text ORDER BY a.id) FROM test_item a WHERE a.test_id = lt.id
               AND (${units.length > 0} OR (true ${ofTakes.sql.replaceAll('i.take_id', 'a.take_id')}))) AS items
     FROM every_listening_test lt
     WHERE EXISTS (SELECT 1 FROM test_item i WHERE i.test_id = lt.id AND ((true ${ofUnits.sql}) OR (true ${ofTakes.sql})))
     ORDER BY lt.id`,
    [...ofUnits.values, ...ofTakes.values],
  );
}

/** Sessions that run with a turn that would go. */
export async function runningSessions(db: Queryable, slots: readonly string[]): Promise<string[]> {
  const { sql, values } = among(slots, 's.id', 1);
  const rows = await db.query<{ title: string }>(
    `SELECT DISTINCT p.document->>'title' AS title FROM session_slot s JOIN session_plan p ON p.id = s.plan_id
     WHERE p.status = 'running' ${sql}`,
    values,
  );
  return rows.map((r) => r.title);
}

/** How much of everything there is. */
export async function removalCounts(db: Queryable, scope: RemovalScope): Promise<RemovalCounts> {
  const { units, runs, takes, what } = scope;
  const count = async (sql: string, list: readonly string[], column: string): Promise<number> => {
    if (list.length === 0) return 0;
    const of = among(list, column, 1);
    const [row] = await db.query<{ count: number }>(`SELECT count(*)::int AS count FROM ${sql} WHERE true ${of.sql}`, of.values); // prettier-ignore
    return row.count;
  };
  const isUnit = what === 'unit';
  return {
    runs: runs.length,
    takes: takes.length,
    attempts: await attemptsBeside(db, scope),
    clips: scope.clips.length,
    sharedClips: scope.sharedClips.length,
    figures: await count('(SELECT run_id FROM measurement WHERE superseded_at IS NULL) m', runs, 'run_id'),
    tables: await count('table_reading', runs, 'run_id'),
    prices: await count('every_price', units, 'specimen_id'),
    points: isUnit ? await count('points', units, 'specimen_id') : await count('points', runs, 'run_id'),
    sheetEntries: await count('sheet_entry', units, 'specimen_id'),
    events: await count('unit_event', units, 'specimen_id'),
    photographs: scope.photographs.length,
    reviews: await count('review', units, 'specimen_id'),
    relations: (await count('unit_relation', units, 'specimen_id')) + (await count('unit_relation', units, 'other_id')),
    corrections: (await correctionsAbout(db, scope)).length,
    answers: isUnit ? (await answersAbout(db, units)).length : 0,
    words: await count('heard_word', units, 'specimen_id'),
    parts: Math.max(0, units.length - 1),
    tests: isUnit ? scope.tests.map((t) => t.name) : [],
    testsWithoutClip: isUnit ? [] : scope.tests.map((t) => t.name),
  };
}

/** Attempts whose clip is no take's that goes. */
async function attemptsBeside(db: Queryable, { slotTakes, takes }: RemovalScope): Promise<number> {
  const [row] = await db.query<{ count: number }>(
    `SELECT count(*)::int AS count FROM slot_take s
     WHERE s.id IN (SELECT value::bigint FROM jsonb_array_elements_text($1::jsonb)) AND s.clip_sha256 NOT IN
       (SELECT clip_sha256 FROM every_take WHERE id IN (SELECT value::bigint FROM jsonb_array_elements_text($2::jsonb)))`,
    [JSON.stringify(slotTakes), JSON.stringify(takes)],
  );
  return row.count;
}

/** Corrections that are about nothing but what goes. */
function correctionsAbout(db: Queryable, { units, runs, takes, photographs }: RemovalScope): Promise<string[]> {
  return ids(
    db,
    `SELECT id FROM correction
     WHERE (jsonb_array_length(specimens) > 0 AND specimens <@ $1::jsonb) OR $2::jsonb ? coalesce(change->>'run', '')
        OR $3::jsonb ? coalesce(change->>'take', '') OR $4::jsonb ? coalesce(change->>'photograph', '')
        OR EXISTS (SELECT 1 FROM jsonb_array_elements(coalesce(change->'files', '[]')) f WHERE $3::jsonb ? (f->>'take'))`,
    [JSON.stringify(units), JSON.stringify(runs), JSON.stringify(takes), JSON.stringify(photographs)],
  );
}

function answersAbout(db: Queryable, units: readonly string[]): Promise<string[]> {
  return ids(db, 'SELECT id FROM heard_answer WHERE specimens ?| ARRAY(SELECT jsonb_array_elements_text($1::jsonb))', [
    JSON.stringify(units),
  ]);
}

/** Other units that answers hold these against: what is known of them changes. */
export async function answeredUnits(db: Queryable, units: readonly string[]): Promise<string[]> {
  return ids(
    db,
    `SELECT DISTINCT o.id FROM heard_answer h CROSS JOIN LATERAL jsonb_array_elements_text(h.specimens) AS o (id)
     WHERE h.specimens ?| ARRAY(SELECT jsonb_array_elements_text($1::jsonb))`,
    [JSON.stringify(units)],
  );
}

/** Takes all of it out of the database; call it in a transaction. */
export async function removeRows(db: Queryable, scope: RemovalScope): Promise<void> {
  const { what, units, runs, takes, slots, slotTakes, clips, tests } = scope;
  const remove = async (table: string, column: string, list: readonly string[]): Promise<void> => {
    const { sql, values } = among(list, column, 1);
    if (list.length > 0) await db.query(`DELETE FROM ${table} WHERE true ${sql}`, values);
  };
  await remove('correction', 'id', await correctionsAbout(db, scope));
  if (what === 'unit') {
    await remove('heard_word', 'specimen_id', units);
    await remove('heard_answer', 'id', await answersAbout(db, units));
    await removeTests(db, tests.map((t) => t.id)); // prettier-ignore
  } else {
    const { sql, values } = among(takes, 'take_id', 1);
    await db.query(`UPDATE test_item SET take_id = NULL WHERE true ${sql}`, values);
  }
  await remove('photograph', 'id', scope.photographs);
  await remove('slot_take', 'id', slotTakes);
  if (what === 'unit' || what === 'run') {
    await remove('table_reading', 'slot_id', slots);
    const { sql, values } = among(slots, 'id', 1);
    await db.query(`UPDATE session_slot SET run_id = NULL WHERE true ${sql}`, values);
  }
  await remove('every_take', 'id', takes);
  for (const table of ['measurement', 'curve', 'table_reading', 'points']) await remove(table, 'run_id', runs);
  await remove('every_run', 'id', runs);
  await db.query('DELETE FROM session s WHERE NOT EXISTS (SELECT 1 FROM every_run r WHERE r.session_id = s.id)');
  if (what === 'unit') {
    for (const table of TABLES_OF_UNITS) await remove(table, 'specimen_id', units);
    await remove('unit_relation', 'other_id', units);
    await remove('family_counting', 'counts_id', units);
    // Only units that were merged into others are left of its configurations: those that stand are asked about before.
    const variants = among(units, 'variant_of', 1);
    await db.query(
      `UPDATE every_specimen SET variant_of = NULL, configuration = '', varies = NULL WHERE true ${variants.sql}`,
      variants.values,
    );
    await remove('unit_merge', 'specimen_id', units);
    await remove('unit_merge', 'into_id', units);
    await remove('every_specimen', 'id', units);
    await db.query('DELETE FROM model m WHERE NOT EXISTS (SELECT 1 FROM every_specimen s WHERE s.model_id = m.id)');
  }
  const files = [JSON.stringify(clips)];
  const inClips = '(SELECT jsonb_array_elements_text($1::jsonb))';
  for (const table of ['segment_choice', 'analysis', 'clip_check'])
    await db.query(`DELETE FROM ${table} WHERE clip_sha256 IN ${inClips}`, files);
  await db.query(`DELETE FROM clip WHERE sha256 IN ${inClips}`, files);
}

/** Tests with their sittings; what was answered in them about other units stays on the scale. */
async function removeTests(db: Queryable, tests: readonly string[]): Promise<void> {
  if (tests.length === 0) return;
  const { sql, values } = among(tests, 'test_id', 1);
  const ofTrials = `trial_id IN (SELECT t.id FROM trial t JOIN sitting s ON s.id = t.sitting_id WHERE true ${sql})`;
  await db.query(`UPDATE heard_answer SET trial_id = NULL WHERE ${ofTrials}`, values);
  await db.query(`UPDATE heard_word SET trial_id = NULL WHERE ${ofTrials}`, values);
  await db.query(`DELETE FROM trial WHERE sitting_id IN (SELECT id FROM sitting WHERE true ${sql})`, values);
  await db.query(`DELETE FROM sitting WHERE true ${sql}`, values);
  await db.query(`DELETE FROM test_item WHERE true ${sql}`, values);
  const byId = among(tests, 'id', 1);
  await db.query(`DELETE FROM every_listening_test WHERE true ${byId.sql}`, byId.values);
}

/** A file that goes: a clip, or one that was prepared for listeners. */
export type GoingFile =
  | { readonly clip: string }
  | { readonly original: string; readonly extension: string }
  | { readonly photo: string; readonly format: string }
  | { readonly test: string; readonly item: string };

export interface RemovalRow {
  readonly id: string;
  readonly what: Removable;
  readonly text: string;
  readonly reason: string;
  readonly files: readonly GoingFile[];
  readonly removed_at: Date;
}

export async function addRemoval(
  db: Queryable,
  row: Omit<RemovalRow, 'id' | 'removed_at'> & { readonly at: Date },
): Promise<string> {
  const [{ id }] = await db.query<{ id: string }>(
    'INSERT INTO removal (what, text, reason, files, removed_at) VALUES ($1, $2, $3, $4, $5) RETURNING id',
    [row.what, row.text, row.reason, JSON.stringify(row.files), row.at],
  );
  return id;
}

export async function listRemovals(db: Queryable): Promise<RemovalRow[]> {
  return db.query('SELECT id, what, text, reason, files, removed_at FROM removal ORDER BY id DESC');
}

/** Removals whose files are not all gone. */
export async function unfinishedRemovals(db: Queryable): Promise<RemovalRow[]> {
  return db.query(
    `SELECT id, what, text, reason, files, removed_at FROM removal WHERE jsonb_array_length(files) > 0 ORDER BY id`,
  );
}

export async function filesAreGone(db: Queryable, id: string): Promise<void> {
  await db.query(`UPDATE removal SET files = '[]' WHERE id = $1`, [id]);
}
