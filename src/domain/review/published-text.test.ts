import { describe, expect, it } from 'vitest';
import { editionSchema } from '#contracts/edition';
import type { Quotation } from '#contracts/review';
import { editionChanges } from './edition-changes';
import { freeze } from './freeze';
import { isWhatWasPublished } from './publish-problems';
import { publishedText } from './published-text';
import { emptyReview, SHIPPED_HOUSE } from './shipped-house';
import { fact, reviewFacts, unit } from './testing/review-facts';

const quote = (words: string, consent: Quotation['consent']): Quotation => ({ words, saidBy: 'Tam', saidOn: null, consent }); // prettier-ignore
const document = { ...emptyReview(), headline: 'Quiet', summary: 'x', quotations: [quote('like velvet', 'given'), quote('like a tin', 'not asked'), quote('never again', 'refused')] }; // prettier-ignore
const frozen = (quotations: Quotation[], before: Parameters<typeof freeze>[0]['before'] = null) =>
  freeze({ review: '1', document: { ...document, quotations }, house: SHIPPED_HOUSE, facts: reviewFacts([unit('1', { noiseReSpeechA: fact(-60) })]), decks: [], day: '2026-01-01', software: '1', before }); // prettier-ignore

describe('quotations', () => {
  it('are published only where they were agreed to', () => {
    expect(publishedText(document).quotations.map((q) => q.words)).toEqual(['like velvet']);
    expect(frozen(document.quotations).text.quotations.map((q) => q.words)).toEqual(['like velvet']);
    expect(JSON.stringify(frozen(document.quotations))).not.toContain('like a tin');
  });

  it('that were not agreed to make no other edition; those that are taken back do', () => {
    const first = frozen([quote('like velvet', 'given')]);
    expect(isWhatWasPublished(document, first)).toBe(true);
    expect(isWhatWasPublished({ ...document, quotations: [] }, first)).toBe(false);
    const next = frozen([quote('like velvet', 'refused'), quote('full', 'given')], first);
    expect(next.changes.map((c) => c.text)).toEqual(['Quotation, added: full', 'Quotation, taken out: like velvet']);
    expect(editionChanges(first, frozen([quote('like velvet', 'given')])).map((c) => c.text)).toEqual([]);
  });

  it('an edition from before there were any is read as having none', () => {
    const old = JSON.parse(JSON.stringify(frozen([]))) as { text: Record<string, unknown> };
    delete old.text.quotations;
    expect(editionSchema.parse(old).text.quotations).toEqual([]);
  });
});
