import { describe, expect, it } from 'vitest';
import { bestAssociation } from '#core/stats/best-association';
import type { WordMeaning } from '#contracts/vocabulary';
import { meaningOf, meaningRefusal, vocabularyOf, wordsOf, type Meanings, type Said } from './collect-words';
import { wordAgainstFigures, wordOfUnits, wordPage as pageOf, type HeardUnitOfWords, type MeasuredQuantity } from './word-page'; // prettier-ignore

const said = (text: string, part: Partial<Said> = {}): Said => ({ text, isFree: true, specimenId: '1', listenerId: 'a', day: '2024-05-01', ...part }); // prettier-ignore
const as = (word: string, other: string): [string, WordMeaning['meaning']] => [word, { kind: 'word', as: other }];
const none = (word: string): [string, WordMeaning['meaning']] => [word, { kind: 'none' }];
const meanings = (...entries: [string, WordMeaning['meaning']][]): Meanings => new Map(entries);

describe('the vocabulary of years', () => {
  it('counts words, listeners and units, with those that count as another, from the first day to the last', () => {
    const all = [
      said('very warm, cosy'),
      said('warmish', { listenerId: 'b', specimenId: '2', day: '2022-01-02' }),
      said('warm', { listenerId: null, day: '2025-07-08' }),
      said('full', { isFree: false, listenerId: 'b' }),
      said('nice one'),
    ];
    const found = vocabularyOf(all, meanings(as('warmish', 'warm'), as('cosy', 'warmish'), none('nice one')));
    expect(found.words).toEqual([
      { word: 'warm', isListed: false, said: 3, listeners: 2, units: 2, first: '2022-01-02', last: '2025-07-08', also: [{ word: 'warmish', said: 1 }] }, // prettier-ignore
      { word: 'full', isListed: true, said: 1, listeners: 1, units: 1, first: '2024-05-01', last: '2024-05-01', also: [] }, // prettier-ignore
    ]);
    expect(found.aside).toEqual([{ word: 'nice one', said: 1 }]);
  });

  it('a word said twice in one breath counts once; a free word that is of the list is of the list', () => {
    expect(wordsOf([said('warm, warmish')], meanings(as('warmish', 'warm')))).toHaveLength(1);
    expect(vocabularyOf([said('Boxy!'), said('boxy', { isFree: false })], meanings()).words).toMatchObject([{ word: 'boxy', isListed: true, said: 2, also: [] }]); // prettier-ignore
  });

  it('meanings lead on, and never in a circle', () => {
    const known = meanings(as('a1', 'b1'), as('b1', 'c1'), none('d1'));
    expect(['a1', 'b1', 'c1', 'd1', 'e1'].map((w) => meaningOf(w, known))).toEqual(['c1', 'c1', 'c1', null, 'e1']);
    const refused = (word: string, meaning: WordMeaning['meaning']) => meaningRefusal({ word, meaning }, known);
    expect(refused('c1', { kind: 'word', as: 'a1' })).toMatch(/"a1" counts as "c1" already/);
    expect(refused('c1', { kind: 'word', as: 'c1' })).toMatch(/counts as itself/);
    expect(refused('c1', { kind: 'word', as: 'd1' })).toMatch(/set aside/);
    expect(refused('boxy', { kind: 'none' })).toMatch(/of the list/);
    expect(refused('boxy', { kind: 'word', as: 'thin' })).toMatch(/of the list/);
    for (const meaning of [{ kind: 'itself' }, { kind: 'none' }, { kind: 'word', as: 'boxy' }] as const) expect(refused('c1', meaning)).toBeNull(); // prettier-ignore
  });
});

/** The page of a word, as the server makes it with a thread between. */
function wordPage(word: string, spoken: ReturnType<typeof wordsOf>, units: readonly HeardUnitOfWords[], quantities: readonly MeasuredQuantity[]) {
  const rows = wordOfUnits(word, spoken, units);
  const { shares, figures } = wordAgainstFigures(rows, quantities);
  return pageOf(word, rows, quantities, bestAssociation(shares, figures, word));
} // prettier-ignore

describe('a word against units and figures', () => {
  const units = Array.from({ length: 8 }, (_, i) => ({ id: String(i + 1), name: `unit ${i + 1}`, heard: 10 }));
  const times = (n: number, id: string): Said[] => Array.from({ length: n }, () => said('honky', { specimenId: id }));
  const spoken = wordsOf(units.flatMap((u, i) => times(i, u.id)), meanings()); // prettier-ignore
  const grows = { id: 'presence', title: 'Presence', values: new Map(units.map((u, i) => [u.id, 3 * i])) };
  const falls = { id: 'noise', title: 'Noise', values: new Map(units.map((u, i) => [u.id, i % 2 === 0 ? -i : i])) };

  it('says of which units, how often of how many, with the interval, those of which it is said most first', () => {
    const page = wordPage('honky', spoken, [...units, { id: '9', name: 'unit 9', heard: 0 }], []);
    expect(page.units.map((u) => u.id)).toEqual(['8', '7', '6', '5', '4', '3', '2']);
    // 7 of 10: Wilson's interval at 90 %, by hand: centre (0.7 + 0.1353) / 1.2706 = 0.6574, half width 0.2157.
    expect(page.units[0]).toMatchObject({ said: 7, heard: 10, share: 0.7 });
    expect(page.units[0].share90?.map((x) => x.toFixed(3))).toEqual(['0.442', '0.873']);
    expect(page.sentence).toMatch(/^No figure can be held against “honky”: that needs 5 units/);
  });

  it('says what goes with it where that is shown, on which side, and that it is no cause', () => {
    const { figure, sentence } = wordPage('honky', spoken, units, [falls, grows]);
    expect(figure).toMatchObject({ quantity: 'presence', rho: 1, count: 8, looked: 2 });
    expect(sentence).toMatch(/^Where “honky” is said more often, presence is higher: Presence goes best .* over 8 units\), and the best of 2 figures/); // prettier-ignore
    const turned = { ...grows, values: new Map(units.map((u, i) => [u.id, -i])) };
    expect(wordPage('honky', spoken, units, [turned]).sentence).toMatch(/presence is lower/);
  });

  it('says that nothing is shown where chance does as well', () => {
    const { sentence, figure } = wordPage('honky', spoken, units, [falls]);
    expect(figure?.p).toBeGreaterThan(0.05);
    // Not shown is not shown, however near it comes.
    const near = { ...grows, values: new Map(['1', '5', '3', '2', '8', '4', '7', '6'].map((id, i) => [id, i])) };
    const almost = wordPage('honky', spoken, units, [near]);
    expect([almost.figure?.p ?? 0, almost.sentence.startsWith('No figure is shown')]).toEqual([expect.closeTo(0.1, 1), true]); // prettier-ignore
    expect(sentence).toMatch(/^No figure is shown to go with “honky”\./);
  });

  it('a word said oftener than answers were given is said of all; without any answer there is no share', () => {
    const many = wordsOf(times(12, '1'), meanings());
    expect(wordPage('honky', many, units, []).units[0]).toMatchObject({ said: 12, share: 1 });
    expect(wordPage('honky', many, [{ ...units[0], heard: 0 }], []).units[0]).toMatchObject({ said: 12, share: null, share90: null }); // prettier-ignore
  });
});
