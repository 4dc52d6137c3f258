import { z } from 'zod';
import { categorySchema } from '#contracts/common';
import { clipSchema } from '#contracts/clip';
import { PRICE_KINDS } from '#core/rules/rubric';
import {
  claimSchema,
  runDocumentSchema,
  runTakeSchema,
  type RunDocument,
  type RunDocumentInput,
} from '#contracts/run-document';
import { today } from '../../ui/format';

const fileSchema = z.object({
  name: z.string(),
  /** Null until it is stored. */
  clip: clipSchema.nullable(),
  step: z.string().nullable(),
  reason: z.string(),
  gainDb: z.number().nullable(),
  distanceM: z.number().nullable(),
  angleDeg: z.number().nullable(),
  /** Of a dropped run.json; the form does not ask for them. */
  levelDbSpl: z.number().optional(),
  windSpeedMs: z.number().optional(),
  note: z.string().optional(),
  settings: runTakeSchema.shape.settings,
  overruled: runTakeSchema.shape.overruled,
});
export type DraftFile = z.infer<typeof fileSchema>;

/** A run that is being put together; kept in the browser, so that a reload loses nothing. */
export const draftSchema = z.object({
  maker: z.string(),
  model: z.string(),
  label: z.string(),
  category: categorySchema,
  date: z.string(),
  protocol: z.string(),
  protocolVersion: z.number(),
  source: z.enum(['bought', 'lent', 'sent', 'own']),
  amount: z.number().nullable(),
  currency: z.string(),
  kind: z.enum(PRICE_KINDS),
  /** Points by criterion. */
  points: z.record(z.string(), z.number().nullable()),
  files: z.array(fileSchema),
  /** Prices of a dropped run.json beyond the one in the form, and reasons of its points. */
  furtherPrices: z.array(z.unknown()),
  claims: z.array(claimSchema),
  inputFullScaleDbu: z.number().nullable(),
  rig: z.string().nullable().default(null),
  purpose: z.enum(['opening', 'unit', 'closing']).default('unit'),
  tables: runDocumentSchema.shape.tables,
  reasons: z.record(z.string(), z.string()),
  /** Set once the run is in the archive. */
  imported: z.object({ runId: z.string(), specimenId: z.string(), created: z.boolean() }).nullable(),
});
export type Draft = z.infer<typeof draftSchema>;

export function emptyDraft(): Draft {
  return {
    maker: '',
    model: '',
    label: '',
    category: 'microphone',
    date: today(),
    protocol: 'desk-voice',
    protocolVersion: 3,
    source: 'bought',
    amount: null,
    currency: 'EUR',
    kind: 'street',
    points: {},
    files: [],
    furtherPrices: [],
    claims: [],
    inputFullScaleDbu: null,
    rig: null,
    purpose: 'unit',
    tables: [],
    reasons: {},
    imported: null,
  };
}

const KEY = 'sediment.new-run';

export function loadDraft(storage: Pick<Storage, 'getItem'>): Draft {
  const text = storage.getItem(KEY);
  if (text === null) return emptyDraft();
  try {
    return draftSchema.parse(JSON.parse(text));
  } catch {
    // A draft of another version cannot be read; its clips are in the archive all the same.
    return emptyDraft();
  }
}

export function saveDraft(storage: Pick<Storage, 'setItem'>, draft: Draft): void {
  storage.setItem(KEY, JSON.stringify(draft));
}

/** The run document that a draft amounts to. What is not filled in yet is left to the server to name. */
export function documentOf(draft: Draft): RunDocumentInput {
  const price =
    draft.amount === null
      ? []
      : [{ amount: draft.amount, currency: draft.currency.toUpperCase(), kind: draft.kind, date: draft.date }];
  return {
    format: 'sediment-run/1',
    specimen: { maker: draft.maker, model: draft.model, label: draft.label, category: draft.category },
    date: draft.date,
    protocol: draft.protocol,
    protocolVersion: draft.protocolVersion,
    source: draft.source,
    prices: [...price, ...(draft.furtherPrices as RunDocument['prices'])],
    claims: draft.claims,
    ...(draft.inputFullScaleDbu === null ? {} : { inputFullScaleDbu: draft.inputFullScaleDbu }),
    ...(draft.rig === null ? {} : { rig: draft.rig }),
    purpose: draft.purpose,
    tables: draft.tables,
    takes: draft.files
      .filter((f) => f.step !== null)
      .map((f) => ({
        step: f.step as string,
        file: f.name,
        gainDb: f.gainDb as number,
        ...(f.distanceM === null ? {} : { distanceM: f.distanceM }),
        ...(f.angleDeg === null ? {} : { angleDeg: f.angleDeg }),
        ...(f.levelDbSpl === undefined ? {} : { levelDbSpl: f.levelDbSpl }),
        ...(f.windSpeedMs === undefined ? {} : { windSpeedMs: f.windSpeedMs }),
        ...(f.note === undefined ? {} : { note: f.note }),
        ...(f.settings === undefined ? {} : { settings: f.settings }),
        ...(f.overruled === undefined ? {} : { overruled: f.overruled }),
      })),
    points: Object.entries(draft.points).flatMap(([criterion, value]) =>
      value === null
        ? []
        : [{ criterion, value, ...(draft.reasons[criterion] ? { reason: draft.reasons[criterion] } : {}) }],
    ),
  };
}

/** Fills a draft from the run.json of a dropped folder; files keep what they have. */
export function fillFromDocument(draft: Draft, raw: unknown): { draft: Draft; problem: string | null } {
  const parsed = runDocumentSchema.safeParse(raw);
  if (!parsed.success) {
    const list = parsed.error.issues.map((i) => `${i.path.join('.') || 'run.json'}: ${i.message}`).join('; ');
    return { draft, problem: `run.json was not used: ${list}` };
  }
  const { specimen, date, protocol, protocolVersion, source, prices, takes, points, claims } = parsed.data;
  const [first, ...rest] = prices;
  const files = draft.files.map((file) => {
    const take = takes.find((t) => t.file === file.name);
    if (!take) return { ...file, step: null, reason: 'run.json does not name it' };
    return {
      ...file,
      step: take.step,
      reason: 'run.json says so',
      gainDb: take.gainDb,
      distanceM: take.distanceM ?? null,
      angleDeg: take.angleDeg ?? null,
      ...(take.levelDbSpl === undefined ? {} : { levelDbSpl: take.levelDbSpl }),
      ...(take.windSpeedMs === undefined ? {} : { windSpeedMs: take.windSpeedMs }),
      ...(take.note === undefined ? {} : { note: take.note }),
      ...(take.settings === undefined ? {} : { settings: take.settings }),
      ...(take.overruled === undefined ? {} : { overruled: take.overruled }),
    };
  });
  const absent = takes.filter((t) => !files.some((f) => f.name === t.file)).map((t) => t.file);
  return {
    draft: {
      ...draft,
      ...specimen,
      date,
      protocol,
      protocolVersion,
      source,
      amount: first && first.date === date ? first.amount : null,
      currency: first?.currency ?? draft.currency,
      kind: first?.kind ?? draft.kind,
      claims,
      inputFullScaleDbu: parsed.data.inputFullScaleDbu ?? null,
      rig: parsed.data.rig ?? null,
      purpose: parsed.data.purpose,
      tables: parsed.data.tables,
      furtherPrices: first && first.date === date ? rest : prices,
      points: Object.fromEntries(points.map((p) => [p.criterion, p.value])),
      reasons: Object.fromEntries(points.flatMap((p) => (p.reason ? [[p.criterion, p.reason]] : []))),
      files,
    },
    problem: absent.length > 0 ? `run.json names files that were not dropped: ${absent.join(', ')}` : null,
  };
}

/** What still has to be filled in before a run can be imported. */
export function whatIsMissing(draft: Draft): string[] {
  const missing: string[] = [];
  if (!draft.maker.trim()) missing.push('maker');
  if (!draft.model.trim()) missing.push('model');
  if (!draft.label.trim()) missing.push('label');
  if (!draft.date) missing.push('day of the recording');
  const used = draft.files.filter((f) => f.step !== null);
  if (used.length === 0) missing.push('at least one file with its step');
  if (used.some((f) => f.clip === null)) missing.push('uploads to finish');
  if (used.some((f) => f.gainDb === null)) missing.push('the gain of every take');
  const steps = used.map((f) => f.step);
  if (new Set(steps).size < steps.length) missing.push('one file per step only');
  return missing;
}
