import { afterEach, describe, expect, it } from 'vitest';
import type { House, Proposal, ReviewDocument } from '#contracts/review';
import { emptyReview, SHIPPED_HOUSE } from '#domain/review/shipped-house';
import { directionOf, houseProblems, limitOf, withLimit, withRule } from './house-draft';
import { forgetDraft, keepDraft, keptDraft } from './kept-draft';
import { draftProblems, isTaken, markOf, moved, renewed, savable, unquoted, withProposal } from './review-draft';

const proposal = (change: Partial<Proposal> = {}): Proposal => ({
  restsOn: { rule: 'stands-out', subject: 'noiseReSpeechA', fact: 'quiet', gist: 'pros: −70' },
  part: 'pros',
  text: 'Quieter than most',
  use: null,
  suits: null,
  unit: null,
  price: null,
  at: 'measured',
  ...change,
});

describe('taking a proposal', () => {
  it('puts it where it belongs, once, with the fact that it rests on', () => {
    const taken = withProposal(emptyReview(), proposal());
    expect(taken.pros).toEqual([{ text: 'Quieter than most', restsOn: proposal().restsOn }]);
    expect(isTaken(taken, proposal())).toBe(true);
    expect(withProposal(taken, proposal())).toBe(taken);
    const other = (change: Partial<Proposal>) =>
      withProposal(emptyReview(), proposal({ restsOn: { ...proposal().restsOn, rule: 'for-use' }, ...change }));
    expect(other({ part: 'uses', use: 'Desk', suits: 'not for' }).uses[0]).toMatchObject({ use: 'Desk', suits: 'not for' }); // prettier-ignore
    expect(other({ part: 'alternatives', unit: { id: '7', name: 'Sedge' } }).alternatives[0]).toMatchObject({ unit: '7', name: 'Sedge' }); // prettier-ignore
    expect(other({ part: 'turningPrice', price: { amount: 79, currency: 'EUR' } }).turningPrice).toMatchObject({ amount: 79 }); // prettier-ignore
    expect(other({ part: 'notTested' }).notTested).toHaveLength(1);
  });

  it('a line that was reworded is still marked by its fact, and says today’s fact when asked', () => {
    const line = { text: 'mine', restsOn: proposal().restsOn };
    const mark = { restsOn: proposal().restsOn, now: 'louder' };
    expect(markOf(line, [mark])).toBe(mark);
    expect(markOf(line, [{ ...mark, restsOn: { ...mark.restsOn, gist: 'pros: −60' } }])).toBeNull();
    expect(markOf({ text: 'mine', restsOn: null }, [mark])).toBeNull();
    const today = proposal({ text: 'Quieter than some', restsOn: { ...proposal().restsOn, gist: 'pros: −69' } });
    expect(renewed(line, [today])).toEqual({ text: 'Quieter than some', restsOn: today.restsOn });
    expect(renewed(line, [])).toBe(line);
  });

  it('moves lines and no further than the ends', () => {
    expect(moved(['a', 'b', 'c'], 1, -1)).toEqual(['b', 'a', 'c']);
    expect(moved(['a', 'b', 'c'], 0, -1)).toEqual(['a', 'b', 'c']);
    expect(moved(['a', 'b', 'c'], 2, 1)).toEqual(['a', 'b', 'c']);
  });
});

describe('what is saved', () => {
  const empty = { text: ' ', restsOn: null };
  const draft: ReviewDocument = {
    ...emptyReview(),
    pros: [empty, { text: 'light', restsOn: null }],
    uses: [{ ...empty, use: 'Desk', suits: 'for' }],
    alternatives: [{ text: 'better', restsOn: null, unit: null, name: '' }],
    links: [{ label: 'x', address: '' }],
    decks: [{ step: 's', takes: [] }],
  };

  it('leaves out lines that nobody has written into yet', () => {
    const saved = savable(draft);
    expect(saved.pros).toEqual([{ text: 'light', restsOn: null }]);
    expect([saved.uses, saved.alternatives, saved.links, saved.decks]).toEqual([[], [], [], []]);
    expect(draftProblems(draft)).toEqual([]);
  });

  it('is refused in words: an address that is none, a price without an amount, a text that is too long', () => {
    expect(draftProblems({ ...draft, links: [{ label: 'x', address: 'tidewrack' }] })).toHaveLength(1);
    const price = { amount: 0, currency: 'EUR', text: 'less', restsOn: null };
    expect(draftProblems({ ...draft, turningPrice: price })).toHaveLength(1);
    expect(savable({ ...draft, turningPrice: { ...price, text: '' } }).turningPrice).toBeNull();
    expect(draftProblems({ ...draft, headline: 'x'.repeat(161) })[0]).toMatch(/160 characters/);
  });
});

describe('what is written and not saved yet', () => {
  afterEach(() => localStorage.clear());
  const document = { ...emptyReview(), headline: 'Quiet' };
  const of = (id: string, name = 'Sedge') => ({
    id,
    openedOn: '2025-01-01',
    unit: { id: '1', name, category: 'microphone' },
  });

  it('comes back for the revision that it goes on from, and for no other', () => {
    keepDraft(of('7'), 3, document);
    expect(keptDraft(of('7'), 3)).toEqual(document);
    expect(keptDraft(of('7'), 4)).toBeNull();
    expect(keptDraft(of('8'), 3)).toBeNull();
    // Another archive at the same address has a review of this number, too.
    expect(keptDraft(of('7', 'Lantern'), 3)).toBeNull();
    forgetDraft(of('7'));
    expect(keptDraft(of('7'), 3)).toBeNull();
  });

  it.each(['{', '[]', '{"revision":3,"document":{"headline":1}}'])('%s is nothing', (text) => {
    localStorage.setItem('sediment.review.7 2025-01-01 Sedge', text);
    expect(keptDraft(of('7'), 3)).toBeNull();
  });
});

describe('how the desk reviews', () => {
  const want = { figure: 'noiseReSpeechA', atLeast: null, atMost: -60 };

  it('a limit keeps its number when it changes sides, and an empty one stays empty', () => {
    expect([directionOf(want), limitOf(want)]).toEqual(['at most', -60]);
    const turned = withLimit(want, 'at least', -60);
    expect([directionOf(turned), limitOf(turned), turned.atMost]).toEqual(['at least', -60, null]);
    expect(limitOf(withLimit(want, 'at most', null))).toBeNull();
  });

  it('is refused with an empty limit, and with two uses of one name', () => {
    const house = (change: Partial<House>): House => ({ ...SHIPPED_HOUSE, ...change });
    expect(houseProblems(SHIPPED_HOUSE)).toEqual([]);
    const use = { name: 'Desk', kinds: [], wants: [] };
    expect(houseProblems(house({ uses: [use, { ...use, name: ' desk' }] }))).toEqual(['two uses are called "desk"']);
    expect(houseProblems(house({ uses: [{ ...use, wants: [withLimit(want, 'at least', null)] }] }))).toHaveLength(1);
    expect(houseProblems(house({ address: 'tidewrack' }))).toHaveLength(1);
    expect(withRule(withRule(SHIPPED_HOUSE, 'claim', false), 'claim', false).rulesOff).toEqual(['claim']);
    expect(withRule(house({ rulesOff: ['claim'] }), 'claim', true).rulesOff).toEqual([]);
  });
});

describe('quotations', () => {
  const quote = (words: string) => ({ words, saidBy: '', saidOn: null, consent: 'given' as const });
  it('that hold no words yet are not saved', () => {
    expect(savable({ ...emptyReview(), quotations: [quote(' '), quote('full')] }).quotations).toEqual([quote('full')]);
    expect(draftProblems({ ...emptyReview(), quotations: [quote('x'.repeat(601))] })).toHaveLength(1);
  });

  it('are offered from own words of listeners, once', () => {
    const heard = [
      { word: 'like tar', count: 1, isFree: true },
      { word: 'full', count: 3, isFree: false },
      { word: 'Velvet', count: 1, isFree: true },
    ];
    expect(unquoted(heard, [quote('velvet ')])).toEqual(['like tar']);
  });
});
