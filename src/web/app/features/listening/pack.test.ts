import { describe, expect, it } from 'vitest';
import type { PackPage, ReturnedAnswer } from '#contracts/blind-pack';
import { newTestSchema, type NewTestDraft } from '#contracts/listening';
import { dayAfter, withAsk, withPack } from './pack-draft';
import { asSent, withDesign } from './test-draft';
import { announcement, openingWords, revealCaution, revealWords, weighingWords } from './pack-words';
import { canBeKept, choiceOf, firstChoice, foundWords, keptLines, withChoice } from './returned-choice';

const TODAY = '2026-11-27';
const DRAFT: NewTestDraft = { name: 'T', design: 'heats', takes: ['1', '2'], sighted: true };

describe('the draft of a pack', () => {
  it('has a way to go as soon as it is a pack, and none when it is something else again; nothing typed is lost between', () => {
    const pack = withDesign(DRAFT, 'pack', TODAY);
    expect(pack.pack).toEqual({
      title: 'Blind test',
      note: '',
      asks: ['order'],
      revealOn: '2026-12-11',
      onSite: false,
    });
    expect(newTestSchema.safeParse(pack).success).toBe(true);
    const titled = withPack(pack, { title: 'Four' }, TODAY);
    expect(withDesign(titled, 'pack', TODAY).pack?.title).toBe('Four');
    expect(withDesign(titled, 'pairs', TODAY).pack).toBeNull();
    expect(newTestSchema.safeParse(withDesign(titled, 'pairs', TODAY)).success).toBe(true);
  });

  it('asks for more or less, and has no copy where names are guessed', () => {
    const named = withAsk(withDesign(DRAFT, 'pack', TODAY), 'names', true, TODAY);
    expect(asSent(named)).toMatchObject({ controls: false, pack: { asks: ['order', 'names'] } });
    expect(newTestSchema.safeParse(asSent(named)).success).toBe(true);
    // What was ticked stands again as soon as nothing is guessed.
    const again = withAsk(named, 'names', false, TODAY);
    expect(newTestSchema.parse(asSent(again)).controls).toBe(true);
    expect(asSent({ ...again, controls: false }).controls).toBe(false);
    const twice = withAsk(named, 'names', true, TODAY);
    expect(twice.pack?.asks).toEqual(['order', 'names']);
    const none = withAsk(withAsk(named, 'names', false, TODAY), 'order', false, TODAY);
    expect(newTestSchema.safeParse(none).error?.issues[0].message).toBe('say what the pack asks for');
  });

  it('counts days over months and years', () => {
    expect(dayAfter('2026-12-25', 14)).toBe('2027-01-08');
    expect(dayAfter('2028-02-28', 1)).toBe('2028-02-29');
  });
});

describe('words about a pack', () => {
  const settings = { title: 'Four', note: '', asks: ['order' as const], revealOn: '2026-12-04', onSite: false };
  const page = (change: Partial<PackPage> = {}): PackPage => ({ tag: '7F3A2C', keySha256: '7f3a2cff', sealedOn: TODAY, clips: ['Alder'], openingCode: null, answers: { listeners: 3, passed: 2, failed: 1, share: 0.418, share90: [0.06, 0.81] }, ...change }); // prettier-ignore

  it('say the hash before, and the code after', () => {
    expect(announcement(settings, page())).toBe('“Four”, pack 7F3A2C: key sealed on 2026-11-27, to be opened on 2026-12-04. SHA-256 of the key: 7f3a2cff'); // prettier-ignore
    expect(openingWords(settings, page({ openingCode: 'AB-CD' }))).toBe('“Four”, pack 7F3A2C: the key is opened with AB-CD'); // prettier-ignore
  });

  it('say how far it is to the reveal, and that it is early or late', () => {
    expect(revealWords('2026-12-04', TODAY)).toEqual({ words: 'The reveal was promised for 2026-12-04, in 7 days.', isDue: false }); // prettier-ignore
    expect(revealWords(TODAY, TODAY)).toMatchObject({ isDue: true, words: expect.stringContaining('today') as string });
    expect(revealWords('2026-11-26', TODAY)).toEqual({ words: 'The reveal was promised for 2026-11-26, one day ago.', isDue: true }); // prettier-ignore
    expect(revealCaution('2026-12-04', TODAY)).toContain('7 days early');
    expect(revealCaution(TODAY, TODAY)).not.toContain('early');
  });

  it('say what answers weigh by the figures beside it', () => {
    const words = weighingWords(page().answers);
    for (const part of ['3 answers', '2 of 3', '42 %', '6 % and 81 %']) expect(words).toContain(part);
    const none = weighingWords({ listeners: 1, passed: 0, failed: 0, share: 0.5, share90: [0.05, 0.95] });
    expect(none).toBe('1 answer came back. None of them tells whether its listener listened: each weighs 50 % of an answer given here.'); // prettier-ignore
  });
});

describe('what is kept of answers that came back', () => {
  const answer = (line: number, change: Partial<ReturnedAnswer> = {}): ReturnedAnswer => ({ line, text: 'A > B', listener: `L${line}`, order: ['A', 'B'], best: null, points: {}, names: {}, votes: null, doubts: [], problem: null, isThere: false, ...change }); // prettier-ignore
  const all = [answer(1), answer(2, { doubts: ['hm'] }), answer(3, { isThere: true }), answer(4, { problem: 'no' }), answer(5, { listener: null })]; // prettier-ignore

  it('is at first what is sure', () => {
    expect(keptLines(all, new Map()).map((k) => k.line)).toEqual([1, 5]);
    expect(all.map(canBeKept)).toEqual([true, true, true, false, true]);
    expect(all.map((a) => firstChoice(a).isKept)).toEqual([true, false, false, false, true]);
    expect(foundWords(all)).toBe('2 answers, 1 to look at, 1 that is there already, 1 that says nothing that can be kept.'); // prettier-ignore
    expect(foundWords([all[0]])).toBe('1 answer.');
  });

  it('is what a person says, but never what cannot be kept; an empty name is nobody', () => {
    let choices = withChoice(new Map(), all[1], { isKept: true });
    choices = withChoice(choices, all[0], { listener: '  ' });
    choices = withChoice(choices, all[3], { isKept: true });
    choices = withChoice(choices, all[2], { isSomebodyElse: true, isKept: true });
    choices = withChoice(choices, all[4], { isKept: false });
    expect(keptLines(all, choices)).toEqual([
      { line: 1, listener: null, isSomebodyElse: false },
      { line: 2, listener: 'L2', isSomebodyElse: false },
      { line: 3, listener: 'L3', isSomebodyElse: true },
    ]);
    expect(choiceOf(choices, all[1]).listener).toBe('L2');
  });
});
