import { z } from 'zod';
import { HEARD_WORDS } from '#core/rules/listening/vocabulary';
import { idSchema, nameSchema } from './common';

export const PANEL_SOURCES = ['performed', 'played'] as const;
export type PanelSource = (typeof PANEL_SOURCES)[number];

/** How a panel is held. */
export const panelSettingsSchema = z.strictObject({
  source: z.enum(PANEL_SOURCES).describe('Performed through each unit in the room, or clips played there'),
  goOn: z.int().min(1).max(3).default(1).describe('How many of a heat meet again in the next round'),
});
export type PanelSettings = z.infer<typeof panelSettingsSchema>;

const letterSchema = z.string().regex(/^[A-Z]$/, 'must be a letter');
const saidBase = {
  letter: letterSchema,
  words: z.array(z.enum(HEARD_WORDS)).max(10),
  free: z.string().trim().max(200),
};

/**
 * What happened in a panel, in the order in which it did: the state of a panel is made of these alone, so that a page
 * that was closed, a server that was stopped or a slip of the hand loses nothing.
 */
export const panelEntrySchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('heat'),
    /** In the order that was drawn: the first is A. */
    items: z.array(idSchema).min(2).max(6),
    round: z.int().min(1),
    isFinal: z.boolean(),
    /** Of a second hearing: the turn that is heard once more. */
    again: z.int().nullable(),
  }),
  z.object({
    kind: z.literal('place'),
    /** The heat into whose table it is put. */
    into: z.int(),
    round: z.int().min(1),
    /** Best first, as the table stood: the first is A. */
    table: z.array(idSchema).min(2).max(11),
    item: idSchema,
  }),
  z.object({ kind: z.literal('now'), letter: letterSchema.nullable() }),
  z.object({ kind: z.literal('order'), letters: z.array(letterSchema).min(2).max(12) }),
  z.object({ kind: z.literal('placed'), at: z.int().min(0).max(11) }),
  z.object({ kind: z.literal('said'), turn: z.int(), ...saidBase, clipS: z.number().min(0).max(3600).nullable() }),
  z.object({ kind: z.literal('taken-back'), entry: idSchema }),
  z.object({ kind: z.literal('wish'), letter: letterSchema }),
  z.object({ kind: z.literal('closed') }),
  z.object({ kind: z.literal('dropped'), reason: z.string() }),
]);
export type PanelEntry = z.infer<typeof panelEntrySchema>;

const said = z.strictObject({
  kind: z.literal('said'),
  turn: z.int().min(1),
  ...saidBase,
  clipS: z.number().min(0).max(3600).nullable().default(null).describe('Where in the clip it was said, seconds'),
});
const order = z.strictObject({ kind: z.literal('order'), letters: z.array(letterSchema).min(2).max(12) });
const placed = z.strictObject({ kind: z.literal('placed'), at: z.int().min(0).max(11).describe('0 before the first') });
const wish = z.strictObject({ kind: z.literal('wish'), letter: letterSchema });
const takeBack = z.strictObject({ kind: z.literal('take-back'), entry: idSchema });
const sitting = idSchema.nullable().describe('Of whom; null where that was not noted');

/** What the one who leads a panel may do. */
export const panelCommandSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('heat') }),
  z.strictObject({ kind: z.literal('again'), turn: z.int().min(1) }),
  z.strictObject({ kind: z.literal('place'), into: z.int().min(1), item: idSchema }),
  z.strictObject({ kind: z.literal('now'), letter: letterSchema.nullable() }),
  order.extend({ sitting: idSchema }),
  placed.extend({ sitting: idSchema }),
  said.extend({ sitting }),
  wish.extend({ sitting }),
  takeBack,
  z.strictObject({ kind: z.literal('close') }),
  z.strictObject({
    kind: z.literal('drop'),
    reason: z.string().trim().min(1, 'say why it does not count').max(200),
  }),
  z.strictObject({ kind: z.literal('came'), name: nameSchema }),
  z.strictObject({ kind: z.literal('add'), specimen: idSchema }),
  z.strictObject({ kind: z.literal('take'), item: idSchema, take: idSchema.nullable() }),
]);
export type PanelCommand = z.output<typeof panelCommandSchema>;
export type PanelCommandDraft = z.input<typeof panelCommandSchema>;

/** What one who listens may do, by their own page. */
export const seatCommandSchema = z.discriminatedUnion('kind', [order, placed, said, wish, takeBack]);
export type SeatCommand = z.output<typeof seatCommandSchema>;
export type SeatCommandDraft = z.input<typeof seatCommandSchema>;

const noteSchema = z.object({
  entry: z.string(),
  /** ISO 8601. */
  at: z.string(),
  sitting: z.string().nullable(),
  turn: z.int(),
  letter: z.string(),
  item: z.string(),
  words: z.array(z.enum(HEARD_WORDS)),
  free: z.string(),
  clipS: z.number().nullable(),
});
export type PanelNote = z.infer<typeof noteSchema>;

const rowSchema = z.object({
  item: z.string(),
  place: z.int().describe('Shared places have the same number'),
  meanPlace: z.number().nullable().describe('Mean over the orders that were given; null of one that was put in later'),
});
export type PanelTableRow = z.infer<typeof rowSchema>;

const turnSchema = z.object({
  number: z.int(),
  title: z.string(),
  kind: z.enum(['heat', 'place']),
  round: z.int(),
  isFinal: z.boolean(),
  again: z.int().nullable(),
  into: z.int().nullable(),
  /** By their letters. */
  items: z.array(z.string()),
  status: z.enum(['open', 'closed', 'dropped']),
  reason: z.string().nullable(),
  openedAt: z.string(),
  now: z.string().nullable(),
  /** How often each letter was on. */
  heard: z.record(z.string(), z.int()),
  /** Letters that somebody wants to hear again and that were not on since. */
  wishes: z.array(z.object({ letter: z.string(), sitting: z.string().nullable() })),
  /** Items best first, by who gave the order. */
  orders: z.array(z.object({ sitting: z.string(), items: z.array(z.string()) })),
});
export type PanelTurnPage = z.infer<typeof turnSchema>;

/** What may follow. */
export const panelOffersSchema = z.object({
  heat: z
    .object({ round: z.int(), left: z.int(), size: z.int(), isFinal: z.boolean() })
    .nullable()
    .describe('A heat that can be drawn, of how many that are left'),
  /** Left over alone: there is no heat for one. */
  lone: z.string().nullable(),
  again: z.array(z.int()),
  place: z.array(z.object({ into: z.int(), items: z.array(z.string()) })),
  isDecided: z.boolean(),
});
export type PanelOffers = z.infer<typeof panelOffersSchema>;

/** The page of the one who leads a panel. */
export const panelPageSchema = z.object({
  testId: z.string(),
  name: z.string(),
  question: z.string(),
  invitation: z.string(),
  isOpen: z.boolean(),
  /** Grows with everything that happens: of two answers, the longer one is the newer. */
  length: z.int(),
  settings: panelSettingsSchema,
  category: z.string(),
  items: z.array(
    z.object({
      id: z.string(),
      specimenId: z.string(),
      name: z.string(),
      takeId: z.string().nullable().describe('Of a clip that is played, or of a take that was recorded in the room'),
      /** Takes of the unit that can be linked, newest first; none where clips are played. */
      takes: z.array(z.object({ id: z.string(), name: z.string() })),
    }),
  ),
  listeners: z.array(z.object({ sitting: z.string(), name: z.string(), isOut: z.boolean() })),
  turns: z.array(turnSchema),
  tables: z.array(z.object({ turn: z.int(), rows: z.array(rowSchema) })),
  notes: z.array(noteSchema),
  offers: panelOffersSchema,
});
export type PanelPage = z.infer<typeof panelPageSchema>;

/** What a listener’s page and the screen in the room know: letters and the question. Never a name, never a result. */
export const panelSeatSchema = z.object({
  question: z.string(),
  listener: z.string().nullable(),
  isOpen: z.boolean(),
  /** Grows with everything that this page shows: of two answers, the longer one is the newer. */
  length: z.int(),
  turn: z
    .object({
      number: z.int(),
      kind: z.enum(['heat', 'place']),
      title: z.string(),
      letters: z.array(z.string()),
      now: z.string().nullable(),
      /** Their own order, by letters, best first; null until they gave one. */
      order: z.array(z.string()).nullable(),
      wishes: z.array(z.string()),
      notes: z.array(z.object({ entry: z.string(), letter: z.string(), words: z.array(z.string()), free: z.string() })),
    })
    .nullable(),
});
export type PanelSeat = z.infer<typeof panelSeatSchema>;
