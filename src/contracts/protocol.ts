import { z } from 'zod';
import { CAUTION_IDS } from '#core/rules/cautions';
import { stepRole, STEP_ROLE_IDS } from '#core/gear/kinds';
import { playKindOf } from '#core/rules/compare-versions';
import { PLAY_KINDS } from '#core/rules/step-sheet';
import { TAKE_CHECK_IDS } from '#core/rules/take-checks/take-check';
import { categorySchema, nameSchema, slugSchema } from './common';

/** What a step is for, which decides what is measured of it. Steps of the first protocol carry these as their names. */
export const STEP_ROLES = STEP_ROLE_IDS;
export const stepRoleSchema = z.enum(STEP_ROLES);
export type StepRole = z.infer<typeof stepRoleSchema>;

/** The sweep that is played at every step of the role "sweep". */
export const protocolSweepSchema = z.strictObject({
  lowHz: z.number().positive(),
  highHz: z.number().positive(),
  seconds: z.number().min(0.5).max(120),
  levelDbfs: z.number().max(0).default(-6),
  gateMs: z.number().min(0.5).max(2000).default(500),
});
export type ProtocolSweep = z.infer<typeof protocolSweepSchema>;

/** How the gain of a step is found. */
export const gainRuleSchema = z.discriminatedUnion('rule', [
  z.strictObject({ rule: z.literal('fixed'), gainDb: z.number().min(-40).max(120) }),
  z.strictObject({
    rule: z.literal('peaks').describe('Highest sample inside a window'),
    lowDbfs: z.number().min(-60).max(0),
    highDbfs: z.number().min(-60).max(0),
  }),
  z.strictObject({ rule: z.literal('maximum') }),
  z.strictObject({ rule: z.literal('dial'), position: z.string().min(1).max(40) }),
  z.strictObject({ rule: z.literal('as-step'), step: z.string(), byDb: z.number().min(-60).max(60).default(0) }),
]);

/** A table that is filled in at a step: latency by rate and buffer, gain by dial position. */
export const stepTableSchema = z.strictObject({
  rowName: nameSchema,
  rows: z.array(nameSchema).min(1).max(40),
  columnName: nameSchema,
  columns: z.array(nameSchema).min(1).max(20),
  cell: nameSchema.describe('What stands in a cell, e.g. "round trip"'),
  unit: z.string().max(12),
  fromFile: z
    .enum(['latency', 'level'])
    .nullable()
    .default(null)
    .describe('How a recording fills a cell: delay between its two channels, or level of its tone'),
});

export const stepSchema = z.strictObject({
  id: slugSchema,
  /** Left out, it is the step's own name, or "other". */
  role: stepRoleSchema.optional(),
  title: nameSchema,
  purpose: z.string().max(300).default('').describe('One sentence: what the step is for'),
  /** One sentence: what is played or said, and how. */
  instruction: z.string().min(1),
  /** Fragments of file names that point to this step. */
  fileHints: z.array(z.string()).default([]),
  distanceM: z.number().positive().nullable().default(null),
  angleDeg: z.number().nullable().default(null),
  /** Level of the calibrator at a step of the role "calibration"; a take may say otherwise. */
  levelDbSpl: z.number().min(40).max(140).nullable().default(null),
  /** Level of the tone at the input at a step of the role "level-tone"; a take may say otherwise. */
  levelDbu: z.number().min(-120).max(30).nullable().default(null),
  needsPlacement: z.boolean().default(true),
  play: z
    .strictObject({
      kind: z.enum(PLAY_KINDS),
      text: z.string().max(4000).nullable().default(null).describe('Words of this step; null: the passage, or none'),
    })
    .nullable()
    .default(null)
    .describe('What is said or played; left out, it follows from the role'),
  heightM: z.number().min(-3).max(5).nullable().default(null).describe('Capsule above the source; below is negative'),
  address: z.enum(['end', 'side']).nullable().default(null),
  gain: gainRuleSchema.nullable().default(null),
  lengthS: z
    .strictObject({ least: z.number().min(0).max(36_000), most: z.number().min(0.1).max(36_000) })
    .nullable()
    .default(null),
  repeats: z.int().min(1).max(20).default(1),
  voices: z.array(nameSchema).max(10).default([]),
  accessories: z.array(nameSchema).max(10).default([]),
  pair: z
    .strictObject({ step: z.string(), varies: nameSchema })
    .nullable()
    .default(null)
    .describe('The other half of a with/without pair, and what it lacks or adds'),
  checks: z
    .array(z.strictObject({ check: z.enum(TAKE_CHECK_IDS), limit: z.number().nullable().default(null) }))
    .default([])
    .describe('Checks with a limit of their own; all others run with the usual ones'),
  measures: z.array(z.string()).default([]).describe('Names of figures that follow'),
  table: stepTableSchema.nullable().default(null),
  cautions: z.array(z.enum(CAUTION_IDS)).default([]),
  comparable: z
    .strictObject({ withPrevious: z.boolean(), reason: z.string().trim().min(1, 'needs a reason').max(500) })
    .nullable()
    .default(null)
    .describe('Whether results stay comparable with the version before, where something changed that shapes them'),
});
export type Step = z.infer<typeof stepSchema>;

/** A version of a protocol, frozen once a run has used it. */
export const protocolSchema = z.strictObject({
  id: slugSchema,
  version: z.int().min(1),
  name: nameSchema,
  category: categorySchema,
  alsoFor: z.array(categorySchema).max(20).optional().describe('Further kinds of gear that it serves.'),
  /** The text that is read, where there is one. */
  text: z.string().nullable().default(null),
  sweep: protocolSweepSchema.nullable().default(null),
  cautions: z.array(z.string()).default([]),
  sampleRateHz: z.number().min(8000).max(192_000).nullable().default(null),
  changes: z.string().max(1000).default('').describe('What this version changed, and why'),
  steps: z.array(stepSchema).min(1),
});
export type Protocol = z.infer<typeof protocolSchema>;

/** Kinds of gear that a protocol serves: its own first. */
export const servedKinds = ({ category, alsoFor = [] }: Pick<Protocol, 'category' | 'alsoFor'>): string[] => [
  ...new Set([category, ...alsoFor]),
];
/** Whether units of a kind can be tested by it. */
export const servesKind = (protocol: Pick<Protocol, 'category' | 'alsoFor'>, kind: string): boolean =>
  servedKinds(protocol).includes(kind);

/** Whether a take of a step is the answer to the protocol's sweep. */
export const answersSweep = (step: { readonly id: string; readonly role?: StepRole | undefined }): boolean =>
  stepRole(roleOf(step))?.answersSweep ?? false;

/** What a step is for. */
export function roleOf(step: { readonly id: string; readonly role?: StepRole | undefined }): StepRole {
  return step.role ?? STEP_ROLES.find((role) => role === step.id) ?? 'other';
}

/** A level or a speed that a take has of its own. */
export type TakeLevel = 'levelDbSpl' | 'levelDbu' | 'windSpeedMs';

/** What of these a take of a step is made at: it shapes the figures. */
export function levelsAsked(step: Pick<Step, 'id' | 'role' | 'play'>): TakeLevel[] {
  const { levelIn } = stepRole(roleOf(step)) ?? {};
  return [
    ...(levelIn === 'dBu' ? ['levelDbu' as const] : []),
    ...(levelIn === 'dB SPL' ? ['levelDbSpl' as const] : []),
    ...(playKindOf(step) === 'wind' ? ['windSpeedMs' as const] : []),
  ];
}

/** A version as the first of its protocol: what it changed against others says nothing there. */
export const asFirstVersion = (protocol: Protocol): Protocol => ({
  ...protocol,
  version: 1,
  changes: '',
  steps: protocol.steps.map((step) => ({ ...step, comparable: null })),
});

/** What is wrong inside a protocol that has the right shape. */
export function protocolProblems(protocol: Protocol): { field: string; message: string }[] {
  const problems: { field: string; message: string }[] = [];
  const ids = protocol.steps.map((s) => s.id);
  protocol.steps.forEach((step, i) => {
    const say = (field: string, message: string): void => {
      problems.push({ field: `steps[${i}].${field}`, message });
    };
    if (ids.indexOf(step.id) < i) say('id', `"${step.id}" is there twice`);
    if (step.pair && !ids.includes(step.pair.step)) say('pair', `there is no step "${step.pair.step}"`);
    if (step.gain?.rule === 'as-step' && !ids.slice(0, i).includes(step.gain.step))
      say('gain', `the gain refers to "${step.gain.step}", which is not an earlier step`);
    if (step.gain?.rule === 'peaks' && step.gain.lowDbfs >= step.gain.highDbfs)
      say('gain', 'the window is empty: its lower end is not below its upper end');
    if (step.lengthS && step.lengthS.least > step.lengthS.most) say('lengthS', 'the least length exceeds the most');
    if ((step.play?.kind === 'sweep' || answersSweep(step)) && !protocol.sweep)
      say('play', 'a sweep is played, but the protocol does not say which one');
    if (step.play?.kind === 'table' && !step.table) say('table', 'a step that fills a table needs one');
  });
  return problems;
}
