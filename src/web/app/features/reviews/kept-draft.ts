import { z } from 'zod';
import { reviewDocumentSchema, type ReviewDocument } from '#contracts/review';
import { savable } from './review-draft';

// What is written and not saved yet is kept in the browser: a reload, or a browser that ends, loses nothing.

const keyOf = (id: string): string => `sediment.review.${id}`;
const keptSchema = z.object({ revision: z.int(), document: reviewDocumentSchema });

/** @param revision - that the text goes on from */
export function keepDraft(id: string, revision: number, document: ReviewDocument): void {
  localStorage.setItem(keyOf(id), JSON.stringify({ revision, document: savable(document) }));
}

/** What was written and never saved; null where nothing is, or where it goes on from another revision than this one. */
export function keptDraft(id: string, revision: number): ReviewDocument | null {
  const text = localStorage.getItem(keyOf(id));
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

export function forgetDraft(id: string): void {
  localStorage.removeItem(keyOf(id));
}
