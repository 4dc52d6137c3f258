import { describe, expect, it } from 'vitest';
import { AnswerTable, type PairAnswer } from './comparison-answers';

const answer = (a: number, b: number, outcome: PairAnswer['outcome'], change: Partial<PairAnswer> = {}): PairAnswer => ({ a, b, outcome, tiesAllowed: true, weight: 1, ...change }); // prettier-ignore

describe('a table of answers', () => {
  it('counts like answers to one pair together, whichever was heard first', () => {
    const table = new AnswerTable(3);
    table.addPair(answer(2, 1, 1));
    table.addPair(answer(1, 2, 0, { weight: 0.5 }));
    table.addPair(answer(2, 1, 0.5));
    table.addPair(answer(1, 2, 1));
    expect([table.pairA, table.pairB]).toEqual([[1], [2]]);
    expect([table.winsA, table.ties, table.winsB]).toEqual([[1], [1], [1.5]]);
    expect(table.tiesAllowed).toEqual([true]);
    expect(table.hasTies).toBe(true);
  });

  it('keeps every pair apart, and answers that could be none from those that could not', () => {
    const table = new AnswerTable(7);
    for (let a = 0; a < 7; a++) for (let b = a + 1; b < 7; b++) for (const tiesAllowed of [true, false]) table.addPair(answer(a, b, 1, { tiesAllowed })); // prettier-ignore
    expect(table.pairA).toHaveLength(42);
    expect(new Set(table.pairA.map((a, i) => `${a} ${table.pairB[i]} ${table.tiesAllowed[i]}`)).size).toBe(42);
    expect(table.winsA).toEqual(new Array(42).fill(1));
    // Again: nothing new, each counted twice. The first pair of all is no exception.
    for (let a = 0; a < 7; a++) for (let b = a + 1; b < 7; b++) table.addPair(answer(b, a, 0));
    expect(table.pairA).toHaveLength(42);
    expect(table.winsA.filter((w) => w === 2)).toHaveLength(21);
    expect(table.winsA[0]).toBe(2);
    expect(table.hasTies).toBe(false);
  });

  it('keeps each answer by itself, the way round that it was given, where it carries covariates', () => {
    const table = new AnswerTable(2, 2);
    table.addPair(answer(1, 0, 1, { covariates: [0.5, -1] }));
    table.addPair(answer(1, 0, 1));
    expect([table.pairA, table.pairB, table.winsA]).toEqual([
      [1, 1],
      [0, 0],
      [1, 1],
    ]);
    expect(table.pairCovariates).toEqual([0.5, -1, 0, 0]);
  });

  it('lays orders out in turn, with the covariates of each thing; what was not noted is zero', () => {
    const table = new AnswerTable(4, 1);
    table.addOrder({ items: [2, 0, 3], weight: 0.8, covariates: [[1], [2]] });
    table.addOrder({ items: [1, 2], weight: 1 });
    expect(table.orderItems).toEqual([2, 0, 3, 1, 2]);
    expect(table.orderStarts).toEqual([0, 3, 5]);
    expect(table.orderWeights).toEqual([0.8, 1]);
    expect(table.orderCovariates).toEqual([1, 2, 0, 0, 0]);
  });

  it('passes over what says nothing: a thing against itself, an order of one, no weight', () => {
    const table = new AnswerTable(3);
    table.addPair(answer(1, 1, 1));
    for (const weight of [0, -1]) {
      table.addPair(answer(0, 1, 1, { weight }));
      table.addOrder({ items: [0, 1], weight });
    }
    table.addOrder({ items: [0], weight: 1 });
    expect([table.pairA, table.orderItems, table.orderStarts]).toEqual([[], [], [0]]);
  });
});
