import type { PackAsk, PackSettings } from '#contracts/blind-pack';
import type { Design, NewTestDraft } from '#contracts/listening';

/** What a pack may ask for, in words. */
export const PACK_ASK_NAMES: Readonly<Record<PackAsk, string>> = {
  order: 'an order, best first',
  points: 'points, 0 to 10',
  names: 'a guess: which unit is which',
};

const DAYS_TO_ANSWER = 14;

/** A day some days after another one. */
export function dayAfter(day: string, days: number): string {
  return new Date(Date.parse(`${day}T12:00:00Z`) + days * 86_400_000).toISOString().slice(0, 10);
}

const packOf = (draft: NewTestDraft, today: string): PackSettings => ({
  title: draft.pack?.title ?? 'Blind test',
  note: draft.pack?.note ?? '',
  asks: draft.pack ? [...draft.pack.asks] : ['order'],
  onSite: draft.pack?.onSite ?? false,
  revealOn: draft.pack?.revealOn ?? dayAfter(today, DAYS_TO_ANSWER),
});

/** A draft with another design: only what is sent out has a way to go, and what is sent out is blind. */
export function withDesign(draft: NewTestDraft, design: Design, today: string): NewTestDraft {
  return design === 'pack'
    ? { ...draft, design, pack: packOf(draft, today), sighted: false }
    : { ...draft, design, pack: null };
}

/** A draft that asks for something more, or no more. */
export function withAsk(draft: NewTestDraft, ask: PackAsk, isAsked: boolean, today: string): NewTestDraft {
  const pack = packOf(draft, today);
  const asks = isAsked ? [...pack.asks.filter((a) => a !== ask), ask] : pack.asks.filter((a) => a !== ask);
  return { ...draft, pack: { ...pack, asks } };
}

/** A draft as it is sent: where names are guessed, there is no copy without highs, whatever was ticked before. */
export const asSent = (draft: NewTestDraft): NewTestDraft =>
  draft.pack?.asks.includes('names') ? { ...draft, controls: false } : draft;

/** A draft whose pack says something else. */
export const withPack = (draft: NewTestDraft, part: Partial<PackSettings>, today: string): NewTestDraft => ({
  ...draft,
  pack: { ...packOf(draft, today), ...part },
});
