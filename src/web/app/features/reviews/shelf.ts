import type { HeldReview, ReviewRow } from '#contracts/review';
import { hasEveryWord } from '#core/text/every-word';
import { bytesWords } from '../../ui/format';
import { restWords } from '../../ui/review-words';

/** So many are shown, and held against today's facts, at a time. */
export const ON_ONE_PAGE = 60;

/** Part of a long list. */
export interface ShelfPage {
  readonly rows: readonly ReviewRow[];
  /** How many there are of what was looked for. */
  readonly found: number;
  /** The page that is shown, from 0, and the last one. */
  readonly page: number;
  readonly last: number;
}

/**
 * Reviews by the words of their unit, headline and day; a page of them.
 *
 * @param page - from 0; one beyond the last is the last
 */
export function shelfPage(rows: readonly ReviewRow[], typed: string, page: number): ShelfPage {
  const found = rows.filter((r) => hasEveryWord(`${r.unit.name} ${r.headline} ${r.publishedOn ?? 'draft'}`, typed));
  const last = Math.max(0, Math.ceil(found.length / ON_ONE_PAGE) - 1);
  const at = Math.min(page, last);
  return { rows: found.slice(at * ON_ONE_PAGE, (at + 1) * ON_ONE_PAGE), found: found.length, page: at, last };
}

/** What has happened since a review was published, and whether that is something. */
export interface SinceWords {
  readonly text: string;
  readonly isChange: boolean;
}

/** @param held - null as long as nobody has looked */
export function sinceWords({ publishedOn }: ReviewRow, held: HeldReview | null): SinceWords[] {
  if (held === null) return [{ text: 'looking …', isChange: false }];
  const words: SinceWords[] = [];
  const [first] = held.since;
  if (held.since.length === 1) words.push({ text: first.text, isChange: true });
  else if (held.since.length > 1) words.push({ text: `${held.since.length} changes`, isChange: true });
  else if (publishedOn !== null) words.push({ text: 'nothing', isChange: false });
  if (held.marks > 0) words.push({ text: restWords(held.marks), isChange: true });
  return words;
}

/** Why one file with its clips cannot be handed out; empty where it can. */
export const tooLargeWords = ({ bytes, most }: { readonly bytes: number; readonly most: number }): string =>
  bytes <= most
    ? ''
    : `One file with these clips would have ${bytesWords(bytes)}; up to ${bytesWords(most)} can be handed out so. Choose Opus, or take the page with its clips in a folder.`;
