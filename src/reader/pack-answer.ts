import { answerCode, NO_ANSWER, type PackAnswer } from '#core/rules/listening/answer-code';

/** What a listener has said so far. */
export interface PackDraft {
  /** Letters, best first. */
  readonly order: readonly string[];
  /** Whether that order is meant: it stands somehow from the beginning. */
  readonly isOrdered: boolean;
  /** As typed. */
  readonly points: Readonly<Record<string, string>>;
  /** Places in the list of names, from 1; 0 for none. */
  readonly names: Readonly<Record<string, number>>;
}

/** An answer that can be sent, or what is still wrong. */
export type SaidAnswer =
  | { readonly kind: 'answer'; readonly answer: PackAnswer; readonly code: string }
  | { readonly kind: 'nothing' }
  | { readonly kind: 'fault'; readonly words: string };

/** Moves a letter up (−1) or down (1) in an order. */
export function moved(order: readonly string[], letter: string, by: -1 | 1): string[] {
  const from = order.indexOf(letter);
  const to = from + by;
  const next = [...order];
  if (from < 0 || to < 0 || to >= order.length) return next;
  [next[from], next[to]] = [next[to], next[from]];
  return next;
}

/** What was said, as a code; points with one decimal, either sign. */
export function saidAnswer(draft: PackDraft, tag: string): SaidAnswer {
  const points: Record<string, number> = {};
  for (const [letter, typed] of Object.entries(draft.points)) {
    const text = typed.trim();
    if (text === '') continue;
    const value = Number(text.replace(',', '.'));
    if (!/^\d{1,2}([.,]\d)?$/.test(text) || value > 10)
      return { kind: 'fault', words: `${letter}: points go from 0 to 10, with one decimal at most.` };
    points[letter] = value;
  }
  const given = Object.entries(draft.names).filter(([, n]) => n > 0);
  const numbers = given.map(([, n]) => n);
  if (given.length > 0 && given.length < Object.keys(draft.names).length)
    return { kind: 'fault', words: `${given.length} of ${Object.keys(draft.names).length} clips have a name: a guess needs all of them.` }; // prettier-ignore
  if (new Set(numbers).size < numbers.length) return { kind: 'fault', words: 'One name stands at two clips.' };
  const answer: PackAnswer = { ...NO_ANSWER, order: draft.isOrdered ? [...draft.order] : [], points, names: Object.fromEntries(given) }; // prettier-ignore
  const isNothing = answer.order.length === 0 && Object.keys(points).length === 0 && given.length === 0;
  return isNothing ? { kind: 'nothing' } : { kind: 'answer', answer, code: answerCode(tag, answer) };
}

/** The answer as a table, a line per clip. */
export function answerCsv(
  answer: PackAnswer,
  of: { readonly listener: string; readonly tag: string; readonly clips: readonly { readonly letter: string; readonly name: string }[]; readonly names: readonly string[] }, // prettier-ignore
): string {
  const quoted = (text: string): string => `"${text.replaceAll('"', '""')}"`;
  const lines = of.clips.map(({ letter, name }) => {
    const place = answer.order.indexOf(letter) + 1;
    const guess = letter in answer.names ? of.names[answer.names[letter] - 1] : '';
    const points = letter in answer.points ? String(answer.points[letter]) : '';
    return [quoted(of.listener), name, place > 0 ? String(place) : '', points, quoted(guess), of.tag].join(',');
  });
  return ['listener,clip,place,points,guess,pack', ...lines].map((line) => `${line}\r\n`).join('');
}
