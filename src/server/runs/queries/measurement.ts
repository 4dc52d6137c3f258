import type { Measurement } from '#core/measure/measurement';
import { among, amongUpTo } from '../../platform/db/among';
import type { Queryable } from '../../platform/db/database';
import type { FactRow } from '#domain/catalogue/fact';
import type { RepeatedReading } from '#domain/catalogue/specimen-base';

/**
 * Keeps the figures of a run. Figures of the same algorithm version that have changed (other segments) stay, with the
 * moment they ceased to count; the same figures again change nothing.
 */
export async function storeMeasurements(
  db: Queryable,
  runId: string,
  algorithmVersion: number,
  measurements: readonly Measurement[],
): Promise<void> {
  // A take that was left out takes with it the figures that only it gave.
  await db.query(
    `UPDATE measurement SET superseded_at = now()
     WHERE run_id = $1 AND algorithm_version = $2 AND superseded_at IS NULL
       AND NOT (quantity = ANY(SELECT jsonb_array_elements_text($3::jsonb)))`,
    [runId, algorithmVersion, JSON.stringify(measurements.map((m) => m.quantity))],
  );
  for (const m of measurements) {
    const document = JSON.stringify(m);
    await db.query(
      `UPDATE measurement SET superseded_at = now()
       WHERE run_id = $1 AND quantity = $2 AND algorithm_version = $3 AND superseded_at IS NULL AND document <> $4::jsonb`,
      [runId, m.quantity, algorithmVersion, document],
    );
    await db.query(
      `INSERT INTO measurement (run_id, quantity, algorithm_version, value, uncertainty, bound, not_measured, document)
       VALUES ($1, $2, $3, $4, $5, $6, $7, $8)
       ON CONFLICT (run_id, quantity, algorithm_version) WHERE superseded_at IS NULL DO NOTHING`,
      [runId, m.quantity, algorithmVersion, m.value, m.uncertainty, m.bound, m.notMeasured, document],
    );
  }
}

/** Figures of all runs of a specimen, in the order of the first time, whatever was replaced since. */
export async function measurementsOfSpecimen(
  db: Queryable,
  specimenId: string,
  algorithmVersion: number,
): Promise<{ run_id: string; document: unknown }[]> {
  return db.query(
    `SELECT run_id, document FROM (
       SELECT me.run_id, me.document, me.superseded_at, min(me.id) OVER (PARTITION BY me.run_id, me.quantity) AS first_id
       FROM measurement me JOIN run r ON r.id = me.run_id
       WHERE r.specimen_id = $1 AND me.algorithm_version = $2) AS figure
     WHERE superseded_at IS NULL ORDER BY run_id, first_id`,
    [specimenId, algorithmVersion],
  );
}

const FACTS = `r.specimen_id, me.quantity, me.value, me.uncertainty, me.bound, me.not_measured, p.slug AS protocol,
            v.version AS protocol_version, se.held_on AS day,
            (me.document->'settings'->>'highHz')::float8 AS high_hz
     FROM measurement me
     JOIN run r ON r.id = me.run_id
     JOIN session se ON se.id = r.session_id
     JOIN protocol_version v ON v.id = r.protocol_version_id
     JOIN protocol p ON p.id = v.protocol_id
     WHERE me.algorithm_version = $1 AND me.superseded_at IS NULL`;

/** Which runs count: those of some units, held up to a day. Its values come after the version of the algorithms. */
const readOfUnits = (ids: readonly string[] | null, until: string | null) =>
  amongUpTo(ids, until, { id: 'r.specimen_id', day: 'se.held_on' }, 2);

/**
 * The figures that may count, newest first: of each specimen, quantity, protocol version and band the newest that was
 * measured, and the newest reason why not. Runs that open or close a session are the rig's.
 */
export async function currentFacts(
  db: Queryable,
  algorithmVersion: number,
  ids: readonly string[] | null = null,
  until: string | null = null,
): Promise<FactRow[]> {
  const { sql, values } = readOfUnits(ids, until);
  return db.query(
    `SELECT * FROM (
       SELECT DISTINCT ON (r.specimen_id, me.quantity, v.id, me.document->'settings'->>'highHz', me.value IS NULL)
              r.id AS run_id, ${FACTS} AND r.purpose = 'unit' ${sql}
       ORDER BY r.specimen_id, me.quantity, v.id, me.document->'settings'->>'highHz', me.value IS NULL, se.held_on DESC,
                r.id DESC) AS fact
     ORDER BY specimen_id, quantity, day DESC, run_id DESC`,
    [algorithmVersion, ...values],
  );
}

/** Exact figures of units that were read more than once under one version of a protocol and on one rig. */
export async function repeatedFacts(
  db: Queryable,
  algorithmVersion: number,
  ids: readonly string[] | null = null,
  until: string | null = null,
): Promise<(RepeatedReading & { readonly specimen_id: string })[]> {
  const { sql, values } = readOfUnits(ids, until);
  return db.query(
    `SELECT * FROM (
       SELECT r.specimen_id, me.id, me.quantity, me.value, me.uncertainty,
              r.specimen_id || '/' || r.protocol_version_id || '/' || coalesce(r.rig_id::text, '') AS "group",
              count(*) OVER (PARTITION BY me.quantity, r.specimen_id, r.protocol_version_id, r.rig_id) AS readings
       FROM measurement me
       JOIN run r ON r.id = me.run_id
       JOIN session se ON se.id = r.session_id
       WHERE me.algorithm_version = $1 AND me.superseded_at IS NULL AND me.value IS NOT NULL AND me.bound = 'exact' ${sql}) AS reading
     WHERE readings > 1 ORDER BY specimen_id, id`,
    [algorithmVersion, ...values],
  );
}

/** Exact figures of units that were measured under more than one version of a protocol, newest first. */
export async function bridgingFacts(
  db: Queryable,
  algorithmVersion: number,
  ids: readonly string[] | null = null,
  until: string | null = null,
): Promise<FactRow[]> {
  const { sql, values } = readOfUnits(ids, until);
  const { sql: ofThese } = among(ids, 'x.specimen_id', 2);
  return db.query(
    `SELECT ${FACTS} AND me.value IS NOT NULL AND me.bound = 'exact' AND r.specimen_id IN
       (SELECT x.specimen_id FROM run x WHERE true ${ofThese}
        GROUP BY x.specimen_id HAVING count(DISTINCT x.protocol_version_id) > 1) ${sql}
     ORDER BY se.held_on DESC, r.id DESC`,
    [algorithmVersion, ...values],
  );
}
