import type { Attribute, Design } from '#contracts/listening';
import type { PanelSource } from '#contracts/live-panel';

/** Designs by name, with what each is good for. */
export const DESIGN_NAMES: Readonly<Record<Design, { readonly name: string; readonly does: string }>> = {
  heats: { name: 'Heats and a final', does: 'Ranks many: a few at a time are put in order, winners meet.' },
  pairs: { name: 'Pairs', does: 'Every two are held against each other. Up to 12 clips.' },
  abx: { name: 'ABX', does: 'Can two clips be told apart at all?' },
  names: { name: 'Guess the names', does: 'Are the names recognised by sound alone?' },
  ratings: {
    name: 'Ratings with hidden reference',
    does: 'Quality against a reference, 0–100, with anchors (ITU-R BS.1534).',
  },
  performer: {
    name: "Performer's test",
    does: 'Somebody performs through each, blindfolded; you enter the order and the words.',
  },
  panel: {
    name: 'Panel, live in one room',
    does: 'Order drawn on the spot, heats and a final, one more put into the table, words with their moment; a screen for whoever leads and one for listeners.',
  },
  pack: {
    name: 'Blind pack, sent out',
    does: 'Clips under code names for an audience, with a page that plays them; the key is sealed first, answers come back as comments, codes or tables.',
  },
};

export const ATTRIBUTE_NAMES: Readonly<Record<Attribute, string>> = {
  preference: 'overall preference',
  natural: 'natural sound',
  clear: 'clarity',
  quiet: 'freedom from noise and room',
};

export const STATUS_NAMES = {
  preparing: 'preparing clips',
  failed: 'could not be prepared',
  open: 'open',
  closed: 'closed',
} as const;

export const PANEL_SOURCE_NAMES: Readonly<Record<PanelSource, string>> = {
  performed: 'performed through each unit in the room',
  played: 'matched clips, played in the room',
};
