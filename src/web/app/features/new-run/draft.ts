import { variantOfSchema } from '#contracts/variant';
import { z } from 'zod';
import { categorySchema } from '#contracts/common';
import { clipSchema, type Clip } from '#contracts/clip';
import { matchFiles } from '#core/rules/match-files';
import { gainGroup, turnedGain, type GainStep } from '#core/rules/gain-group';
import { asNoted, notedGain, type TakeGain } from '#core/rules/take-gain';
import {
  conditionOf,
  conditionWords,
  isSameCondition,
  processingOf,
  type ConditionFactor,
} from '#core/rules/take-conditions';
import type { UnitNames } from '#core/rules/name-likeness';
import { PRICE_KINDS } from '#core/rules/rubric';
import { servesKind, type Step } from '#contracts/protocol';
import type { MatchProposal, matchStepsSchema } from '#contracts/session-plan';
import type { ProtocolVersion } from '#contracts/protocol-page';
import {
  claimSchema,
  runDocumentSchema,
  runTakeSchema,
  type RunDocument,
  type RunDocumentInput,
} from '#contracts/run-document';
import { sheetFieldIdSchema, sheetValueSchema } from '#contracts/sheet';
import { unitKey } from '#contracts/unit-name';
import { sortedTables } from './draft-tables';
import { readRunDocument } from './read-run-document';
import { today } from '../../ui/format';

const fileSchema = z.object({
  name: z.string(),
  /** Null until it is stored. */
  clip: clipSchema.nullable(),
  step: z.string().nullable(),
  reason: z.string(),
  /** Who put it to its step: what a person or a run.json said is not matched anew. */
  stepBy: z.enum(['match', 'content', 'hand', 'document']).default('match'),
  gainDb: z.number().nullable(),
  /** What stands in the place of decibels, or beside them. */
  dial: z.string().default(''),
  /** Name of the file whose gain was copied here; null where the gain was typed, or is not there yet. */
  gainFrom: z.string().nullable().default(null),
  /** Somebody has been in the field: nothing is copied into it any more. */
  isGainTouched: z.boolean().default(false),
  distanceM: z.number().nullable(),
  angleDeg: z.number().nullable(),
  /** Of a dropped run.json; the form does not ask for them. */
  levelDbSpl: z.number().optional(),
  levelDbu: z.number().optional(),
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
  /** Where a dropped run.json says that it is a configuration of another unit. */
  variantOf: variantOfSchema.nullable().default(null),
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
  sheet: z.record(sheetFieldIdSchema, sheetValueSchema).default({}),
  inputFullScaleDbu: z.number().nullable(),
  rig: z.string().nullable().default(null),
  purpose: z.enum(['opening', 'unit', 'closing']).default('unit'),
  /** Somebody has begun one without recordings. */
  isBegun: z.boolean().default(false),
  tables: runDocumentSchema.shape.tables,
  reasons: z.record(z.string(), z.string()),
  /** Takes that a dropped run.json names, for files that come after it. */
  named: z.array(runTakeSchema).default([]),
  /** Name of the unit of which somebody said that it is another one than those written alike. */
  isAnother: z.string().default(''),
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
    variantOf: null,
    date: today(),
    protocol: '',
    protocolVersion: 0,
    source: 'bought',
    amount: null,
    currency: 'EUR',
    kind: 'street',
    points: {},
    files: [],
    furtherPrices: [],
    claims: [],
    sheet: {},
    inputFullScaleDbu: null,
    rig: null,
    purpose: 'unit',
    isBegun: false,
    tables: [],
    reasons: {},
    named: [],
    isAnother: '',
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
    specimen: {
      ...{ maker: draft.maker, model: draft.model, label: draft.label, category: draft.category },
      ...(draft.variantOf === null ? {} : { variantOf: draft.variantOf }),
    },
    date: draft.date,
    protocol: draft.protocol,
    protocolVersion: draft.protocolVersion,
    source: draft.source,
    prices: [...price, ...(draft.furtherPrices as RunDocument['prices'])],
    claims: draft.claims,
    sheet: draft.sheet,
    ...(draft.inputFullScaleDbu === null ? {} : { inputFullScaleDbu: draft.inputFullScaleDbu }),
    ...(draft.rig === null ? {} : { rig: draft.rig }),
    purpose: draft.purpose,
    tables: draft.tables,
    takes: draft.files
      .filter((f) => f.step !== null)
      .map((f) => ({
        step: f.step as string,
        file: f.name,
        gainDb: f.gainDb,
        ...(f.distanceM === null ? {} : { distanceM: f.distanceM }),
        ...(f.angleDeg === null ? {} : { angleDeg: f.angleDeg }),
        ...(f.levelDbSpl === undefined ? {} : { levelDbSpl: f.levelDbSpl }),
        ...(f.levelDbu === undefined ? {} : { levelDbu: f.levelDbu }),
        ...(f.windSpeedMs === undefined ? {} : { windSpeedMs: f.windSpeedMs }),
        ...(f.note === undefined ? {} : { note: f.note }),
        ...settingsOf(f),
        ...(f.overruled === undefined ? {} : { overruled: f.overruled }),
      })),
    points: Object.entries(draft.points).flatMap(([criterion, value]) =>
      value === null
        ? []
        : [{ criterion, value, ...(draft.reasons[criterion] ? { reason: draft.reasons[criterion] } : {}) }],
    ),
  };
}

/** Fills a draft from the run.json of a dropped folder: what can be read is taken, what cannot is named. */
export function fillFromDocument(draft: Draft, raw: unknown): { draft: Draft; notes: string[] } {
  const { document, notes } = readRunDocument(raw);
  if (document === null) return { draft, notes };
  const { specimen, prices = [], takes = [], points = [], claims = [], tables = [], ...plain } = document;
  const date = plain.date ?? draft.date;
  const [first, ...rest] = prices;
  const isOfDay = first !== undefined && first.date === date;
  const filled: Draft = {
    ...draft,
    ...specimen,
    variantOf: specimen.variantOf ?? null,
    date,
    protocol: plain.protocol ?? draft.protocol,
    protocolVersion: plain.protocolVersion ?? draft.protocolVersion,
    source: plain.source ?? draft.source,
    amount: isOfDay ? first.amount : null,
    currency: first?.currency ?? draft.currency,
    kind: first?.kind ?? draft.kind,
    claims,
    sheet: plain.sheet ?? {},
    inputFullScaleDbu: plain.inputFullScaleDbu ?? null,
    rig: plain.rig ?? null,
    purpose: plain.purpose ?? 'unit',
    tables,
    furtherPrices: isOfDay ? rest : prices,
    points: Object.fromEntries(points.map((p) => [p.criterion, p.value])),
    reasons: Object.fromEntries(points.flatMap((p) => (p.reason ? [[p.criterion, p.reason]] : []))),
    named: takes,
    files: asNamed(draft.files, takes),
  };
  const absent = takes.filter((t) => !filled.files.some((f) => f.name === t.file)).map((t) => t.file);
  return {
    draft: filled,
    notes: absent.length > 0 ? [...notes, `run.json names files that are not here yet: ${absent.join(', ')}.`] : notes,
  };
}

/** Files with what a run.json says of them; without one they stay as they are. */
export function asNamed(files: readonly DraftFile[], takes: Draft['named']): DraftFile[] {
  if (takes.length === 0) return [...files];
  return files.map((file) => {
    const take = takes.find((t) => t.file === file.name);
    if (!take)
      return file.stepBy === 'hand'
        ? file
        : { ...file, step: null, stepBy: 'document', reason: 'run.json does not name it' };
    const { step, gainDb, distanceM, angleDeg, levelDbSpl, levelDbu, windSpeedMs, note, settings, overruled } = take;
    const further = { levelDbSpl, levelDbu, windSpeedMs, note, settings, overruled };
    return {
      ...file,
      step,
      stepBy: 'document',
      reason: 'run.json says so',
      gainDb,
      dial: typeof settings?.['dial'] === 'string' ? settings['dial'] : '',
      gainFrom: null,
      isGainTouched: true,
      distanceM: distanceM ?? null,
      angleDeg: angleDeg ?? null,
      ...Object.fromEntries(Object.entries(further).filter(([, value]) => value !== undefined)),
    };
  });
}

/**
 * A gain that was typed. One gain for all takes is the usual case, so it is copied into rows that nobody has touched, and
 * each of them says whose it is; but only as far as the protocol says that the gain is one: takes with a booster are made
 * at another than those without it.
 */
export function withGain(
  files: readonly DraftFile[],
  name: string,
  gain: TakeGain | null,
  steps: readonly GainStep[] = [],
): DraftFile[] {
  const typed = files.find((f) => f.name === name);
  const from = gainGroup(typed?.step ?? null, steps);
  return files.map((f) => {
    if (f.name === name) return { ...f, ...asNoted(gain, f), gainFrom: null, isGainTouched: true };
    const to = gainGroup(f.step, steps);
    if (f.isGainTouched || gain === null || to.root !== from.root) return f;
    const by = to.byDb - from.byDb;
    const db = gain.kind === 'dB' ? turnedGain(gain.db, by) : null;
    if (by === 0 || db !== null)
      return { ...f, ...asNoted(db === null ? gain : { kind: 'dB', db }, f), gainFrom: name };
    // How far a dial must be turned for so many decibels, or where it ends, is not known; what was copied before is not so any more.
    return f.gainFrom === null ? f : { ...f, ...asNoted(null, f), gainFrom: null };
  });
}

/** Whatever else is noted with a take, the dial among it. */
function settingsOf({ settings = {}, dial }: DraftFile): Pick<RunDocumentInput['takes'][number], 'settings'> {
  const others = Object.entries(settings).filter(([name]) => name !== 'dial');
  const all = Object.fromEntries(dial === '' ? others : [...others, ['dial', dial]]);
  return Object.keys(all).length === 0 ? {} : { settings: all };
}

/** Something further of a file's take: another voice, or what was done to it. An empty text says nothing. */
export function withSetting(file: DraftFile, name: ConditionFactor | 'processing', text: string): DraftFile {
  const others = Object.entries(file.settings ?? {}).filter(([setting]) => setting !== name);
  return { ...file, settings: Object.fromEntries(text.trim() === '' ? others : [...others, [name, text]]) };
}

/**
 * What several files of one step are to each other, in words; empty where a file is alone with its step.
 *
 * @param file - one of them
 * @param files - all of the run
 */
export function besideOthers(file: DraftFile, files: readonly DraftFile[]): string {
  const [own, processing] = [conditionOf(file.settings ?? {}), processingOf(file.settings ?? {})];
  if (processing !== null) return 'processed: stands apart from the takes as they came, and is not ranked';
  const raw = files.filter((f) => f.step === file.step && processingOf(f.settings ?? {}) === null);
  if (file.step === null || raw.length < 2) return '';
  const alike = raw.filter((f) => isSameCondition(conditionOf(f.settings ?? {}), own));
  const repeats = alike.length > 1 ? `one of ${alike.length} repeats: their mean and spread count` : '';
  const first = conditionOf(raw[0].settings ?? {});
  const words = conditionWords(own) || 'no voice or place named';
  const condition = alike.length === raw.length ? '' : isSameCondition(first, own) ? `${words}: what counts for the unit` : `${words}: stands beside ${conditionWords(first) || 'the first'}`; // prettier-ignore
  return [condition, repeats].filter((t) => t !== '').join('; ');
}

/** A recording of several channels with a row for each of them in its place; none has a step yet. */
export function withChannels(files: readonly DraftFile[], name: string, clips: readonly Clip[]): DraftFile[] {
  const stem = name.replace(/\.[^.]+$/, '');
  return files.flatMap((f) =>
    f.name === name
      ? clips.map((clip, i): DraftFile => ({
          ...f,
          ...placement(undefined),
          // A clip may be known by another name already; rows are told apart by theirs.
          name: `${stem} channel ${i + 1}.wav`,
          clip,
          step: null,
          stepBy: 'hand',
          reason: `channel ${i + 1}: whose is it?`,
        }))
      : [f],
  );
}

/** Files of a run that are stored and became no take. */
export const unusedFiles = ({ files }: Draft): DraftFile[] => files.filter((f) => f.step === null && f.clip !== null);

/** What the run of the next unit begins with: the day, the protocol and the rig of this one, and the files that are left. */
export function nextUnit(draft: Draft): Draft {
  const { category, date, protocol, protocolVersion, source, currency, rig, inputFullScaleDbu } = draft;
  const kept = { category, date, protocol, protocolVersion, source, currency, rig, inputFullScaleDbu };
  return { ...emptyDraft(), ...kept, files: unusedFiles(draft) };
}

/** A file that has just been dropped. */
export const newFile = (name: string): DraftFile => ({
  name,
  clip: null,
  step: null,
  reason: '',
  stepBy: 'match',
  gainDb: null,
  dial: '',
  gainFrom: null,
  isGainTouched: false,
  distanceM: null,
  angleDeg: null,
});

/** What a step says of placement; nothing without a step. */
const placement = (step: Step | undefined): Pick<DraftFile, 'distanceM' | 'angleDeg'> => ({
  distanceM: step?.distanceM ?? null,
  angleDeg: step?.angleDeg ?? null,
});

/** Puts a file to a step by hand. */
export const withStep = (
  files: readonly DraftFile[],
  name: string,
  step: string | null,
  steps: readonly Step[],
): DraftFile[] =>
  files.map((f) =>
    f.name === name
      ? { ...f, step, stepBy: 'hand', reason: 'chosen by you', ...placement(steps.find((s) => s.id === step)) }
      : f,
  );

/**
 * Files matched to the steps of a protocol by their names. What a person or a run.json has said stays, as long as the
 * protocol has that step; a file that lost its step is matched like a new one.
 */
export function matched(files: readonly DraftFile[], steps: readonly Step[]): DraftFile[] {
  const isSaid = (f: DraftFile): boolean =>
    f.stepBy !== 'match' && (f.step === null || steps.some((s) => s.id === f.step));
  const taken = new Set(files.filter(isSaid).flatMap((f) => f.step ?? []));
  const proposals = new Map(
    matchFiles(
      files.filter((f) => !isSaid(f)).map((f) => f.name),
      steps,
      taken,
    ).map((m) => [m.file, m]),
  );
  return files.map((f) => {
    const proposal = proposals.get(f.name);
    if (!proposal) return f;
    const { step, reason } = proposal;
    return { ...f, step, stepBy: 'match', reason, ...placement(steps.find((s) => s.id === step)) };
  });
}

/** What a person or a run.json has not said of a file: its step may be told from what it holds. */
const isOpen = (f: DraftFile): boolean => f.clip !== null && (f.stepBy === 'match' || f.stepBy === 'content');
/** Steps that somebody has given away; one that the protocol repeats can be given again. */
function givenSteps(files: readonly DraftFile[], steps: readonly Step[]): ReadonlySet<string> {
  const repeated = new Set(steps.filter((s) => s.repeats > 1).map((s) => s.id));
  return new Set(files.filter((f) => !isOpen(f)).flatMap((f) => (f.step !== null && !repeated.has(f.step) ? [f.step] : []))); // prettier-ignore
}

/**
 * The question which stored file holds which step: of files of which nobody has said it, and steps that are still free.
 *
 * @returns null where there is nothing to ask
 */
export function contentQuestion(
  { protocol, protocolVersion, files }: Pick<Draft, 'protocol' | 'protocolVersion' | 'files'>,
  steps: readonly Step[],
): z.input<typeof matchStepsSchema> | null {
  const clips = files.flatMap((f) =>
    f.clip && isOpen(f) ? [{ name: f.name, clip: f.clip.sha256, gainDb: f.gainDb }] : [],
  );
  const taken = givenSteps(files, steps);
  const free = steps.filter((s) => !taken.has(s.id)).map((s) => s.id);
  return clips.length === 0 || free.length === 0 ? null : { protocol, protocolVersion, steps: free, clips };
}

/** Files with the steps that what they hold speaks for; what somebody has said meanwhile stays. */
export function withContent(
  files: readonly DraftFile[],
  proposals: readonly Pick<MatchProposal, 'name' | 'step' | 'reasons' | 'doubts'>[],
  steps: readonly Step[],
): DraftFile[] {
  // An answer for the protocol that was chosen before says nothing of this one.
  if (proposals.some((p) => p.step !== null && !steps.some((s) => s.id === p.step))) return [...files];
  const byName = new Map(proposals.map((p) => [p.name, p]));
  const taken = givenSteps(files, steps);
  return files.map((f) => {
    const proposal = byName.get(f.name);
    if (!proposal || !isOpen(f)) return f;
    const isFree = proposal.step === null || !taken.has(proposal.step);
    const step = isFree ? proposal.step : null;
    const reason = isFree
      ? [proposal.reasons.join(', '), ...proposal.doubts.map((d) => `but ${d}`)].filter((t) => t !== '').join('; ')
      : 'the step it seems to hold has been given to another file';
    return { ...f, step, stepBy: 'content', reason, ...placement(steps.find((s) => s.id === step)) };
  });
}

/** What was used for the run before this one. */
export const lastUsedSchema = z.object({
  category: categorySchema,
  protocol: z.string(),
  rig: z.string().nullable(),
  source: z.enum(['bought', 'lent', 'sent', 'own']),
  currency: z.string(),
});
export type LastUsed = z.infer<typeof lastUsedSchema>;
const LAST_KEY = 'sediment.new-run.last';

export function saveLastUsed(storage: Pick<Storage, 'setItem'>, draft: Draft): void {
  storage.setItem(LAST_KEY, JSON.stringify(lastUsedSchema.strip().parse(draft)));
}

export function loadLastUsed(storage: Pick<Storage, 'getItem'>): LastUsed | null {
  const text = storage.getItem(LAST_KEY);
  if (text === null) return null;
  try {
    return lastUsedSchema.parse(JSON.parse(text));
  } catch {
    return null;
  }
}

/**
 * The protocol that a kind of gear was tested by last, in its newest version: here, else by anybody; before the first
 * test the one that asks for most.
 */
export function startingProtocol(
  versions: readonly ProtocolVersion[],
  category: Draft['category'],
  last: LastUsed | null,
): Pick<Draft, 'protocol' | 'protocolVersion'> | null {
  const own = versions.filter((v) => servesKind(v.protocol, category));
  const lastDay = (id: string): string =>
    own.reduce((day, v) => (v.protocol.id === id && (v.lastUsed ?? '') > day ? (v.lastUsed ?? '') : day), '');
  const isLast = (v: ProtocolVersion): number => (v.protocol.id === last?.protocol ? 1 : 0);
  const newest = own.filter((v) =>
    own.every((o) => o.protocol.id !== v.protocol.id || o.protocol.version <= v.protocol.version),
  );
  const [best] = newest.sort(
    (a, b) =>
      isLast(b) - isLast(a) ||
      lastDay(b.protocol.id).localeCompare(lastDay(a.protocol.id)) ||
      b.protocol.steps.length - a.protocol.steps.length,
  );
  return best ? { protocol: best.protocol.id, protocolVersion: best.protocol.version } : null;
}

/** Whether there is anything to fill in yet. */
export const isUnderWay = ({ files, tables, isBegun }: Pick<Draft, 'files' | 'tables' | 'isBegun'>): boolean =>
  isBegun || files.length > 0 || tables.length > 0;

/** What still has to be filled in before a run can be imported. */
export function whatIsMissing(draft: Draft, steps: readonly Step[], alike: readonly UnitNames[] = []): string[] {
  const missing: string[] = [];
  if (!draft.maker.trim()) missing.push('maker');
  if (!draft.model.trim()) missing.push('model');
  if (!draft.label.trim()) missing.push('label');
  if (!draft.date) missing.push('day of the recording');
  const used = draft.files.filter((f) => f.step !== null);
  if (alike.length > 0 && draft.isAnother !== unitKey(draft))
    missing.push('whether it is one of the units written alike');
  if (steps.length === 0) missing.push('the protocol');
  const strange = used.filter((f) => !steps.some((s) => s.id === f.step));
  if (steps.length > 0 && strange.length > 0)
    missing.push(`a step of this protocol for ${strange.map((f) => f.name).join(', ')}`);
  if (used.length === 0 && sortedTables(draft.tables, steps).fitting.length === 0)
    missing.push('at least one file with its step, or a table');
  if (used.some((f) => f.clip === null)) missing.push('uploads to finish');
  if (used.some((f) => notedGain(f) === null)) missing.push('the gain of every take');
  return missing;
}
