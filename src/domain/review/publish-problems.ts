import type { Edition } from '#contracts/edition';
import type { ReviewDocument } from '#contracts/review';
import { publishedText } from './published-text';

/** What stands against publishing an edition; empty where nothing does. */
export function publishProblems(edition: Edition, before: Edition | null): { field: string; message: string }[] {
  const { text } = edition;
  const problems: { field: string; message: string }[] = [];
  if (text.headline.trim() === '') problems.push({ field: 'headline', message: 'an edition needs a headline' });
  if (text.summary.trim() === '' && text.pros.length + text.cons.length === 0)
    problems.push({ field: 'summary', message: 'write a summary, or take a line for or against it' });
  if (before && problems.length === 0 && edition.changes.length === 0)
    problems.push({ field: 'document', message: `nothing has changed since edition ${before.number}` });
  return problems;
}

/** Whether what is written is what the newest edition says; what facts say beside it may have changed. */
export function isWhatWasPublished(document: ReviewDocument, newest: Edition | undefined): boolean {
  if (!newest) return false;
  const isSaid = JSON.stringify(publishedText(document)) === JSON.stringify(newest.text);
  return isSaid && document.decks.length === newest.decks.length;
}
