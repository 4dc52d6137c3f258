import { clipSummarySchema } from '#contracts/clip-summary';
import { measurementSchema } from '#contracts/measurement';
import { takeSchema, type Take } from '#contracts/specimen';
import { clipFromRow } from './queries/clip';
import type { TakeRow } from './queries/run';

/** One record that cannot be read must not take the page of its unit with it: it can be measured again. */
const UNREADABLE = {
  status: 'failed',
  reason: 'What was measured cannot be read any more; measure it again.',
} as const;

/** Null where they are there and do not fit their schema. */
function readableFigures(
  row: Pick<TakeRow, 'summary' | 'measurements'>,
): Pick<Take, 'summary' | 'measurements'> | null {
  const summary = clipSummarySchema.nullable().safeParse(row.summary);
  const measurements = measurementSchema.array().safeParse(row.measurements ?? []);
  return summary.success && measurements.success ? { summary: summary.data, measurements: measurements.data } : null;
}

/** A take as the pages read it. */
export function takeFromRow(row: TakeRow): Take {
  const figures = readableFigures(row);
  return {
    id: row.take_id,
    step: row.step,
    stepTitle: row.step_title,
    clip: clipFromRow(row),
    gainDb: row.gain_db,
    distanceM: row.distance_m,
    angleDeg: row.angle_deg,
    levelDbSpl: row.level_db_spl,
    levelDbu: row.level_dbu,
    windSpeedMs: row.wind_speed_ms,
    note: row.note,
    settings: takeSchema.shape.settings.parse(row.settings),
    overruled: takeSchema.shape.overruled.parse(row.overruled),
    analysis: {
      id: row.analysis_id,
      attempts: row.attempts,
      ...(figures ? { status: row.status, reason: row.reason } : UNREADABLE),
    },
    summary: figures?.summary ?? null,
    measurements: figures?.measurements ?? [],
  };
}
