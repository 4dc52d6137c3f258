import type { Edition } from '#contracts/edition';
import { reviewTextSchema, type ReviewDocument } from '#contracts/review';

/** What of a document is published: all that is written, and of quotations those that were agreed to. */
export const publishedText = (document: ReviewDocument): Edition['text'] =>
  reviewTextSchema.parse({ ...document, quotations: document.quotations.filter((q) => q.consent === 'given') });
