import { takeLevelSchemas } from './run-document';
import { z } from 'zod';
import { TAKE_CHECK_IDS } from '#core/rules/take-checks/take-check';
import { clipSchema } from './clip';
import { categorySchema, daySchema, nameSchema, sha256Schema } from './common';
import { protocolSchema } from './protocol';
import { rigDocumentSchema, rigHealthSchema } from './rig';
import { SOURCES } from './run-document';
import { tableReadingSchema } from './table-reading';

export const SLOT_PURPOSES = ['opening', 'unit', 'closing'] as const;
export const PLAN_STATUS = ['planned', 'running', 'done', 'cancelled'] as const;

/** A unit of a session, by name, since it may be new. */
export const plannedUnitSchema = z.strictObject({
  maker: nameSchema,
  model: nameSchema,
  label: nameSchema,
  source: z.enum(SOURCES),
  dueBack: daySchema.nullable().default(null).describe('Day by which a loan has to go back'),
});
export type PlannedUnit = z.infer<typeof plannedUnitSchema>;

/** Body of a request that plans a session, or plans it anew. */
export const newPlanSchema = z.strictObject({
  title: nameSchema,
  day: daySchema,
  category: categorySchema,
  protocol: z.string(),
  protocolVersion: z.int().min(1),
  rig: z.string().nullable().default(null).describe('Name of the rig'),
  units: z.array(plannedUnitSchema).min(1, 'needs at least one unit').max(40),
  randomised: z.boolean().default(false),
  withControl: z.boolean().default(false).describe('Open and close with the control unit of the rig'),
  /** Steps of the control takes; empty: all of the protocol. */
  controlSteps: z.array(z.string()).default([]),
  needs: z
    .array(z.strictObject({ what: nameSchema, isThere: z.boolean() }))
    .default([])
    .describe('What has to be at hand: cables, batteries, calibrator'),
  note: z.string().trim().max(2000).default(''),
});
export type NewPlan = z.infer<typeof newPlanSchema>;

/** Settings of a take as noted. */
export const takeSettingsSchema = z.strictObject({
  gainDb: z.number().min(-40).max(120).nullable().default(null),
  dial: z.string().max(40).default(''),
  distanceM: z.number().positive().max(100).nullable().default(null),
  angleDeg: z.number().min(-360).max(360).nullable().default(null),
  pad: z.string().max(40).default(''),
  lowCut: z.string().max(40).default(''),
  pattern: z.string().max(40).default(''),
  phantom: z.boolean().nullable().default(null),
  voice: z.string().max(60).nullable().default(null),
  place: z.string().max(60).nullable().default(null),
  mount: z.string().max(60).nullable().default(null),
  processing: z.string().max(100).default('').describe('What was done to it after it was recorded, in words'),
  levelDbSpl: takeLevelSchemas.levelDbSpl.nullable().default(null),
  levelDbu: takeLevelSchemas.levelDbu.nullable().default(null),
  windSpeedMs: takeLevelSchemas.windSpeedMs.nullable().default(null),
});
export type TakeSettings = z.infer<typeof takeSettingsSchema>;

export const findingSchema = z.object({
  check: z.enum(TAKE_CHECK_IDS),
  weight: z.enum(['redo', 'look']),
  what: z.string(),
  next: z.string(),
});
/** A check that a person has overruled. */
export const overruleSchema = z.strictObject({
  check: z.enum(TAKE_CHECK_IDS),
  reason: z.string().trim().min(1, 'needs a reason').max(500),
});

/** A take of a running session. */
export const slotTakeSchema = z.object({
  id: z.string(),
  step: z.string(),
  attempt: z.int(),
  clip: clipSchema,
  settings: takeSettingsSchema,
  verdict: z.enum(['keep', 'look', 'redo']),
  findings: z.array(findingSchema),
  overruled: z.array(overruleSchema),
  state: z.enum(['open', 'kept', 'retaken']),
  note: z.string(),
  /** Settings that were corrected, oldest first, each as it stood before. */
  changes: z.array(z.object({ at: z.string(), before: takeSettingsSchema })),
  peakDbfs: z.number().nullable(),
  loudnessLufs: z.number().nullable(),
  durationS: z.number(),
});
export type SlotTake = z.infer<typeof slotTakeSchema>;

export const slotSchema = z.object({
  id: z.string(),
  ordinal: z.int(),
  purpose: z.enum(SLOT_PURPOSES),
  unit: plannedUnitSchema,
  specimenId: z.string().nullable(),
  runId: z.string().nullable(),
  /** Steps of this slot, in order. */
  steps: z.array(z.string()),
  takes: z.array(slotTakeSchema),
  tables: z.array(tableReadingSchema),
  /** Settings of this unit's last session, by step; what differs today is shown. */
  lastSettings: z.array(z.object({ step: z.string(), day: daySchema, settings: takeSettingsSchema.partial() })),
});
export type Slot = z.infer<typeof slotSchema>;

/** A row of the list of sessions. */
export const planRowSchema = z.object({
  id: z.string(),
  title: z.string(),
  day: daySchema,
  status: z.enum(PLAN_STATUS),
  category: categorySchema,
  protocol: z.string(),
  protocolVersion: z.int(),
  units: z.array(z.string()),
  steps: z.int(),
  kept: z.int(),
  missing: z.array(z.string()).describe('What has to be got before starting'),
  firstDueBack: daySchema.nullable(),
});
export type PlanRow = z.infer<typeof planRowSchema>;

export const planSchema = z.object({
  row: planRowSchema,
  plan: newPlanSchema,
  protocol: protocolSchema,
  rig: rigDocumentSchema.nullable(),
  slots: z.array(slotSchema),
  estimate: z.object({ minutes: z.number(), sessions: z.int() }),
  startedAt: z.string().nullable(),
  finishedAt: z.string().nullable(),
  cautionsSeen: z.array(z.string()),
  health: rigHealthSchema,
});
export type Plan = z.infer<typeof planSchema>;

/** A unit that should be tested again, and why. */
export const dueUnitSchema = z.object({
  id: z.string(),
  name: z.string(),
  unit: plannedUnitSchema,
  category: categorySchema,
  lastTested: daySchema.nullable(),
  reasons: z.array(z.object({ kind: z.string(), text: z.string() })),
});
export type DueUnit = z.infer<typeof dueUnitSchema>;

/** Body of a request that adds a take from a clip of the archive. */
export const newSlotTakeSchema = z.strictObject({
  step: z.string(),
  clip: sha256Schema,
  settings: takeSettingsSchema,
  note: z.string().max(2000).default(''),
});
export type NewSlotTake = z.infer<typeof newSlotTakeSchema>;

/** Body of a request that decides on a take. Settings are no part of it: a decision never changes what was noted. */
export const decideTakeSchema = z.strictObject({
  state: z.enum(['open', 'kept', 'retaken']),
  overruled: z.array(overruleSchema).default([]),
  note: z.string().max(2000).optional(),
});
export type DecideTake = z.infer<typeof decideTakeSchema>;

/** Body of a request that corrects what was noted with a take. */
export const correctSlotTakeSchema = z.strictObject({
  settings: takeSettingsSchema,
  note: z.string().max(2000).optional(),
});
export type CorrectSlotTake = z.infer<typeof correctSlotTakeSchema>;

/** Body of a request that makes the kept takes of a unit a run. */
export const finishSlotSchema = z.strictObject({
  withUndecided: z
    .boolean()
    .default(false)
    .describe('Takes that nobody has decided on stay beside the run; without it they are asked about'),
});
export type FinishSlot = z.infer<typeof finishSlotSchema>;

/** Body of a request that asks which clip is which step. */
export const matchRequestSchema = z.strictObject({
  clips: z
    .array(
      z.strictObject({ name: z.string().max(200), clip: sha256Schema, gainDb: z.number().nullable().default(null) }),
    )
    .min(1)
    .max(200),
});
/** The same for a run that is no turn of a session. */
export const matchStepsSchema = matchRequestSchema.extend({
  protocol: z.string(),
  protocolVersion: z.int(),
  steps: z.array(z.string()).max(500).describe('Steps that are still free'),
});
export const matchProposalSchema = z.object({
  name: z.string(),
  clip: clipSchema,
  step: z.string().nullable(),
  content: z.string(),
  reasons: z.array(z.string()),
  doubts: z.array(z.string()),
  certainty: z.number(),
  integratedLufs: z.number().nullable(),
});
export type MatchProposal = z.infer<typeof matchProposalSchema>;

/** Body of a request that looks for the places where one long recording can be cut into takes. */
export const findCutsSchema = z.strictObject({
  clip: sha256Schema,
  method: z.enum(['silences', 'tones', 'announcements']),
  silenceS: z
    .number()
    .min(1)
    .max(3600)
    .nullable()
    .default(null)
    .describe('A pause at least this long is a take of its own: the silent step'),
});
export type FindCuts = z.infer<typeof findCutsSchema>;
const stretchSchema = z.strictObject({ startS: z.number().min(0), endS: z.number().positive() });
export const foundCutsSchema = z.object({ stretches: z.array(stretchSchema) });

/** Body of a request that cuts one long recording at given places. */
export const cutRequestSchema = z.strictObject({
  clip: sha256Schema,
  stretches: z.array(stretchSchema).min(1).max(200),
});
export const cutPiecesSchema = z.object({
  pieces: z.array(z.object({ startS: z.number(), endS: z.number(), name: z.string(), clip: clipSchema })),
});

/** What a recording says for a cell of a table or for a calibration. */
export const readingSchema = z.object({
  toneDbfs: z.number().nullable(),
  toneHz: z.number().nullable(),
  latencyMs: z.number().nullable(),
});
export type Reading = z.infer<typeof readingSchema>;

/** A day on which units were tested: its runs and what the control unit says of it. */
export const heldSessionSchema = z.object({
  day: daySchema,
  rig: z.string().nullable(),
  runs: z.array(
    z.object({
      id: z.string(),
      purpose: z.enum(SLOT_PURPOSES),
      specimenId: z.string(),
      name: z.string(),
      protocol: z.string(),
      protocolVersion: z.int(),
      takes: z.int(),
      overruled: z.int(),
    }),
  ),
  health: rigHealthSchema,
  plans: z.array(z.object({ id: z.string(), title: z.string() })),
});
export type HeldSession = z.infer<typeof heldSessionSchema>;
/** Something that happened to a unit. */
export const unitEventSchema = z.strictObject({
  kind: z.enum(['firmware', 'repair', 'due-back', 'note', 'sum']),
  day: daySchema,
  note: z.string().trim().max(500).default(''),
  sum: z
    .string()
    .max(1000)
    .regex(/^sum=[\w%.&=−-]*$/, 'must be the query of an address of Sums')
    .nullable()
    .default(null)
    .describe('Of an answer that was kept: the address of its sum, with all of its numbers'),
});
export type UnitEvent = z.infer<typeof unitEventSchema>;

export const byDaySchema = z.object({ day: daySchema });
