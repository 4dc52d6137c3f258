import type { PackAsk, PackSettings } from '#contracts/blind-pack';
import type { NewTestDraft } from '#contracts/listening';

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

/** How a draft goes out, or would. */
export const packOf = (draft: NewTestDraft, today: string): PackSettings => ({
  title: draft.pack?.title ?? 'Blind test',
  note: draft.pack?.note ?? '',
  asks: draft.pack ? [...draft.pack.asks] : ['order'],
  onSite: draft.pack?.onSite ?? false,
  revealOn: draft.pack?.revealOn ?? dayAfter(today, DAYS_TO_ANSWER),
});

/** A draft that asks for something more, or no more. */
export function withAsk(draft: NewTestDraft, ask: PackAsk, isAsked: boolean, today: string): NewTestDraft {
  const pack = packOf(draft, today);
  const asks = isAsked ? [...pack.asks.filter((a) => a !== ask), ask] : pack.asks.filter((a) => a !== ask);
  return { ...draft, pack: { ...pack, asks } };
}

/** A draft whose pack says something else. */
export const withPack = (draft: NewTestDraft, part: Partial<PackSettings>, today: string): NewTestDraft => ({
  ...draft,
  pack: { ...packOf(draft, today), ...part },
});
