import { describe, expect, it } from 'vitest';
import { newTestSchema, type Answer, type ItemRole, type TrialDocument } from '#contracts/listening';
import { heardFromAnswer, heardItem } from './heard-from-answer';
import { knewTheCopy, packListeners, pollListened } from './pack-listeners';
import { drawCodeNames, packReveal, packSentences } from './pack-result';
import type { ItemRow } from './test-item';
import { testResult } from './test-result';

const item = (id: string, role: ItemRole, take = id): ItemRow => ({ id, test_id: '1', ordinal: Number(id), specimen_id: `u${take}`, take_id: take, role, gain_db: 0, loudness_lufs: -23, name: `Unit ${take}` }); // prettier-ignore
/** A is unit 1, B its copy without highs, C unit 3, D unit 4. */
const ITEMS = [item('1', 'unit'), item('2', 'known-worse', '1'), item('3', 'unit'), item('4', 'yardstick')];
const ALL = ITEMS.map((i) => i.id);
const TEST = newTestSchema.parse({ name: 'Sent', design: 'pack', takes: ['1', '3', '4'], pack: { title: 'Four', asks: ['order'], revealOn: '2026-12-01' } }); // prettier-ignore

const order = (codes: string) => ({ trial: { kind: 'order', items: ALL, round: 1, isFinal: true } as TrialDocument, answer: { kind: 'order', codes: codes.split('') } as Answer }); // prettier-ignore
const points = (given: Record<string, number>) => ({ trial: { kind: 'points', items: ALL } as TrialDocument, answer: { kind: 'points', points: given } as Answer }); // prettier-ignore
const best = (code: string) => ({ trial: { kind: 'best', items: ALL } as TrialDocument, answer: { kind: 'best', best: code } as Answer }); // prettier-ignore
const votes = (given: Record<string, number>) => ({ trial: { kind: 'votes', items: ALL } as TrialDocument, answer: { kind: 'votes', votes: given } as Answer }); // prettier-ignore
const names = (given: Record<string, string>, items = ['1', '3', '4']) => ({ trial: { kind: 'names', items } as TrialDocument, answer: { kind: 'names', names: given } as Answer }); // prettier-ignore
const heard = ({ trial, answer }: { trial: TrialDocument; answer: Answer }) => heardFromAnswer(TEST, trial, answer, ITEMS.map(heardItem)).map((f) => [f.specimens.join(''), f.outcome, f.weight]); // prettier-ignore

describe('what the scale hears of a pack', () => {
  it('of an order, the units without the copy', () => {
    expect(heard(order('CABD'))).toEqual([['u3u1u4', null, 1]]);
    expect(heard(order('BA'))).toEqual([]);
  });
  it('of points, the clips that have some', () => {
    expect(heard(points({ A: 5, B: 9, C: 7 }))).toEqual([['u3u1', null, 1]]);
    expect(heard(points({ A: 5 }))).toEqual([]);
    // Of three with two alike: all pairs, together as much as an order.
    expect(heard(points({ A: 5, C: 5, D: 8 }))).toEqual([
      ['u4u1', 1, 2 / 3],
      ['u4u3', 1, 2 / 3],
      ['u1u3', 0.5, 2 / 3],
    ]);
  });
  it('of a favourite, one choice among those that were offered', () => {
    expect(heard(best('C'))).toEqual([
      ['u3u1', 1, 1 / 2],
      ['u3u4', 1, 1 / 2],
    ]);
    expect(heard(best('B'))).toEqual([]);
  });
  it('of votes, as many choices; the copy and clips that were not offered are none', () => {
    expect(heard(votes({ A: 10, C: 4, B: 3 }))).toEqual([
      ['u1u3', 1, 10],
      ['u3u1', 1, 4],
    ]);
  });
});

describe('whether they listened', () => {
  it('is told by the copy and its original, where both were placed', () => {
    expect(knewTheCopy([order('CADB')], ITEMS)).toBe(true);
    expect(knewTheCopy([order('BCAD')], ITEMS)).toBe(false);
    expect(knewTheCopy([order('CAD')], ITEMS)).toBeNull();
    expect(knewTheCopy([points({ A: 5, B: 4 })], ITEMS)).toBe(true);
    expect(knewTheCopy([points({ A: 4, B: 5 })], ITEMS)).toBe(false);
    expect(knewTheCopy([points({ A: 5, B: 5 })], ITEMS)).toBeNull();
    expect(knewTheCopy([points({ B: 5, C: 0 })], ITEMS)).toBeNull();
    expect(knewTheCopy([best('B')], ITEMS)).toBeNull();
    expect(
      knewTheCopy(
        [order('CADB')],
        ITEMS.filter((i) => i.role !== 'known-worse'),
      ),
    ).toBeNull();
  });

  it('weighs nobody who failed, and the more the more passed', () => {
    const some = packListeners([[order('ABCD')], [order('ABCD')], [order('BACD')], [order('CD')]], ITEMS);
    expect(some).toMatchObject({ passed: 2, failed: 1 });
    expect(some.weights[2]).toBe(0);
    expect(some.weights[3]).toBe(some.share);
    expect(some.weights[0]).toBeGreaterThan(some.share);
    const all = packListeners(
      Array.from({ length: 40 }, () => [order('ABCD')]),
      ITEMS,
    );
    expect(all.weights[0]).toBeGreaterThan(0.95);
  });
});

describe('a poll', () => {
  it('is weighed by how many voted for the copy, where they could', () => {
    const poll = votes({ A: 60, B: 5, C: 20, D: 15 });
    // 1 − 4 · 6 / 104.
    expect(pollListened([poll], ITEMS)).toBeCloseTo(0.769, 3);
    expect(packListeners([[poll], [order('ABCD')]], ITEMS).weights[0]).toBeCloseTo(0.769, 3);
    expect(pollListened([votes({ A: 60, C: 40 })], ITEMS)).toBeNull();
    expect(pollListened([order('ABCD')], ITEMS)).toBeNull();
    expect(packListeners([[votes({ A: 60, C: 40 })]], ITEMS).weights).toEqual([
      packListeners([[best('A')]], ITEMS).share,
    ]);
  });
});

describe('what may be said', () => {
  const sentences = (all: Parameters<typeof packSentences>[1], items = ITEMS) => packSentences(items, all, all).map((s) => s.words); // prettier-ignore
  const of = (...trials: { trial: TrialDocument; answer: Answer }[]) => ({ trials });

  it('of the checks: counts, the share and its interval', () => {
    const words = sentences([of(order('ABCD')), of(order('ABCD')), of(order('BACD'))])[0];
    expect(words).toContain('2 of 3 put the copy without highs below its original');
    // Density (1 + s)² (1 − s): mean (23/60) / (11/12) = 0.418.
    expect(words).toContain('About 42 % listened');
    expect(words).toContain('the 1 who failed');
    expect(sentences([of(best('C'))])[0]).toContain('counts as half');
    expect(sentences([])).toEqual([]);
  });

  it('of guesses: all together, and the best among so many', () => {
    const right = { A: 'u1', B: 'u3', C: 'u4' };
    const wrong = { A: 'u3', B: 'u4', C: 'u1' };
    const items = ITEMS.filter((i) => i.role !== 'known-worse');
    const words = sentences([of(names(right)), of(names(wrong)), of(names(wrong))], items).join(' ');
    expect(words).toContain('3 of 9 names right');
    // Of three who guess, each has all three right once in six.
    expect(words).toContain(
      'The best guess has 3 of 3 right, once among 3; as many guessers have that or better 0.5 times.',
    );
  });

  it('of votes: the favourite and chance', () => {
    // χ² of 60, 40 against 50, 50: 4, one degree of freedom: 0.0455.
    expect(sentences([of(votes({ A: 60, C: 40 }))]).at(-1)).toBe('100 votes: Unit 1 has 60 (60 %). Voters without any preference divide as unequally 5 times in 100.'); // prettier-ignore
    expect(sentences([of(votes({ A: 52, C: 48 }))]).at(-1)).toContain('no favourite is shown');
    // The copy is no candidate: that nobody votes for it shows no favourite.
    const polled = sentences([of(votes({ A: 51, B: 2, C: 49 }))]);
    expect(polled).toHaveLength(2);
    expect(polled.at(-2)).toContain('100 votes: Unit 1 has 51 (51 %)');
    expect(polled.at(-2)).toContain('no favourite is shown');
    expect(polled.at(-1)).toContain('about 91 % listened');
    expect(sentences([of(votes({ A: 3, C: 1 }))]).at(-1)).toContain('too few');
    expect(sentences([of(votes({ A: 0, C: 0 }))])).toHaveLength(1);
  });

  it('one key for all: code names in their order, the copy by what it is', () => {
    const [key] = packReveal(ITEMS);
    expect(key.trials[0].items.map((i) => `${i.code}: ${i.name}`)).toEqual(['A · Alder: Unit 1', 'B · Birch: copy without highs of Unit 1', 'C · Cedar: Unit 3', 'D · Dogwood: Unit 4']); // prettier-ignore
  });
});

it('the draw gives every clip every code name about as often', () => {
  const counts = new Map<string, number>();
  const DRAWS = 4000;
  for (let i = 0; i < DRAWS; i++)
    drawCodeNames(['w', 'x', 'y', 'z'], `secret ${i}`).forEach((item, at) => counts.set(`${item}${at}`, (counts.get(`${item}${at}`) ?? 0) + 1)); // prettier-ignore
  // χ² with 9 degrees of freedom: 33.7 is passed once in 10,000. Secrets are fixed: it passes or not.
  expect([...counts.values()].reduce((sum, n) => sum + (n - DRAWS / 4) ** 2 / (DRAWS / 4), 0)).toBeLessThan(33.7);
  expect(counts.size).toBe(16);
});

describe('the result of a pack', () => {
  const sitting = (id: string, reliability: number | null, left: string | null = null) => ({ id, test_id: '1', listener_id: id, listener: `L${id}`, about: null, ordinal: 0, key: '', secret: '', same_as: null, headphones: null, finished_at: null, left_out: left, reliability, came_as: '' }); // prettier-ignore
  it('counts the first thing that each said, by what it weighs; who weighs nothing moves nothing', () => {
    const two = [
      { sitting: sitting('1', 0.9), trials: [order('CABD'), points({ A: 10, C: 0 })] },
      { sitting: sitting('2', 0.9), trials: [order('CADB')] },
    ];
    const failing = { sitting: sitting('3', 0), trials: [order('BDAC')] };
    const alone = testResult(TEST, ITEMS, two);
    expect(alone.worths[0].name).toBe('Unit 3');
    expect(testResult(TEST, ITEMS, [...two, failing]).worths).toEqual(alone.worths);
    expect(alone.reveals).toHaveLength(1);
    const light = testResult(
      TEST,
      ITEMS,
      two.map((t) => ({ ...t, sitting: { ...t.sitting, reliability: 0.2 } })),
    );
    expect(Math.abs(light.worths[0].logWorth)).toBeLessThan(Math.abs(alone.worths[0].logWorth));
  });
  it('is told of those who were left out whether people listened, and counts them for nothing else', () => {
    const all = [
      { sitting: sitting('1', 0.9), trials: [order('CABD')] },
      { sitting: sitting('2', 0, 'failed'), trials: [order('BDAC')] },
    ];
    expect(testResult(TEST, ITEMS, all).sentences[0].words).toContain('1 of 2 put the copy');
  });
});
