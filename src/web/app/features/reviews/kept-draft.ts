import { z } from 'zod';
import { reviewDocumentSchema, type Review, type ReviewDocument } from '#contracts/review';
import { savable } from './review-draft';

// What is written and not saved yet is kept in the browser: a reload, or a browser that ends, loses nothing.

/** Which review it is: numbers alone are those of another archive as well, which is served at the same address. */
export type DraftOf = Pick<Review, 'id' | 'openedOn' | 'unit'>;

const keyOf = ({ id, openedOn, unit }: DraftOf): string => `sediment.review.${id} ${openedOn} ${unit.name}`;
const keptSchema = z.object({ revision: z.int(), document: reviewDocumentSchema });

/** @param revision - that the text goes on from */
export function keepDraft(of: DraftOf, revision: number, document: ReviewDocument): void {
  localStorage.setItem(keyOf(of), JSON.stringify({ revision, document: savable(document) }));
}

/** What was written and never saved; null where nothing is, or where it goes on from another revision than this one. */
export function keptDraft(of: DraftOf, revision: number): ReviewDocument | null {
  const text = localStorage.getItem(keyOf(of));
  if (text === null) return null;
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return null;
  }
  const parsed = keptSchema.safeParse(value);
  return parsed.success && parsed.data.revision === revision ? parsed.data.document : null;
}

export function forgetDraft(of: DraftOf): void {
  localStorage.removeItem(keyOf(of));
}
