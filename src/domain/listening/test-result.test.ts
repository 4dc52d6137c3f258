import { describe, expect, it } from 'vitest';
import { newTestSchema, type Answer, type NewTestDraft, type TrialDocument } from '#contracts/listening';
import type { SittingRow } from './sitting';
import type { ItemRow } from './test-item';
import { revealOf, testResult, type SittingAnswers } from './test-result';

const test = (design: NewTestDraft['design'], change: Partial<NewTestDraft> = {}) =>
  newTestSchema.parse({ name: 'T', design, takes: ['1', '2'], ...change });

const item = (id: string, name: string, role: ItemRow['role'] = 'unit'): ItemRow => ({
  ...{ id, name, role, test_id: '1', ordinal: Number(id), specimen_id: `s${id}`, take_id: id },
  ...{ gain_db: 0, loudness_lufs: -23 },
});
const A = item('1', 'Purser');
const B = item('2', 'Bosun');
const C = item('3', 'Steward');
const WORSE = item('9', 'Purser', 'known-worse');
const UNITS = [A, B, C];

type Given = readonly [TrialDocument, Answer | null];
let number = 0;
const sitting = (listener: string, given: readonly Given[], change: Partial<SittingRow> = {}): SittingAnswers => ({
  sitting: {
    ...{ id: `sitting ${++number}`, test_id: '1', listener_id: `${number}`, listener, about: null, ordinal: 0 },
    ...{ key: '', secret: '', same_as: null, headphones: null, finished_at: null, left_out: null },
    ...{ reliability: null, came_as: null },
    ...change,
  },
  trials: given.map(([trial, answer]) => ({ trial, answer })),
});
const said = (result: ReturnType<typeof testResult>, about: string) =>
  result.sentences.filter((s) => s.about === about).map((s) => s.words);

const pair = (
  first: string,
  second: string,
  preferred: string | null,
  control: 'same' | 'worse' | null = null,
): Given => [
  { kind: 'pair', items: [first, second], control },
  { kind: 'pair', preferred: preferred === null ? null : preferred === first ? 'A' : 'B' },
];
const order = (ids: string[], codes: string[], round = 1, isFinal = false): Given => [
  { kind: 'order', items: ids, round, isFinal },
  { kind: 'order', codes },
];

describe('an ABX test', () => {
  const abx = (rights: number, trials: number): Given[] =>
    Array.from({ length: trials }, (_, i) => [
      { kind: 'abx', items: ['1', '2'], x: '2' },
      { kind: 'abx', x: i < rights ? 'B' : 'A' },
    ]);

  it('says of each listener, and of all together, how often a guesser does as well', () => {
    const result = testResult(test('abx'), [A, B], [sitting('Ash', abx(9, 10)), sitting('Birk', abx(5, 10))]);
    // 11 of 1,024 guessers have 9 or more of 10; 638 have 5 or more; of 20, 14 or more: 60,460 of 1,048,576.
    expect(said(result, 'Ash')[0]).toMatch(
      /^9 of 10 right: a guesser does this once in 100\. The difference was heard/,
    );
    expect(said(result, 'Birk')[0]).toMatch(
      /^5 of 10 right: no difference shown \(a guesser does this 62 times in 100\)/,
    );
    expect(said(result, 'Together')[0]).toMatch(/^14 of 20 right: no difference shown \(a guesser does this 6 times in 100\)/); // prettier-ignore
  });

  it('of one listener alone has no sum, and what was not answered is not counted', () => {
    const open: Given = [{ kind: 'abx', items: ['1', '2'], x: '1' }, null];
    const result = testResult(test('abx'), [A, B], [sitting('Ash', [...abx(5, 5), open])]);
    expect(result.sentences.map((s) => s.about)).toEqual(['Ash']);
    expect(said(result, 'Ash')[0]).toMatch(/^5 of 5 right: a guesser does this 3 times in 100/);
  });

  it('that ends when it goes well is not added up over listeners', () => {
    const both = [sitting('Ash', abx(12, 12)), sitting('Birk', abx(3, 6))];
    const result = testResult(test('abx', { openEnded: true }), [A, B], both);
    expect(result.sentences.map((s) => s.about)).toEqual(['Ash', 'Birk']);
    expect(said(result, 'Ash')[0]).toContain('8 of 8 right: the difference was heard');
    expect(said(result, 'Birk')[0]).toContain('not decided yet');
  });
});

describe('guessed names', () => {
  const named = (names: Record<string, string>): Given => [
    { kind: 'names', items: ['2', '1', '3'] },
    { kind: 'names', names },
  ];
  const ALL = { A: 's2', B: 's1', C: 's3' };

  it('are counted, against what guessing gives', () => {
    const result = testResult(test('names'), UNITS, [
      sitting('Ash', [named(ALL)]),
      sitting('Birk', [named({ A: 's1', B: 's2', C: 's3' })]),
    ]);
    // One of six orders has all three right; four of six have at least one.
    expect(said(result, 'Ash')).toEqual([
      '3 of 3 names right: a guesser has as many or more 17 times in 100. That is no more than guessing gives.',
    ]);
    expect(said(result, 'Birk')[0]).toMatch(/^1 of 3 names right: a guesser has as many or more 67 times in 100/);
    // Four or more in two rounds of three: 1·(1 + 3 + 0) at 3, and 3 pairs of (1, 3), over 36: 7 of 36.
    expect(said(result, 'Together')[0]).toMatch(/^4 of 6 names right: a guesser has as many or more 19 times in 100/);
  });

  it('of one listener have no sum', () => {
    expect(testResult(test('names'), UNITS, [sitting('Ash', [named(ALL)])]).sentences.map((s) => s.about)).toEqual(['Ash']); // prettier-ignore
  });
});

describe('pairs', () => {
  const CIRCLE = [pair('1', '2', '1'), pair('2', '3', '2'), pair('1', '3', '3')];
  const LINE = [pair('1', '2', '1'), pair('2', '3', '2'), pair('3', '1', '1')];

  it('of one listener contradict each other, or do not', () => {
    const result = testResult(test('pairs'), UNITS, [sitting('Ash', LINE), sitting('Birk', CIRCLE)]);
    expect(said(result, 'Ash')).toEqual(['No answer contradicts another.']);
    expect(said(result, 'Birk')[0]).toMatch(/^1 circular triad .* guessing gives 0\.3 on average\. Consistency 0\.00/);
  });

  it('left open say nothing of consistency; of two units there is none', () => {
    const tied = testResult(test('pairs'), UNITS, [sitting('Ash', [...LINE.slice(0, 2), pair('3', '1', null)])]);
    expect(said(tied, 'Ash')).toEqual(['Consistency needs every pair decided; some were left open.']);
    expect(said(testResult(test('pairs'), [A, B], [sitting('Ash', [pair('1', '2', '1')])]), 'Ash')).toEqual([]);
  });

  it('tell whether the clip that is offered first is preferred, from ten on', () => {
    // Each unit first and second alike, the first preferred each time.
    const firsts = (times: number): Given[] =>
      Array.from({ length: times }, (_, i) => (i % 2 === 0 ? pair('1', '2', '1') : pair('2', '1', '2')));
    const of = (given: readonly Given[]) =>
      said(testResult(test('pairs'), [A, B], [sitting('Ash', given)]), 'Together');
    expect(of(firsts(9)).some((w) => w.includes('offered first'))).toBe(false);
    // Twice (½)^10.
    expect(of(firsts(10))[0]).toMatch(/preferred in 10 of 10 decided pairs: chance alone does this 2 times in 1,000\. Order matters/); // prettier-ignore
    const half = [...firsts(5), ...Array.from({ length: 5 }, () => pair('1', '2', '2'))];
    expect(of(half)[0]).toMatch(/preferred in 5 of 10 decided pairs: no effect of the order is shown \(chance alone: practically always\)/); // prettier-ignore
    // A clip against itself counts, one against its copy without highs does not, a tie is no preference.
    const more = [...firsts(8), pair('1', '9', '1', 'worse'), pair('1', '2', null), pair('1', '1', '1', 'same')];
    expect(of([...more, pair('1', '2', '1')])[0]).toContain('in 10 of 10 decided pairs');
  });

  it('tell of each listener what the checks found', () => {
    const others = [pair('1', '2', '1'), pair('2', '1', '1')];
    const of = (check: Given) => said(testResult(test('pairs'), [A, B, WORSE], [sitting('Ash', [...others, check])]), 'Ash'); // prettier-ignore
    expect(of(pair('1', '1', null, 'same'))).toEqual(['Found the same clip twice to be alike.']);
    const equal = (code: string): Given => [{ kind: 'pair', items: ['1', '1'], control: 'same' }, { kind: 'pair', preferred: code }]; // prettier-ignore
    expect(of(equal('A'))[0]).toContain('the one offered first');
    expect(of(equal('B'))[0]).toContain('the one offered second');
    expect(of(pair('9', '1', '1', 'worse'))).toEqual(['Knew the copy without highs from its original.']);
    expect(of(pair('1', '9', '1', 'worse'))).toEqual(['Knew the copy without highs from its original.']);
    expect(of(pair('1', '9', '9', 'worse'))[0]).toMatch(/^Preferred the copy without highs/);
    expect(of(pair('9', '1', null, 'worse'))).toEqual(['Did not tell the copy without highs from its original.']);
    expect(of(pair('9', '1', '9', 'worse'))[0]).toMatch(/^Preferred the copy without highs .* Consider leaving/);
  });
});

describe('agreement', () => {
  it('is that of the orders, the final above the rounds before', () => {
    // Heats of two and a final: both say 1 before 3 before 2.
    const heats = (first: string[]): Given[] => [order(['1', '2'], first), order(['1', '3'], ['A', 'B'], 2, true)];
    const result = testResult(test('heats'), UNITS, [sitting('Ash', heats(['A', 'B'])), sitting('Birk', heats(['A', 'B']))]); // prettier-ignore
    expect(said(result, 'Together')[0]).toMatch(/^2 listeners largely agree \(Kendall's W 1\.00\)/);
  });

  it('needs two who ordered all of them, and who were not left out', () => {
    const whole = [order(['1', '2', '3'], ['A', 'B', 'C'])];
    const part = [order(['1', '2'], ['A', 'B'])];
    const none = 'Agreement needs two listeners who ordered the same things.';
    const of = (...all: SittingAnswers[]) => said(testResult(test('heats'), UNITS, all), 'Together');
    expect(of(sitting('Ash', whole), sitting('Birk', part))).toEqual([none]);
    expect(of(sitting('Ash', whole), sitting('Birk', whole, { left_out: 'deaf that day' }))).toEqual([none]);
    expect(of(sitting('Ash', whole), sitting('Birk', whole))[0]).toContain("Kendall's W 1.00");
    expect(of(sitting('Ash', whole), sitting('Birk', [order(['1', '2', '3'], ['C', 'B', 'A'])]))[0]).toMatch(/hardly agree \(Kendall's W 0\.00\)/); // prettier-ignore
  });

  it('of pairs is that of the wins, a tie half of one, controls none', () => {
    const line = [pair('1', '2', '1'), pair('2', '3', '2'), pair('1', '3', '1'), pair('3', '9', '3', 'worse')];
    // The other: 1 ½, 2 1½, 3 1: W = 12·S/(m²(n³ − n)) with rank sums 4, 3, 5 → S = 2.
    const other = [pair('1', '2', null), pair('2', '3', '2'), pair('1', '3', '3')];
    const result = testResult(test('pairs'), [...UNITS, WORSE], [sitting('Ash', line), sitting('Birk', other)]);
    expect(said(result, 'Together').at(-1)).toContain("Kendall's W 0.25");
  });
});

describe('agreement of ratings and points', () => {
  const rate = (ratings: Record<string, number>): Given => [
    { kind: 'ratings', items: ['1', '2', '3'], reference: '1' },
    { kind: 'ratings', ratings },
  ];
  const points = (given: Record<string, number>): Given => [
    { kind: 'points', items: ['1', '2', '3'] },
    { kind: 'points', points: given },
  ];
  const w = (design: 'ratings' | 'heats', ...all: Given[][]) =>
    said(testResult(test(design), UNITS, all.map((given, i) => sitting(`L${i}`, given))), 'Together').at(-1); // prettier-ignore

  it('is that of their order', () => {
    const [up, down] = [
      { A: 90, B: 95, C: 100 },
      { A: 100, B: 95, C: 90 },
    ];
    expect(w('ratings', [rate(up)], [rate(up)])).toContain("Kendall's W 1.00");
    expect(w('ratings', [rate(up)], [rate(down)])).toContain("Kendall's W 0.00");
  });

  it('takes points where there is no order, and no part of the units', () => {
    const up = { A: 1, B: 2, C: 3 };
    const agreed = (...all: Given[][]) => w('heats', ...all);
    expect(agreed([points(up)], [points(up)])).toContain("Kendall's W 1.00");
    // The order is the fuller answer: points that say the contrary do not undo it.
    expect(agreed([order(['1', '2', '3'], ['C', 'B', 'A']), points({ A: 3, B: 2, C: 1 })], [points(up)])).toContain("Kendall's W 1.00"); // prettier-ignore
    expect(agreed([points({ A: 1, B: 2 })], [points(up)])).toContain('needs two listeners');
  });
});

describe('ratings', () => {
  const REFERENCE = item('4', 'Purser', 'reference');
  const MID = item('5', 'Purser', 'anchor-mid');
  const LOW = item('6', 'Purser', 'anchor-low');
  const ITEMS = [REFERENCE, A, MID, LOW, item('7', 'Sexton', 'yardstick')];
  const rated = (reference: number, unit: number, mid: number, low: number, yardstick = 50): Given => [
    { kind: 'ratings', items: ['4', '1', '5', '6', '7'], reference: '4' },
    { kind: 'ratings', ratings: { A: reference, B: unit, C: mid, D: low, E: yardstick } },
  ];

  it('are summed up best first, each under what it was', () => {
    const result = testResult(test('ratings'), ITEMS, [
      sitting('Ash', [rated(100, 60, 40, 10)]),
      sitting('Birk', [rated(95, 70, 50, 20)]),
      sitting('Cole', [rated(98, 90, 30, 0)]),
    ]);
    expect(result.ratings.map((r) => [r.name, r.role, r.median, r.count])).toEqual([
      ['Purser', 'reference', 98, 3],
      ['Purser', 'unit', 70, 3],
      ['Sexton (yardstick)', 'yardstick', 50, 3],
      ['Purser', 'anchor-mid', 40, 3],
      ['Purser', 'anchor-low', 10, 3],
    ]);
    expect(result.ratings[1].quartiles).toEqual([65, 80]);
    expect(result.ratings[1].median95).toBeNull();
  });

  it('of who rates the hidden reference low, or the 7 kHz anchor high, do not count, with the reason', () => {
    const result = testResult(test('ratings'), ITEMS, [
      sitting('Ash', [rated(100, 60, 40, 10)]),
      sitting('Birk', [rated(89, 10, 40, 10)]),
      sitting('Cole', [rated(100, 10, 91, 10)]),
      sitting('Dune', [rated(90, 70, 90, 10)]),
    ]);
    expect(said(result, 'Birk')).toEqual(['Rated the hidden reference below 90: screened out (ITU-R BS.1534).']);
    expect(said(result, 'Cole')).toEqual(['Rated the 7 kHz anchor above 90: screened out (ITU-R BS.1534).']);
    expect(result.ratings.find((r) => r.role === 'unit')).toMatchObject({ median: 65, count: 2 });
    // What each answered is shown all the same.
    expect(result.reveals.map((reveal) => [reveal.listener, reveal.trials.length])).toEqual([
      ['Ash', 1],
      ['Birk', 1],
      ['Cole', 1],
      ['Dune', 1],
    ]);
  });

  it('of one listener are not screened out for another one of the same name', () => {
    const result = testResult(test('ratings'), ITEMS, [
      sitting('Ash', [rated(100, 60, 40, 10)]),
      sitting('Ash', [rated(50, 10, 40, 10)]),
    ]);
    expect(result.ratings.find((r) => r.role === 'unit')).toMatchObject({ median: 60, count: 1 });
    expect(said(result, 'Ash').filter((w) => w.includes('screened out'))).toHaveLength(1);
  });

  it('tell the reason by which somebody is screened out, not one that is within the limit', () => {
    // One low reference in ten is within the 15 %; two high anchors are not.
    const given = Array.from({ length: 10 }, (_, i) => rated(i === 0 ? 80 : 100, 60, i < 2 ? 95 : 40, 10));
    expect(said(testResult(test('ratings'), ITEMS, [sitting('Ash', given)]), 'Ash')).toEqual([
      'Rated the 7 kHz anchor above 90: screened out (ITU-R BS.1534).',
    ]);
  });

  it('are no part of another design', () => {
    expect(testResult(test('pairs'), UNITS, [sitting('Ash', [pair('1', '2', '1')])]).ratings).toEqual([]);
  });
});

describe('worths of a test', () => {
  const wins = (times: number) => Array.from({ length: times }, () => pair('1', '2', '1'));
  const places = (all: SittingAnswers[], items = [A, B]) =>
    testResult(test('pairs'), items, all).worths.map((w) => [w.id, w.place]);

  it('put the one that was preferred first, and are none without an answer', () => {
    expect(places([sitting('Ash', wins(4))])).toEqual([
      ['s1', 1],
      ['s2', 2],
    ]);
    expect(places([sitting('Ash', [])])).toEqual([]);
    expect(places([sitting('Ash', [[wins(1)[0][0], null]])])).toEqual([]);
  });

  it('weigh what came back from outside by how likely it was listened to', () => {
    const worth = (reliability: number | null) =>
      testResult(test('pairs'), [A, B], [sitting('Ash', wins(6), { reliability }), sitting('Birk', [pair('1', '2', '2')])])
        .worths.find((w) => w.id === 's1')?.logWorth ?? NaN; // prettier-ignore
    expect(worth(null)).toBeGreaterThan(worth(0.3));
    expect(worth(0.3)).toBeGreaterThan(worth(0));
    // With the others of no weight, the one answer is left.
    expect(worth(0)).toBeLessThan(0);
  });

  it('of a pack count the fullest of what one listener sent; elsewhere all of it', () => {
    const both = [order(['1', '2'], ['A', 'B']), order(['1', '2'], ['B', 'A'])];
    const first = (design: 'pack' | 'heats') =>
      testResult({ ...test('heats'), design }, [A, B], [sitting('Ash', both)]).worths[0];
    expect(first('pack')).toMatchObject({ id: 's1', place: 1 });
    expect(first('pack').logWorth).toBeGreaterThan(0.2);
    expect(Math.abs(first('heats').logWorth)).toBeLessThan(1e-6);
  });
});

describe('the key of one sitting', () => {
  const ITEMS = [A, B, item('3', 'Steward', 'yardstick'), WORSE];
  const reveal = (given: Given, change: Partial<SittingRow> = {}) =>
    revealOf(test('pairs'), ITEMS, sitting('Ash', [given], change));
  const shown = (given: Given) => reveal(given).trials.map((t) => [t.items.map((i) => `${i.code} ${i.name}`), t.words]);

  it('names what was behind each letter, best first where it was an order', () => {
    expect(shown(order(['2', '1', '3'], ['C', 'A', 'B'], 2))).toEqual([
      [['C Steward (yardstick)', 'A Bosun', 'B Purser'], 'Round 2, best first.'],
    ]);
    expect(shown(order(['2', '1'], ['B', 'A'], 3, true))[0][1]).toBe('Final, best first.');
    expect(shown(pair('2', '1', '1'))).toEqual([[['A Bosun', 'B Purser'], 'Purser preferred.']]);
    expect(shown(pair('2', '1', null))[0][1]).toBe('Neither.');
    expect(shown(pair('1', '9', '9', 'worse'))[0]).toEqual([
      ['A Purser', 'B copy without highs, of Purser'],
      'copy without highs, of Purser preferred.',
    ]);
  });

  it('says what X was, how many names were right, and where one was put', () => {
    const abx: TrialDocument = { kind: 'abx', items: ['1', '2'], x: '2' };
    expect(shown([abx, { kind: 'abx', x: 'B' }])[0][1]).toBe('X was Bosun; right.');
    expect(shown([abx, { kind: 'abx', x: 'A' }])[0][1]).toBe('X was Bosun; not right.');
    const names: TrialDocument = { kind: 'names', items: ['1', '2'] };
    expect(shown([names, { kind: 'names', names: { A: 's1', B: 's1' } }])[0][1]).toBe('1 of 2 right.');
    const place: TrialDocument = { kind: 'place', items: ['1', '2', '3'], round: 1 };
    expect(shown([place, { kind: 'place', at: 1 }])).toEqual([
      [['A Purser', 'C Steward (yardstick)', 'B Bosun'], 'Steward (yardstick) put into the table, best first.'],
    ]);
  });

  it('has the rating beside each letter, and nothing of what was only listened to or not answered', () => {
    const trial: TrialDocument = { kind: 'ratings', items: ['2', '1'], reference: '1' };
    const { trials } = reveal([trial, { kind: 'ratings', ratings: { A: 40, B: 90 } }]);
    expect(trials[0].items.map((i) => [i.name, i.rating])).toEqual([
      ['Bosun', 40],
      ['Purser', 90],
    ]);
    expect(reveal(pair('1', '2', '1')).trials[0].items.map((i) => i.rating)).toEqual([null, null]);
    expect(reveal([{ kind: 'familiarise', items: ['1'] }, { kind: 'familiarise' }]).trials).toEqual([]);
    expect(reveal([trial, null]).trials).toEqual([]);
  });

  it('says of each what part it has in the test', () => {
    const roles = (given: Given) => reveal(given).trials[0].items.map((i) => i.role);
    expect(roles(order(['2', '9', '3'], ['C', 'A', 'B']))).toEqual(['yardstick', 'unit', 'known-worse']);
  });

  it('tells the listener what is said of them, and of who was left out the reason alone', () => {
    const check = pair('1', '1', null, 'same');
    expect(reveal(check)).toMatchObject({ listener: 'Ash', leftOut: null, sentences: ['Consistency needs every pair decided; some were left open.', 'Found the same clip twice to be alike.'] }); // prettier-ignore
    expect(reveal(check, { left_out: 'a cold' })).toMatchObject({ leftOut: 'a cold', sentences: [] });
  });
});
