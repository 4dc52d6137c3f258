import type { ReturnedAnswer } from '#contracts/blind-pack';
import type { ReadAnswer } from './read-table';
import { gistOf } from './same-answer';

/** An answer that the archive has. */
export interface KnownAnswer {
  readonly listener: string;
  /** As it came. */
  readonly cameAs: string | null;
}

/**
 * Says of each answer whether it is there already: a listener answers once, and the first answer counts. Of those
 * without a name the same words are the same answer, as often as the archive has them: two people may write the same,
 * and one paste may be read twice.
 */
export function knownAnswers(read: readonly ReadAnswer[], known: readonly KnownAnswer[]): ReturnedAnswer[] {
  const names = new Map<string, string | null>(known.map((k) => [k.listener.toLowerCase(), null]));
  const texts = new Map<string, number>();
  for (const { cameAs } of known) if (cameAs !== null) texts.set(cameAs, (texts.get(cameAs) ?? 0) + 1);
  return read.map((answer) => {
    const { doubts, order, ...rest } = answer;
    const base = { ...rest, points: { ...rest.points }, names: { ...rest.names }, votes: rest.votes && { ...rest.votes }, order: [...order] }; // prettier-ignore
    if (answer.problem !== null) return { ...base, doubts: [...doubts], isThere: false };
    if (answer.listener === null) {
      const left = texts.get(answer.text) ?? 0;
      if (left > 0) texts.set(answer.text, left - 1);
      return { ...base, doubts: [...doubts], isThere: left > 0 };
    }
    const name = answer.listener.toLowerCase();
    const before = names.get(name);
    const isThere = before !== undefined;
    if (!isThere) names.set(name, gistOf(answer));
    const isOther = typeof before === 'string' && before !== gistOf(answer);
    return { ...base, doubts: [...doubts, ...(isOther ? ['says something else than the first time'] : [])], isThere };
  });
}
