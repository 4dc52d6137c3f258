import { clipSummarySchema } from '#contracts/clip-summary';
import {
  findingSchema,
  overruleSchema,
  slotTakeSchema,
  takeSettingsSchema,
  type SlotTake,
} from '#contracts/session-plan';
import type { KeptTake } from '#domain/sessions/run-of-slot';
import { clipFromRow } from '../runs/queries/clip';
import type { SlotTakeRow } from './queries/session-plan';

/** A take of a session as the pages read it. */
export function slotTakeFromRow(row: SlotTakeRow): SlotTake {
  const summary = row.summary === null ? null : clipSummarySchema.parse(row.summary);
  return {
    id: row.slot_take_id,
    step: row.step,
    attempt: row.attempt,
    clip: clipFromRow(row),
    settings: takeSettingsSchema.parse(row.settings),
    verdict: row.verdict,
    findings: findingSchema.array().parse(row.findings),
    overruled: overruleSchema.array().parse(row.overruled),
    state: row.state,
    note: row.note,
    changes: slotTakeSchema.shape.changes.parse(row.changes),
    peakDbfs: summary?.level.peakDbfs ?? null,
    loudnessLufs: summary?.loudness.integratedLufs ?? null,
    durationS: row.duration_s,
  };
}

/** A kept take as its run needs it. */
export const keptTakeFromRow = (row: SlotTakeRow): KeptTake => ({
  step: row.step,
  attempt: row.attempt,
  container: row.container,
  sha256: row.sha256,
  settings: takeSettingsSchema.parse(row.settings),
  findings: findingSchema.array().parse(row.findings),
  overruled: overruleSchema.array().parse(row.overruled),
  note: row.note,
});
