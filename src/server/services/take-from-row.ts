import { clipSummarySchema } from '#contracts/clip-summary';
import { measurementSchema } from '#contracts/measurement';
import { takeSchema, type Take } from '#contracts/specimen';
import { clipFromRow } from '../db/queries/clip';
import type { TakeRow } from '../db/queries/run';

/** A take as the pages read it. */
export function takeFromRow(row: TakeRow): Take {
  return {
    id: row.take_id,
    step: row.step,
    stepTitle: row.step_title,
    clip: clipFromRow(row),
    gainDb: row.gain_db,
    distanceM: row.distance_m,
    angleDeg: row.angle_deg,
    note: row.note,
    settings: takeSchema.shape.settings.parse(row.settings),
    overruled: takeSchema.shape.overruled.parse(row.overruled),
    analysis: { id: row.analysis_id, status: row.status, reason: row.reason, attempts: row.attempts },
    summary: row.summary === null ? null : clipSummarySchema.parse(row.summary),
    measurements: row.measurements === null ? [] : measurementSchema.array().parse(row.measurements),
  };
}
