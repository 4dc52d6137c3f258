import { z } from 'zod';
import { currencySchema, daySchema, idSchema, nameSchema } from './common';

/** Rules that propose lines from facts, in the order in which they are shown. */
export const PROPOSAL_RULES = {
  'stands-out': 'A figure that is better, or worse, than most of its kind',
  record: 'The best figure of its kind so far',
  'hidden-low-cut': 'A low-cut that is found and not told',
  claim: 'A claim that the measurement does not bear out',
  finding: 'A gate that closes between the words',
  needs: 'What it cannot be used without',
  standing: 'Its stratum in the ranking',
  heard: 'What blind answers say of it',
  frontier: 'Whether a cheaper unit does as well',
  'for-use': 'What a use asks for, held against its figures',
  'better-buy': 'A better alternative',
  'turning-price': 'The price at which the verdict turns',
  'not-measured': 'What its kind is tested for and it was not',
  sum: 'An answer of Sums that was kept with it',
} as const;
export type ProposalRule = keyof typeof PROPOSAL_RULES;
const proposalRuleSchema = z.enum(Object.keys(PROPOSAL_RULES) as [ProposalRule, ...ProposalRule[]]);

/** Text that is written by a person; Markdown where it is said. */
const textSchema = (most: number) => z.string().max(most, `must not be longer than ${most} characters`);

/** The fact that a line was taken from: which rule, about what, and what it said then. */
export const restsOnSchema = z.strictObject({
  rule: proposalRuleSchema,
  subject: z.string().max(200).describe('What the rule spoke of: a figure, a unit, a use, a part'),
  fact: textSchema(600).describe('What it said when the line was taken'),
  gist: textSchema(600).describe('What of it the line says: where this is another one, the line may not hold any more'),
});
export type RestsOn = z.infer<typeof restsOnSchema>;

const lineSchema = z.strictObject({
  text: textSchema(400).refine((t) => t.trim() !== '', 'must not be empty'),
  restsOn: restsOnSchema.nullable().default(null).describe('Null: written by hand'),
});
export type ReviewLine = z.infer<typeof lineSchema>;
const linesSchema = z.array(lineSchema).max(40, 'at most 40 lines');

export const SUITS = ['for', 'not for'] as const;
const useLineSchema = lineSchema.extend({ use: nameSchema, suits: z.enum(SUITS) });
export type UseLine = z.infer<typeof useLineSchema>;

const alternativeSchema = lineSchema.extend({
  unit: idSchema.nullable().describe('One of the catalogue, or null for one that is named only'),
  name: nameSchema,
});
export type Alternative = z.infer<typeof alternativeSchema>;

export const OBTAINED = ['bought', 'lent', 'sent by the maker', 'not said'] as const;
export const AFTERWARDS = ['stays here', 'went back', 'was sold', 'was given away', 'not said'] as const;

/** Whether somebody who is quoted has agreed to it. */
export const CONSENTS = ['given', 'not asked', 'refused'] as const;
export type Consent = (typeof CONSENTS)[number];

const quotationSchema = z.strictObject({
  words: textSchema(600).refine((t) => t.trim() !== '', 'must not be empty'),
  saidBy: z.string().max(120).describe('As they want to be called; empty for nobody who is named'),
  saidOn: daySchema.nullable(),
  consent: z.enum(CONSENTS).describe('Only what was agreed to is published'),
});
export type Quotation = z.infer<typeof quotationSchema>;

/** What a reader hears beside each other: takes of one step. */
const deckSchema = z.strictObject({
  step: z.string().max(120),
  takes: z.array(idSchema).min(1).max(8, 'at most eight clips can be heard beside each other'),
});

/** What a person writes about a unit. */
export const reviewDocumentSchema = z.strictObject({
  headline: textSchema(160),
  summary: textSchema(20_000).describe('Markdown'),
  pros: linesSchema,
  cons: linesSchema,
  uses: z.array(useLineSchema).max(40, 'at most 40 uses'),
  alternatives: z.array(alternativeSchema).max(12, 'at most twelve alternatives'),
  turningPrice: lineSchema
    .extend({ amount: z.number().positive().max(1e9).multipleOf(0.01), currency: currencySchema })
    .nullable(),
  obtained: z.enum(OBTAINED),
  afterwards: z.enum(AFTERWARDS),
  disclosure: textSchema(600).describe('In words, beside how it came and where it went'),
  conditions: textSchema(2000).describe('Markdown'),
  notTested: linesSchema,
  appliedBoosts: textSchema(600).describe('What was done to what is heard in a film: gain, equaliser, in dB'),
  links: z.array(z.strictObject({ label: nameSchema, address: z.url().max(500) })).max(20, 'at most 20 links'),
  decks: z.array(deckSchema).max(6, 'at most six steps can be heard'),
  sums: linesSchema.default([]).describe('What was worked out from its figures'),
  quotations: z.array(quotationSchema).max(40, 'at most 40 quotations').default([]),
});
export type ReviewDocument = z.infer<typeof reviewDocumentSchema>;

/** The same without the choice of what is heard: an edition freezes the clips themselves. */
export const reviewTextSchema = reviewDocumentSchema.omit({ decks: true }).strip();

/** A line that a rule proposes. */
export const proposalSchema = z.object({
  restsOn: restsOnSchema,
  part: z.enum(['pros', 'cons', 'uses', 'alternatives', 'turningPrice', 'notTested', 'sums']),
  text: z.string(),
  use: z.string().nullable().describe('Of a line that says for whom'),
  suits: z.enum(SUITS).nullable(),
  unit: z.object({ id: z.string(), name: z.string() }).nullable().describe('Of an alternative'),
  price: z.object({ amount: z.number(), currency: z.string() }).nullable().describe('Of the price that turns it'),
  at: z.string().nullable().describe('Where on the page of the unit the fact stands'),
});
export type Proposal = z.infer<typeof proposalSchema>;

/** A line that says something which today's facts do not say any more, or say otherwise. */
export const lineMarkSchema = z.object({
  restsOn: restsOnSchema,
  now: z.string().nullable().describe('What the rule says today; null where it says nothing any more'),
});
export type LineMark = z.infer<typeof lineMarkSchema>;

/** What changed from one edition to the next, or since one. */
export const changeSchema = z.object({
  what: z.enum(['figure', 'price', 'place', 'rules', 'text', 'clip', 'event', 'unit']),
  text: z.string(),
});
export type EditionChange = z.infer<typeof changeSchema>;

/** An edition in a list. */
export const editionRowSchema = z.object({
  id: z.string(),
  number: z.int(),
  publishedOn: daySchema,
  headline: z.string(),
  sha256: z.string().describe('Of the document that was frozen'),
  changes: z.array(changeSchema).describe('Against the edition before'),
  since: z.array(changeSchema).describe('Against today; of the newest edition only'),
});
export type EditionRow = z.infer<typeof editionRowSchema>;

/** A review with all that its editor shows. */
export const reviewSchema = z.object({
  id: z.string(),
  unit: z.object({ id: z.string(), name: z.string(), category: z.string() }),
  openedOn: daySchema,
  revision: z.int().describe('Goes up with each saving: of two that go on from one, the second is told'),
  document: reviewDocumentSchema,
  proposals: z.array(proposalSchema),
  marks: z.array(lineMarkSchema).describe('Of lines that rest on facts which have changed'),
  editions: z.array(editionRowSchema).describe('Newest first'),
  isChanged: z.boolean().describe('Whether the text is another one than that of the newest edition'),
});
export type Review = z.infer<typeof reviewSchema>;

export const reviewRowSchema = z.object({
  id: z.string(),
  unit: z.object({ id: z.string(), name: z.string(), category: z.string() }),
  openedOn: daySchema,
  headline: z.string(),
  editions: z.int(),
  publishedOn: daySchema.nullable(),
});
export type ReviewRow = z.infer<typeof reviewRowSchema>;

/** A review held against today's facts. */
export const heldReviewSchema = z.object({
  id: z.string(),
  marks: z.int().describe('Lines that rest on facts which have changed since they were taken'),
  since: z.array(changeSchema).describe('What has changed since the newest edition; empty where nothing is published'),
});
export type HeldReview = z.infer<typeof heldReviewSchema>;

/** A review of one unit, held against today's facts. */
export const reviewOfUnitSchema = reviewRowSchema.extend(heldReviewSchema.omit({ id: true }).shape);
export type ReviewOfUnit = z.infer<typeof reviewOfUnitSchema>;

/** Reviews by their numbers, separated by commas: a page of them, since each is a question to the archive. */
export const reviewIdsSchema = z
  .string()
  .regex(/^\d{1,18}(,\d{1,18}){0,59}$/, 'must be one to sixty numbers of reviews, separated by commas')
  .transform((ids) => ids.split(','));

export const newReviewSchema = z.strictObject({ unit: idSchema });
export const savedReviewSchema = z.strictObject({ revision: z.int().min(1), document: reviewDocumentSchema });

/** What a use asks for. */
const wantSchema = z
  .strictObject({
    figure: z.string().max(60),
    atLeast: z.number().nullable().default(null),
    atMost: z.number().nullable().default(null),
  })
  .refine((w) => (w.atLeast === null) !== (w.atMost === null), 'must have one limit: at least, or at most');
export const houseUseSchema = z.strictObject({
  name: nameSchema,
  kinds: z.array(z.string().max(60)).max(20).describe('Kinds of gear that it is asked of; none: every kind'),
  wants: z.array(wantSchema).max(8, 'at most eight figures'),
});
export type HouseUse = z.infer<typeof houseUseSchema>;

/** How this desk reviews and publishes: its name, its uses, its rules. */
export const houseSchema = z.strictObject({
  version: z.int().min(0),
  desk: z.union([nameSchema, z.literal('')]),
  address: z
    .union([z.url({ protocol: /^https?$/ }).max(300), z.literal('')])
    .describe('Where the site will stand; feeds, site maps and shared pictures need it'),
  clipLicence: textSchema(200),
  uses: z.array(houseUseSchema).max(40, 'at most 40 uses'),
  rulesOff: z.array(proposalRuleSchema),
  standsOutPercent: z.int().min(50).max(100).describe('Share of its kind that a figure has to beat'),
  leastUnits: z.int().min(2).max(1000).describe('Fewer units with the figure, and nothing is said of most'),
});
export type House = z.infer<typeof houseSchema>;
