import { expect, it } from 'vitest';
import type { UnitFacts } from '#core/rules/criterion-points';
import type { Rubric } from '#core/rules/rubric';
import rankUnitsTask, { type RankUnitsTask } from '#worker/tasks/rank-units';
import { KindRanking } from './kind-ranking';

const RUBRIC: Rubric = {
  ...{ id: 'bench', version: 1, name: 'Bench', category: 'microphone' },
  criteria: [{ id: 'build', name: 'Build', meaning: '', kind: 'by-hand', repeatability: 0.2 }],
  weights: { build: 1 },
  stratumProbability: 0.9,
};
const unit = (id: string, value: number | null): UnitFacts => ({
  ...{ id, figures: {}, prices: [] },
  byHand: value === null ? {} : { build: { value, reason: null } },
});

/** A ranking by the very task of the thread, and what the thread was sent. */
function ranking(key: string) {
  const sent: RankUnitsTask[] = [];
  const kind = new KindRanking(key, (task) => {
    sent.push(task);
    return Promise.resolve(rankUnitsTask(task));
  });
  return { kind, sent };
}

it('tells a thread only what it does not know, and answers as one that is told everything', async () => {
  const { kind, sent } = ranking('goes on');
  const [a, b, c] = [unit('1', 2), unit('2', 4), unit('3', null)];
  const lists = {
    'the first time': [a, b],
    'nothing has changed': [a, b],
    'another figure': [unit('1', 4.5), b],
    'one more': [a, b, c],
    'in another order': [c, b, a],
    'one is gone': [c, a],
    'another one in its place': [c, b],
  };
  for (const [what, units] of Object.entries(lists)) {
    const anew = await ranking(`anew: ${what}`).kind.rank(units, RUBRIC);
    expect(await kind.rank(units, RUBRIC), what).toEqual(anew);
  }
  const told = sent.map(({ ids, changed }) => [ids, changed.map((u) => u.id)]);
  expect(told).toEqual([
    [
      ['1', '2'],
      ['1', '2'],
    ],
    [null, []],
    [null, ['1']],
    [
      ['1', '2', '3'],
      ['1', '3'],
    ],
    [['3', '2', '1'], []],
    [['3', '1'], []],
    [['3', '2'], ['2']],
  ]);
});

it('tells everything to a thread that does not remember', async () => {
  const { kind, sent } = ranking('forgets');
  const units = [unit('1', 2), unit('2', 4)];
  const first = await kind.rank(units, RUBRIC);
  // Somebody else has the thread rank under the same name.
  await ranking('forgets').kind.rank([unit('9', 1)], RUBRIC);
  expect(await kind.rank(units, RUBRIC)).toEqual(first);
  expect(sent.map(({ ids, changed, after }) => [ids, changed.length, after === null])).toEqual([
    [['1', '2'], 2, true],
    [null, 0, false],
    [['1', '2'], 2, true],
  ]);
});

it('keeps what it handed out: points of a unit that changed later are those of then', async () => {
  const { kind } = ranking('handed out');
  const before = await kind.rank([unit('1', 2)], RUBRIC);
  await kind.rank([unit('1', 5)], RUBRIC);
  expect(before.points.get('1')).toEqual([2]);
});

it('says where each stands, best first, and how surely it stands above the next', async () => {
  const { kind } = ranking('standings');
  const { standings, points, rubric } = await kind.rank([unit('1', 2), unit('2', 4), unit('3', null)], RUBRIC);
  expect(standings.map(({ id, place, stratum, composite }) => [id, place, stratum, composite])).toEqual([
    ['2', 1, 1, 4],
    ['3', 2, 1, 3],
    ['1', 3, 2, 2],
  ]);
  expect([standings[0].rank90[0], standings[2].rank90[1], standings[2].beatsNext]).toEqual([1, 3, null]);
  expect(standings[0].beatsNext).toBeGreaterThan(0.5);
  expect(standings[1].sd).toBeGreaterThan(standings[0].sd);
  expect([...points]).toEqual([
    ['1', [2]],
    ['2', [4]],
    ['3', [null]],
  ]);
  expect(rubric).toBe(RUBRIC);
});

it('does not go on from nothing', async () => {
  const kind = new KindRanking('nothing', () => Promise.resolve(null));
  await expect(kind.rank([unit('1', 2)], RUBRIC)).rejects.toThrow('ranked nothing of nothing');
});
