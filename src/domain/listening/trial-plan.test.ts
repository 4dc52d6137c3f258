import { describe, expect, it } from 'vitest';
import { newTestSchema, type NewTest, type NewTestDraft, type TrialDocument } from '#contracts/listening';
import { codeOf, heardFromAnswer, isRight, itemOfCode, orderOf, type HeardItem } from './heard-from-answer';
import {
  expectedTrials,
  firstTrials,
  followingTrials,
  type AnsweredTrial,
  type PlanItem,
  type Seat,
} from './trial-plan';

const units = (count: number): PlanItem[] =>
  Array.from({ length: count }, (_, i) => ({ id: `${i + 1}`, role: 'unit' }));
const WORSE: PlanItem = { id: '99', role: 'known-worse' };
const seat = (ordinal: number): Seat => ({ ordinal, seed: `own ${ordinal}`, testSeed: 'the test' });
const test = (change: Partial<NewTestDraft>): NewTest =>
  newTestSchema.parse({ name: 'T', design: 'heats', takes: ['1', '2'], ...change });
const of = <K extends TrialDocument['kind']>(trials: readonly TrialDocument[], kind: K) =>
  trials.filter((t): t is Extract<TrialDocument, { kind: K }> => t.kind === kind);

describe('pairs', () => {
  it("ask every pair once, in an order of the listener's own, with one clip twice and one without highs", () => {
    const trials = firstTrials(test({ design: 'pairs' }), [...units(5), WORSE], seat(0));
    const pairs = of(trials, 'pair');
    const asked = pairs.filter((p) => p.control === null).map((p) => [...p.items].sort().join('-'));
    expect(new Set(asked).size).toBe(10);
    expect(asked).toHaveLength(10);
    const same = pairs.filter((p) => p.control === 'same');
    expect(same.map((p) => p.items[0] === p.items[1])).toEqual([true]);
    expect(pairs.filter((p) => p.control === 'worse').map((p) => [...p.items].sort())).toEqual([['1', '99']]);
    const other = of(firstTrials(test({ design: 'pairs' }), [...units(5), WORSE], seat(1)), 'pair');
    expect(other.map((p) => p.items.join())).not.toEqual(pairs.map((p) => p.items.join()));
    expect(firstTrials(test({ design: 'pairs', controls: false }), units(5), seat(0))).toHaveLength(11);
  });

  it('offer each clip first as often as second, over two listeners', () => {
    const firsts = new Map<string, number>();
    for (const ordinal of [0, 1])
      for (const { items, control } of of(firstTrials(test({ design: 'pairs' }), units(6), seat(ordinal)), 'pair'))
        if (control === null) firsts.set(items[0], (firsts.get(items[0]) ?? 0) + 1);
    expect([...firsts.values()]).toEqual(new Array(6).fill(5));
  });
});

describe('heats', () => {
  const settings = test({ heatSize: 3 });
  const items = [...units(7), WORSE];
  const answer = (trial: TrialDocument): AnsweredTrial => ({ trial, order: [...trial.items].sort(), isRight: null });

  it('are the same for all listeners, offered in balanced orders, and end in a final and the checks', () => {
    const first = firstTrials(settings, items, seat(0));
    const heats = of(first, 'order');
    expect(heats.map((h) => h.items.length).sort()).toEqual([2, 2, 3]);
    const others = of(firstTrials(settings, items, seat(1)), 'order');
    expect(others.map((h) => [...h.items].sort().join())).toEqual(heats.map((h) => [...h.items].sort().join()));
    expect(others.map((h) => h.items.join())).not.toEqual(heats.map((h) => h.items.join()));
    expect(expectedTrials(settings, items, first.length)).toBe(1 + 3 + 1 + 2);

    const answered = first.map(answer);
    const final = followingTrials(settings, items, seat(0), answered);
    expect(final).toHaveLength(1);
    expect(final[0]).toMatchObject({ kind: 'order', round: 2, isFinal: true });
    // The winners, and nobody else.
    const winners = heats.map((h) => [...h.items].sort()[0]).sort();
    expect([...final[0].items].sort()).toEqual(winners);
    const checks = followingTrials(settings, items, seat(0), [...answered, ...final.map(answer)]);
    expect(checks.map((c) => c.kind === 'pair' && c.control)).toEqual(['same', 'worse']);
    expect(
      followingTrials(settings, items, seat(0), [...answered, ...final.map(answer), ...checks.map(answer)]),
    ).toEqual([]);
  });

  it('put every unit into every place equally often over as many listeners as there are rows', () => {
    const places = new Map<string, number[]>();
    for (let ordinal = 0; ordinal < 4; ordinal++) {
      const [heat] = of(firstTrials(test({ heatSize: 4 }), units(4), seat(ordinal)), 'order');
      heat.items.forEach((id, place) => places.set(id, [...(places.get(id) ?? []), place]));
    }
    for (const own of places.values()) expect([...own].sort()).toEqual([0, 1, 2, 3]);
  });
});

describe('ABX', () => {
  it('draws X anew for every trial and listener, not in equal halves that could be counted', () => {
    const counts = Array.from({ length: 40 }, (_, i) => of(firstTrials(test({ design: 'abx' }), units(2), seat(i)), 'abx').filter((t) => t.x === '1').length); // prettier-ignore
    const mean = counts.reduce((s, c) => s + c, 0) / 40;
    // Binomial(16, 0.5): 40 listeners have a mean of 8 with a standard error of 0.32.
    expect(Math.abs(mean - 8)).toBeLessThan(1.2);
    expect(new Set(counts).size).toBeGreaterThan(3);
  });

  it('open-ended goes on until it is decided', () => {
    const settings = test({ design: 'abx', openEnded: true });
    const first = firstTrials(settings, units(2), seat(0));
    expect(of(first, 'abx')).toHaveLength(1);
    const done = (rights: boolean[]): AnsweredTrial[] => rights.map((isOk) => ({ trial: of(first, 'abx')[0], order: [], isRight: isOk })); // prettier-ignore
    expect(followingTrials(settings, units(2), seat(0), done([true, true, true]))).toHaveLength(1);
    expect(followingTrials(settings, units(2), seat(0), done(new Array<boolean>(8).fill(true)))).toEqual([]);
    expect(followingTrials(settings, units(2), seat(0), done([false, false, false]))).toEqual([]);
    const wavering = Array.from({ length: 60 }, (_, i) => i % 3 !== 0);
    expect(followingTrials(settings, units(2), seat(0), done(wavering)).length).toBeLessThanOrEqual(1);
  });
});

describe('what an answer tells the scale', () => {
  const items: HeardItem[] = [
    { id: '1', specimenId: 's1', role: 'reference', loudnessLufs: -23 },
    { id: '2', specimenId: 's2', role: 'unit', loudnessLufs: -23.02 },
    { id: '3', specimenId: 's3', role: 'yardstick', loudnessLufs: -22.98 },
    { id: '4', specimenId: 's1', role: 'anchor-low', loudnessLufs: -25 },
  ];

  it('an order as it is, with place of hearing and residual level', () => {
    const trial: TrialDocument = { kind: 'order', items: ['2', '3', '1'], round: 1, isFinal: true };
    const [fact] = heardFromAnswer(test({}), trial, { kind: 'order', codes: ['C', 'A', 'B'] }, items);
    expect(fact).toMatchObject({ specimens: ['s1', 's2', 's3'], outcome: null, weight: 1 });
    expect(fact.circumstances.map(([place]) => place)).toEqual([2, 0, 1]);
    fact.circumstances.forEach(([, level], i) => expect(level).toBeCloseTo([0, -0.02, 0.02][i], 9));
    const sighted = heardFromAnswer(
      test({ sighted: true }),
      trial,
      { kind: 'order', codes: ['C', 'A', 'B'] },
      items,
    )[0];
    expect(sighted.circumstances.map(([, , named]) => named)).toEqual([0, 0, 1]);
  });

  it('a pair as it was offered, ties as ties, controls not at all', () => {
    const pair = (control: 'same' | null): TrialDocument => ({ kind: 'pair', items: ['3', '2'], control });
    const outcome = (preferred: string | null) => heardFromAnswer(test({ design: 'pairs' }), pair(null), { kind: 'pair', preferred }, items)[0]; // prettier-ignore
    expect([outcome('A'), outcome('B'), outcome(null)].map((f) => f.outcome)).toEqual([1, 0, 0.5]);
    expect(outcome('A').specimens).toEqual(['s3', 's2']);
    expect(heardFromAnswer(test({ design: 'pairs' }), pair('same'), { kind: 'pair', preferred: 'A' }, items)).toEqual(
      [],
    );
  });

  it('ratings as an order, or as pairs of the same weight where some are equal; anchors not at all', () => {
    const trial: TrialDocument = { kind: 'ratings', items: ['4', '2', '1', '3'], reference: '1' };
    const rated = (ratings: Record<string, number>) => heardFromAnswer(test({ design: 'ratings' }), trial, { kind: 'ratings', ratings }, items); // prettier-ignore
    expect(rated({ A: 5, B: 60, C: 100, D: 80 }).map((f) => f.specimens)).toEqual([['s1', 's3', 's2']]);
    const tied = rated({ A: 5, B: 80, C: 100, D: 80 });
    expect(tied.map((f) => [f.specimens.join(), f.outcome])).toEqual([['s1,s2', 1], ['s1,s3', 1], ['s2,s3', 0.5]]); // prettier-ignore
    expect(tied.reduce((sum, f) => sum + f.weight, 0)).toBeCloseTo(2, 12);
  });

  it('codes say nothing but the order of the offer', () => {
    const trial: TrialDocument = { kind: 'abx', items: ['7', '8'], x: '8' };
    expect([codeOf(0), codeOf(3), itemOfCode(trial, 'B'), itemOfCode(trial, 'Q')]).toEqual(['A', 'D', '8', null]);
    expect([isRight(trial, { kind: 'abx', x: 'B' }), isRight(trial, { kind: 'abx', x: 'A' })]).toEqual([true, false]);
    expect(orderOf(trial, { kind: 'abx', x: 'A' })).toEqual([]);
  });
});

describe('chance that a listener must not be able to count on', () => {
  const SEATS = Array.from({ length: 200 }, (_, i) => seat(i));
  const pairsOf = (items: PlanItem[], s: Seat) => of(firstTrials(test({ design: 'pairs' }), items, s), 'pair');
  // Binomial(200, ½) has a deviation of 7: 65 to 135 is five of them.
  const isFair = (count: number): boolean => count > 65 && count < 135;

  it('puts the copy without highs first as often as second', () => {
    const first = SEATS.map(
      (s) => pairsOf([...units(4), WORSE], s).find((p) => p.control === 'worse')?.items[0] === '99',
    );
    expect(isFair(first.filter(Boolean).length)).toBe(true);
  });

  it('holds any of the units against itself, never a copy', () => {
    const same = SEATS.map((s) => pairsOf([WORSE, ...units(4)], s).find((p) => p.control === 'same')?.items ?? []);
    expect(same.every(([a, b]) => a === b)).toBe(true);
    expect(new Set(same.map(([a]) => a))).toEqual(new Set(['1', '2', '3', '4']));
  });

  it('puts the checks anywhere but at the beginning, before which nothing was heard', () => {
    const places = SEATS.flatMap((s) =>
      pairsOf([...units(4), WORSE], s).flatMap((p, place) => (p.control === null ? [] : [place])),
    );
    // Six pairs and two checks: every place from the second to the last.
    expect(new Set(places)).toEqual(new Set([1, 2, 3, 4, 5, 6, 7]));
  });

  it('offers X as either clip as often', () => {
    const settings = test({ design: 'abx', openEnded: true });
    const isFirst = SEATS.map((s) => of(firstTrials(settings, units(2), s), 'abx')[0].x === '1');
    expect(isFair(isFirst.filter(Boolean).length)).toBe(true);
  });
});

describe('how long a test is', () => {
  it('begins with eight clips at most, to know what to expect', () => {
    const familiar = (count: number) => of(firstTrials(test({}), units(count), seat(0)), 'familiarise')[0].items.length;
    expect([familiar(3), familiar(8), familiar(12)]).toEqual([3, 8, 8]);
  });

  it('an open-ended one ends after sixty, decided or not', () => {
    const settings = test({ design: 'abx', openEnded: true });
    const [first] = of(firstTrials(settings, units(2), seat(0)), 'abx');
    // Five right of eight lies between guessing and hearing: it is never decided.
    const wavering = (count: number): AnsweredTrial[] =>
      Array.from({ length: count }, (_, i) => ({ trial: first, order: [], isRight: i % 8 < 5 }));
    const next = (count: number) => followingTrials(settings, [...units(2), WORSE], seat(0), wavering(count));
    expect(next(59)).toHaveLength(1);
    expect(of(next(59), 'abx')[0].items).toEqual(['1', '2']);
    expect(next(60)).toEqual([]);
    // What was only listened to is no trial of sixty.
    const familiar: AnsweredTrial = { trial: { kind: 'familiarise', items: ['1', '2'] }, order: [], isRight: null };
    expect(followingTrials(settings, units(2), seat(0), [familiar, ...wavering(59)])).toHaveLength(1);
  });

  it('a fixed one has its trials from the beginning, and nothing follows', () => {
    const settings = test({ design: 'abx', trials: 12 });
    const first = firstTrials(settings, units(2), seat(0));
    expect(of(first, 'abx')).toHaveLength(12);
    const answered = first.map((trial): AnsweredTrial => ({ trial, order: [], isRight: true }));
    expect(followingTrials(settings, units(2), seat(0), answered)).toEqual([]);
    expect(expectedTrials(settings, units(2), first.length)).toBe(13);
  });

  it('heats are counted of the units alone, with the checks that there will be', () => {
    // Four in twos: two heats, a final, one clip against itself, one against its copy; and listening beforehand.
    expect(expectedTrials(test({ heatSize: 2 }), [...units(4), WORSE], 3)).toBe(1 + 3 + 2);
    expect(expectedTrials(test({ heatSize: 2 }), units(4), 3)).toBe(1 + 3 + 1);
    expect(expectedTrials(test({ heatSize: 2, controls: false }), units(4), 3)).toBe(1 + 3);
  });

  it('panels, packs and performances have no trials of a sitting', () => {
    for (const design of ['panel', 'pack', 'performer'] as const)
      expect(firstTrials({ ...test({}), design }, units(4), seat(0)), design).toEqual([]);
  });
});
