import { z } from 'zod';
import { CODE_NAMES } from '#core/rules/listening/code-names';
import { HEARD_WORDS } from '#core/rules/listening/vocabulary';
import { packPageSchema, packSettingsSchema } from './blind-pack';
import { categorySchema, daySchema, idSchema, nameSchema } from './common';
import { panelSettingsSchema } from './live-panel';

export const DESIGNS = ['heats', 'pairs', 'abx', 'names', 'ratings', 'performer', 'panel', 'pack'] as const;
export type Design = (typeof DESIGNS)[number];
/** What is asked. Each attribute has its own scale; preference is the one that counts for the ranking. */
export const ATTRIBUTES = ['preference', 'natural', 'clear', 'quiet'] as const;
export const attributeSchema = z.enum(ATTRIBUTES);
export type Attribute = z.infer<typeof attributeSchema>;

/** Question of each attribute, as listeners read it. */
export const QUESTIONS: Readonly<Record<Attribute, string>> = {
  preference: 'Which do you prefer?',
  natural: 'Which sounds more natural?',
  clear: 'Which is clearer?',
  quiet: 'Which is freer of noise and room?',
};

/** Body of a request that sets up a test. */
export const newTestSchema = z
  .strictObject({
    name: nameSchema.describe('For the operator; listeners do not see it'),
    design: z.enum(DESIGNS),
    attribute: attributeSchema.default('preference'),
    category: categorySchema.default('microphone'),
    voice: z.string().trim().max(60).nullable().default(null).describe('Kind of voice that is heard'),
    use: z.string().trim().max(60).nullable().default(null).describe('What the unit would be used for'),
    /** Clips, one step; for the performer's test, any take of each unit. */
    takes: z.array(idSchema).max(40),
    /** Of a live panel that is performed: the units themselves, which need no take. */
    units: z.array(idSchema).max(40).default([]),
    /** A famous unit that takes part without being ranked. */
    yardstick: idSchema.nullable().default(null),
    heatSize: z.int().min(2).max(6).default(4),
    seeding: z.enum(['random', 'seeded']).default('random'),
    tiesAllowed: z.boolean().default(true),
    trials: z.int().min(5).max(100).default(16),
    openEnded: z.boolean().default(false),
    /** The same clip twice, and a low-passed one: they check the listener. */
    controls: z.boolean().default(true),
    /** Whether units are named while they are heard. */
    sighted: z.boolean().default(false),
    askWords: z.boolean().default(true),
    breakAfterMin: z.int().min(2).max(60).default(20),
    /** The passage that is heard. */
    passage: z.strictObject({ fromS: z.number().min(0), lengthS: z.number().min(1).max(60) }).default({
      fromS: 0,
      lengthS: 12,
    }),
    /** Of a test that is sent out: how it goes. */
    pack: packSettingsSchema.nullable().default(null),
    /** Of a live panel: how it is held. */
    panel: panelSettingsSchema.nullable().default(null),
  })
  .superRefine((test, context) => {
    const say = (path: string, message: string): void => context.addIssue({ code: 'custom', path: [path], message });
    if (test.panel?.source === 'performed') {
      if (new Set(test.units).size < test.units.length) say('units', 'names a unit twice');
      if (test.units.length < 2) say('units', 'choose two units at least');
      if (test.takes.length > 0 || test.yardstick !== null) say('takes', 'what is performed in the room has no clips');
    } else if (test.units.length > 0) say('units', 'only what is performed in the room is chosen by units');
    else if (test.takes.length === 0) say('takes', 'choose the units');
    const isPerformed = test.panel?.source === 'performed';
    const clips = new Set([...test.takes, ...(test.yardstick ? [test.yardstick] : [])]);
    if (clips.size < test.takes.length) say('takes', 'names a take twice');
    if (test.design === 'abx' && test.takes.length !== 2) say('takes', 'an ABX test compares two clips');
    if (test.design === 'ratings' && test.takes.length < 2) say('takes', 'needs a reference and one clip at least');
    if (!isPerformed && test.design !== 'ratings' && test.design !== 'abx' && clips.size < 2)
      say('takes', 'needs two clips at least');
    if (test.design === 'names' && test.takes.length > 8) say('takes', 'at most 8 clips can be told apart by name');
    if (test.design === 'ratings' && test.takes.length > 12) say('takes', 'at most 12 clips fit into one trial');
    if (test.design === 'pairs' && test.takes.length > 12)
      say('takes', 'every pair of more than 12 would be over 66 questions; use heats');
    if ((test.design === 'pack') !== (test.pack !== null))
      say('pack', test.pack === null ? 'say how the pack goes out' : 'only a blind pack goes out');
    if ((test.design === 'panel') !== (test.panel !== null))
      say('panel', test.panel === null ? 'say how the panel is held' : 'only a live panel is held in a room');
    if (test.panel !== null && test.panel.goOn >= test.heatSize)
      say('panel.goOn', `of a heat of ${test.heatSize} at most ${test.heatSize - 1} can go on`);
    if (test.design === 'panel' && test.sighted) say('sighted', 'a panel is blind');
    const codes = clips.size + (test.controls ? 1 : 0);
    if (test.design === 'pack' && codes > CODE_NAMES.length)
      say(
        'takes',
        `a pack has ${CODE_NAMES.length} code names: at most ${CODE_NAMES.length} clips, with the copy without highs`,
      );
    if (test.design === 'pack' && test.sighted) say('sighted', 'a pack is blind');
    if (test.controls && test.pack?.asks.includes('names'))
      say('controls', 'where names are guessed there is no room for the copy without highs: it has no name of its own');
  });
export type NewTest = z.infer<typeof newTestSchema>;
/** A test as the page composes it. */
export type NewTestDraft = z.input<typeof newTestSchema>;

export const ITEM_ROLES = ['unit', 'yardstick', 'reference', 'known-worse', 'anchor-low', 'anchor-mid'] as const;
export type ItemRole = (typeof ITEM_ROLES)[number];

/** What a trial asks; items by their numbers in the test, in the order in which they are offered. */
const askedTrials = [
  z.object({ kind: z.literal('familiarise'), items: z.array(z.string()) }),
  z.object({
    kind: z.literal('order'),
    items: z.array(z.string()),
    round: z.int(),
    isFinal: z.boolean(),
    isAgain: z.boolean().optional().describe('Of a live panel: whether the same were heard once more'),
  }),
  z.object({ kind: z.literal('pair'), items: z.array(z.string()), control: z.enum(['same', 'worse']).nullable() }),
  z.object({ kind: z.literal('abx'), items: z.array(z.string()), x: z.string() }),
  z.object({ kind: z.literal('names'), items: z.array(z.string()) }),
  z.object({ kind: z.literal('ratings'), items: z.array(z.string()), reference: z.string() }),
] as const;
/** A trial of a sitting. */
export const askedTrialSchema = z.discriminatedUnion('kind', askedTrials);
/**
 * Any trial: answers that come back from a pack may also be points of some clips, the best one alone, or votes; a live
 * panel puts one more, the last of the items, into a table of the others, which stand best first.
 */
export const trialDocumentSchema = z.discriminatedUnion('kind', [
  ...askedTrials,
  z.object({ kind: z.literal('points'), items: z.array(z.string()) }),
  z.object({ kind: z.literal('best'), items: z.array(z.string()) }),
  z.object({ kind: z.literal('votes'), items: z.array(z.string()) }),
  z.object({ kind: z.literal('place'), items: z.array(z.string()), round: z.int() }),
]);
export type AskedTrialDocument = z.infer<typeof askedTrialSchema>;
export type TrialDocument = z.infer<typeof trialDocumentSchema>;

const codeSchema = z.string().regex(/^[A-Z]{1,2}$/, 'must be a letter or two');

const askedAnswers = [
  z.strictObject({ kind: z.literal('familiarise') }),
  z.strictObject({ kind: z.literal('order'), codes: z.array(codeSchema).min(2).max(12) }),
  z.strictObject({ kind: z.literal('pair'), preferred: codeSchema.nullable() }),
  z.strictObject({ kind: z.literal('abx'), x: codeSchema }),
  z.strictObject({ kind: z.literal('names'), names: z.record(codeSchema, idSchema) }),
  z.strictObject({ kind: z.literal('ratings'), ratings: z.record(codeSchema, z.number().min(0).max(100)) }),
] as const;
const sentAnswerSchema = z.discriminatedUnion('kind', askedAnswers);
/** An answer, by the codes that the listener saw. */
export const answerSchema = z.discriminatedUnion('kind', [
  ...askedAnswers,
  z.strictObject({ kind: z.literal('points'), points: z.record(codeSchema, z.number().min(0).max(100)) }),
  z.strictObject({ kind: z.literal('best'), best: codeSchema }),
  z.strictObject({ kind: z.literal('votes'), votes: z.record(codeSchema, z.int().min(0).max(10_000_000)) }),
  z.strictObject({ kind: z.literal('place'), at: z.int().min(0).max(11).describe('0 before the first') }),
]);
export type Answer = z.infer<typeof answerSchema>;

const wordsSchema = z.record(
  codeSchema,
  z.strictObject({ words: z.array(z.enum(HEARD_WORDS)).max(10), free: z.string().trim().max(200) }),
);
export type Words = z.infer<typeof wordsSchema>;

export const sendAnswerSchema = z.strictObject({
  trial: z.int().min(0),
  answer: sentAnswerSchema,
  words: wordsSchema.default({}),
  seconds: z.number().min(0).max(86_400),
});
export type SendAnswer = z.infer<typeof sendAnswerSchema>;

/** What a listener says of themselves, once. */
export const aboutListenerSchema = z.strictObject({
  voice: z.enum(['lower', 'higher', 'any', 'unsaid']).describe('Voices that they care for'),
  hearing: z.enum(['normal', 'impaired', 'unsaid']),
  device: z.enum(['headphones', 'earphones', 'loudspeakers', 'built-in', 'unsaid']),
});
export type AboutListener = z.infer<typeof aboutListenerSchema>;

export const headphonesSchema = z.strictObject({
  left: z.enum(['left', 'right', 'both', 'skipped']),
  phase: z.enum(['in', 'out', 'alike', 'skipped']),
});
/** Keys are 128 random bits in lower-case letters and digits. */
export const keySchema = z.string().regex(/^[a-z0-9]{20,40}$/, 'must be the key of a listener');

/** A name is what a listener wants to be called; whoever took part before shows their own key and is known by it. */
export const joinSchema = z.strictObject({ name: nameSchema, listener: keySchema.nullable().default(null) });
export type Join = z.input<typeof joinSchema>;
export const joinedSchema = z.object({ sitting: keySchema, listener: keySchema });
export const sameListenerSchema = z.strictObject({ as: idSchema.nullable() });

/** All that a listener's page knows: codes and the question. Never a name that is to be guessed, never a result. */
export const sittingStateSchema = z.object({
  question: z.string(),
  design: z.enum(DESIGNS),
  listener: z.string(),
  needsAbout: z.boolean(),
  needsHeadphones: z.boolean(),
  done: z.int(),
  /** Trials in all, as far as known. */
  total: z.int(),
  breakDue: z.boolean(),
  isClosed: z.boolean(),
  isFinished: z.boolean(),
  isRevealed: z.boolean(),
  lengthS: z.number(),
  trial: z
    .object({
      ordinal: z.int(),
      kind: z.enum(['familiarise', 'order', 'pair', 'abx', 'names', 'ratings']),
      codes: z.array(z.string()),
      /** Of a rating: the open reference has a code of its own. */
      reference: z.string().nullable(),
      tiesAllowed: z.boolean(),
      askWords: z.boolean(),
      isFinal: z.boolean(),
      /** In the order of the alphabet. */
      names: z.array(z.object({ id: z.string(), name: z.string() })),
      /** Of a sighted test, what each code is; empty in a blind one. */
      labels: z.array(z.string()),
    })
    .nullable(),
});
export type SittingState = z.infer<typeof sittingStateSchema>;

/** One listener's part of a reveal. */
const revealedTrialSchema = z.object({
  kind: z.string(),
  /** Codes as heard, with the units behind them, in the order of the answer where there is one. */
  items: z.array(
    z.object({ code: z.string(), name: z.string(), role: z.enum(ITEM_ROLES), rating: z.number().nullable() }),
  ),
  words: z.string().describe('The answer in words'),
});
export const revealSchema = z.object({
  listener: z.string(),
  trials: z.array(revealedTrialSchema),
  sentences: z.array(z.string()),
  leftOut: z.string().nullable(),
});
export type Reveal = z.infer<typeof revealSchema>;

export const testItemSchema = z.object({
  id: z.string(),
  specimenId: z.string(),
  takeId: z.string().nullable(),
  name: z.string(),
  role: z.enum(ITEM_ROLES),
  gainDb: z.number().nullable(),
  loudnessLufs: z.number().nullable(),
});

export const testRowSchema = z.object({
  id: z.string(),
  name: z.string(),
  design: z.enum(DESIGNS),
  attribute: attributeSchema,
  status: z.enum(['preparing', 'failed', 'open', 'closed']),
  problem: z.string().nullable(),
  day: daySchema,
  listeners: z.int(),
  finished: z.int(),
  isRevealed: z.boolean(),
});
export type TestRow = z.infer<typeof testRowSchema>;

/** Worth of one thing within one test, or on the scale. */
export const worthSchema = z.object({
  id: z.string(),
  name: z.string(),
  worth: z.number(),
  logWorth: z.number(),
  se: z.number(),
  place: z.int(),
  place90: z.tuple([z.number(), z.number()]),
});

/** The operator's page of a test. Units stand here; results only once it is revealed. */
export const testPageSchema = z.object({
  row: testRowSchema,
  settings: newTestSchema,
  invitation: z.string(),
  items: z.array(testItemSchema),
  residualLu: z.number().nullable().describe('Largest level difference that preparing left'),
  /** Of a test that is sent out, once its key is sealed. */
  pack: packPageSchema.nullable(),
  sittings: z.array(
    z.object({
      id: z.string(),
      key: z.string(),
      listener: z.string(),
      listenerId: z.string(),
      /** The record that the operator says is the same person. */
      sameAs: z.string().nullable(),
      answered: z.int(),
      finished: z.boolean(),
      leftOut: z.string().nullable(),
      /** Of an answer that came back: as it came, and what it weighs. */
      cameAs: z.string().nullable(),
      reliability: z.number().nullable(),
      headphones: headphonesSchema.nullable(),
      about: aboutListenerSchema.nullable(),
    }),
  ),
  /** Null until revealed. */
  result: z
    .object({
      sentences: z.array(z.object({ about: z.string(), words: z.string() })),
      worths: z.array(worthSchema),
      ratings: z.array(
        z.object({
          name: z.string(),
          role: z.enum(ITEM_ROLES),
          median: z.number(),
          quartiles: z.tuple([z.number(), z.number()]),
          median95: z.tuple([z.number(), z.number()]).nullable(),
          count: z.int(),
        }),
      ),
      words: z.array(z.object({ name: z.string(), word: z.string(), count: z.int(), isFree: z.boolean() })),
      reveals: z.array(revealSchema),
    })
    .nullable(),
});
export type TestPage = z.infer<typeof testPageSchema>;

export const leaveOutSchema = z.strictObject({ reason: z.string().trim().max(300).nullable() });
/** Order that a performer gave, entered by the operator. */
export const performerAnswerSchema = z.strictObject({
  listener: nameSchema,
  /** Numbers of the test's items, best first. */
  order: z.array(idSchema).min(2).max(12),
  words: z
    .record(idSchema, z.strictObject({ words: z.array(z.enum(HEARD_WORDS)), free: z.string().trim().max(200) }))
    .default({}),
});
export const importAnswersSchema = z.strictObject({
  csv: z.string().min(1).max(3_000_000),
  attribute: attributeSchema,
  category: categorySchema,
});
export const importedSchema = z.object({ answers: z.int(), units: z.int(), alreadyThere: z.boolean() });
