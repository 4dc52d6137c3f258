import type { Character } from '#contracts/character';
import { reviewDocumentSchema, type LineMark, type Proposal, type Quotation, type RestsOn, type ReviewDocument, type ReviewLine } from '#contracts/review'; // prettier-ignore
import { issueText } from '#contracts/issue-text';
import { proposalKey, restingLines } from '#domain/review/propose';

/** Whether a line of the review rests on what a rule proposes. */
export const isTaken = (document: ReviewDocument, { restsOn }: Proposal): boolean =>
  restingLines(document).some((r) => proposalKey(r) === proposalKey(restsOn));

/** The review with a proposal taken into the part that it is for; one that was taken stays as it is. */
export function withProposal(document: ReviewDocument, proposal: Proposal): ReviewDocument {
  if (isTaken(document, proposal)) return document;
  const { part, restsOn, text, use, suits, unit, price } = proposal;
  switch (part) {
    case 'pros':
    case 'cons':
    case 'notTested':
    case 'sums':
      return { ...document, [part]: [...document[part], { text, restsOn }] };
    case 'uses':
      return use === null || suits === null
        ? document
        : { ...document, uses: [...document.uses, { use, suits, text, restsOn }] };
    case 'alternatives':
      return unit === null
        ? document
        : { ...document, alternatives: [...document.alternatives, { unit: unit.id, name: unit.name, text, restsOn }] };
    case 'turningPrice':
      return price === null ? document : { ...document, turningPrice: { ...price, text, restsOn } };
  }
}

/** What today's facts say otherwise of a line; null where nothing. */
export const markOf = (line: ReviewLine, marks: readonly LineMark[]): LineMark | null =>
  (line.restsOn && marks.find((m) => sameFact(m.restsOn, line.restsOn as RestsOn))) ?? null;

const sameFact = (a: RestsOn, b: RestsOn): boolean => proposalKey(a) === proposalKey(b) && a.gist === b.gist;

/** A line whose fact has changed, said as the facts say it today; without a proposal of today it stays. */
export function renewed<L extends ReviewLine>(line: L, proposals: readonly Proposal[]): L {
  const now = proposals.find((p) => line.restsOn && proposalKey(p.restsOn) === proposalKey(line.restsOn));
  return now ? { ...line, text: now.text, restsOn: now.restsOn } : line;
}

/** A line that a person has rewritten still rests on its fact. */
export const reworded = <L extends ReviewLine>(line: L, text: string): L => ({ ...line, text });

/** List without, moved, or changed at a place. */
export const without = <T>(list: readonly T[], at: number): T[] => list.filter((_, i) => i !== at);
export const changedAt = <T>(list: readonly T[], at: number, value: T): T[] =>
  list.map((v, i) => (i === at ? value : v));
export function moved<T>(list: readonly T[], at: number, by: -1 | 1): T[] {
  const to = at + by;
  if (to < 0 || to >= list.length) return [...list];
  const next = [...list];
  [next[at], next[to]] = [next[to], next[at]];
  return next;
}

const isPriceWritten = (price: ReviewDocument['turningPrice']): boolean =>
  price !== null && (price.text.trim() !== '' || price.amount > 0);

/** What is saved: a line that nobody has written anything into yet is not there. */
export function savable(document: ReviewDocument): ReviewDocument {
  const written = <L extends ReviewLine>(lines: readonly L[]): L[] => lines.filter((l) => l.text.trim() !== '');
  return {
    ...document,
    pros: written(document.pros),
    cons: written(document.cons),
    notTested: written(document.notTested),
    sums: written(document.sums),
    uses: written(document.uses).filter((u) => u.use.trim() !== ''),
    alternatives: written(document.alternatives).filter((a) => a.name.trim() !== ''),
    turningPrice: isPriceWritten(document.turningPrice) ? document.turningPrice : null,
    links: document.links.filter((l) => l.label.trim() !== '' && l.address.trim() !== ''),
    decks: document.decks.filter((d) => d.takes.length > 0),
    quotations: document.quotations.filter((q) => q.words.trim() !== ''),
  };
}

/** Own words of listeners that are not among the quotations yet; those of a list are no quotations. */
export function unquoted(heard: Character['heard'], quotations: readonly Quotation[]): string[] {
  const quoted = new Set(quotations.map((q) => q.words.trim().toLowerCase()));
  return heard.filter((w) => w.isFree && !quoted.has(w.word.trim().toLowerCase())).map((w) => w.word);
}

/** Why it cannot be saved as it is, in words; empty where it can. */
export function draftProblems(document: ReviewDocument): string[] {
  const parsed = reviewDocumentSchema.safeParse(savable(document));
  return parsed.success ? [] : parsed.error.issues.map((issue) => issueText(issue));
}
