import { z } from 'zod';
import { reviewDocumentSchema, type Review, type ReviewDocument } from '#contracts/review';
import { savable } from './review-draft';

// What is written and not saved yet is kept in the browser: a reload, or a browser that ends, loses nothing.

/** Which review it is: numbers alone are those of another archive as well, which is served at the same address. */
export type DraftOf = Pick<Review, 'id' | 'openedOn' | 'unit'>;

/** What is being written, or what was written and was overtaken by a text that was saved elsewhere. */
type Shelf = 'written' | 'overtaken';

const keyOf = ({ id, openedOn, unit }: DraftOf, shelf: Shelf): string =>
  `sediment.review.${id} ${openedOn} ${unit.name}${shelf === 'overtaken' ? ' overtaken' : ''}`;
const keptSchema = z.object({ revision: z.int(), document: reviewDocumentSchema });
type Kept = z.infer<typeof keptSchema>;

function read(of: DraftOf, shelf: Shelf): Kept | null {
  const text = localStorage.getItem(keyOf(of, shelf));
  if (text === null) return null;
  try {
    return keptSchema.safeParse(JSON.parse(text)).data ?? null;
  } catch {
    return null;
  }
}

/** @param revision - that the text goes on from */
export function keepDraft(of: DraftOf, revision: number, document: ReviewDocument): void {
  localStorage.setItem(keyOf(of, 'written'), JSON.stringify({ revision, document: savable(document) }));
}

/**
 * What was written and never saved; null where nothing is. What goes on from another revision than this one was overtaken:
 * it is laid aside, where `overtakenDraft` finds it until somebody decides on it.
 */
export function keptDraft(of: DraftOf, revision: number): ReviewDocument | null {
  const kept = read(of, 'written');
  if (kept === null) return null;
  if (kept.revision === revision) return kept.document;
  localStorage.setItem(keyOf(of, 'overtaken'), JSON.stringify(kept));
  forgetDraft(of);
  return null;
}

export function forgetDraft(of: DraftOf): void {
  localStorage.removeItem(keyOf(of, 'written'));
}

/** What was written here and overtaken by what was saved elsewhere. */
export const overtakenDraft = (of: DraftOf): ReviewDocument | null => read(of, 'overtaken')?.document ?? null;

export function forgetOvertaken(of: DraftOf): void {
  localStorage.removeItem(keyOf(of, 'overtaken'));
}
