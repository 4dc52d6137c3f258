import { describe, expect, it } from 'vitest';
import { seededBits, uniform } from '#core/stats/random';
import rankHeardTask, { type IndexedAnswer, type RankHeardResult, type RankHeardTask } from './rank-heard';

const UNITS = 12;

/** Answers between units of falling worth; the one heard first has an advantage. */
function answers(count: number, advantage = 0): IndexedAnswer[] {
  const bits = seededBits('answers');
  return Array.from({ length: count }, (_, i): IndexedAnswer => {
    const a = Math.floor(uniform(bits) * UNITS);
    const b = (a + 1 + Math.floor(uniform(bits) * (UNITS - 1))) % UNITS;
    const p = 1 / (1 + Math.exp(0.4 * (a - b) - advantage));
    return {
      id: i + 1,
      items: [a, b],
      outcome: uniform(bits) < p ? 1 : 0,
      tiesAllowed: false,
      weight: 1,
      listener: 1,
      circumstances: [[0, 0, 0], [1, 0, 0]],
    }; // prettier-ignore
  });
}

const task = (list: readonly IndexedAnswer[], change: Partial<RankHeardTask> = {}): RankHeardTask => ({
  key: 'warm',
  units: UNITS,
  answers: list,
  sighted: [],
  stratumProbability: 0.9,
  among: null,
  withEffects: false,
  place: null,
  ...change,
});

function rankHeard(order: RankHeardTask): RankHeardResult {
  const result = rankHeardTask(order);
  if (!result) throw new Error('nothing remembered');
  return result;
}

describe('one scale in a worker', () => {
  it('takes what is new alone, and says where it remembers nothing', () => {
    const all = answers(200);
    const key = 'tail';
    const after = { count: 190, lastId: 190 };
    expect(rankHeardTask(task(all.slice(190), { key, after }))).toBeNull();
    rankHeard(task(all.slice(0, 190), { key }));
    const tail = rankHeard(task(all.slice(190), { key, after }));
    const whole = rankHeard(task(all, { key: 'whole' }));
    tail.items.forEach((item, i) => expect(item.logWorth).toBeCloseTo(whole.items[i].logWorth, 7));
    // It has 200 by now.
    expect(rankHeardTask(task([], { key, after }))).toBeNull();
    expect(rankHeard(task([], { key, after: { count: 200, lastId: 200 } })).items).toEqual(tail.items);
  });

  it('ranks among some of the units, by what all answers tell of them', () => {
    const all = answers(400);
    const whole = rankHeard(task(all));
    const byPlace = whole.items.map((_, i) => i).sort((a, b) => whole.items[a].place - whole.items[b].place);
    // The first, the third and the last, asked for in any order.
    const among = [byPlace[UNITS - 1], byPlace[0], byPlace[2]];
    const some = rankHeard(task(all, { among }));
    expect(among.map((i) => some.items[i].place)).toEqual([3, 1, 2]);
    for (const i of among) {
      expect([some.items[i].logWorth, some.items[i].se]).toEqual([whole.items[i].logWorth, whole.items[i].se]);
      const [least, most] = some.items[i].place90;
      expect(least >= 1 && most <= 3, `${least} to ${most}`).toBe(true);
    }
    expect(some.items[among[1]].stratum).toBe(1);
    // All of them by name are all of them.
    expect(rankHeard(task(all, { among: byPlace })).items).toEqual(whole.items);
    expect(rankHeard(task(all, { among: [] })).items.map((i) => i.logWorth)).toEqual(whole.items.map((i) => i.logWorth)); // prettier-ignore
  });

  it('goes on from where it was, to the same places as from the beginning', () => {
    const all = answers(400);
    rankHeard(task(all.slice(0, 390)));
    const warm = rankHeard(task(all));
    const cold = rankHeard(task(all, { key: 'cold' }));
    warm.items.forEach((item, i) => {
      expect(item.logWorth).toBeCloseTo(cold.items[i].logWorth, 7);
      expect(item.se).toBeCloseTo(cold.items[i].se, 6);
      expect(item.place).toBe(cold.items[i].place);
    });
    expect(warm.iterations).toBeLessThan(cold.iterations);
  });

  it('computes the covariance of a large catalogue whole again after a few quick answers', () => {
    const bits = seededBits('large');
    const units = 320;
    const all = Array.from({ length: 1206 }, (_, i): IndexedAnswer => {
      const a = Math.floor(uniform(bits) * units);
      return { id: i + 1, items: [a, (a + 1 + Math.floor(uniform(bits) * 300)) % units], outcome: 1, tiesAllowed: false, weight: 1, listener: 1, circumstances: [] }; // prettier-ignore
    });
    const place = { unit: 0, opponents: [1, 2, 3], kind: 'pair', goal: { kind: 'half' }, points: null } as const;
    const at = (count: number, key: string): number =>
      rankHeard(task(all.slice(0, count), { key, units, place })).placing?.sdNow ?? NaN;
    at(1200, 'large');
    const apart = (count: number): number => Math.abs(at(count, 'large') - at(count, `whole ${count}`));
    const steps = [1201, 1202, 1203, 1204, 1205, 1206].map(apart);
    // Places of 320: quick ones are near, the sixth is exact.
    for (const step of steps.slice(0, 5)) expect(step).toBeLessThan(5);
    expect(Math.max(...steps.slice(0, 5))).toBeGreaterThan(1e-9);
    expect(steps[5]).toBeLessThan(1e-8);
  });

  it('is as sure as its listeners: the same answers of one are worth less than of twelve', () => {
    const all = answers(400);
    const of = (listeners: number, key: string) => rankHeard(task(all.map((a, i) => ({ ...a, listener: i % listeners })), { key })); // prettier-ignore
    const [one, twelve] = [of(1, 'one'), of(12, 'twelve')];
    expect([one.listeners, twelve.listeners]).toEqual([1, 12]);
    one.items.forEach((item, i) => {
      expect(item.logWorth).toBeCloseTo(twelve.items[i].logWorth, 9);
      expect(item.se).toBeGreaterThan(1.3 * twelve.items[i].se);
    });
    expect(one.tasteSd).toBeCloseTo(0.7, 9);
  });

  it('takes a goal, says how far it is reached, and lets measured points hint at where to begin', () => {
    const opponents = Array.from({ length: UNITS }, (_, i) => i);
    const placed = (change: object) => {
      const place = { unit: UNITS, opponents, kind: 'heat', goal: { kind: 'half' }, points: null, ...change } as const;
      const { placing } = rankHeard(task(answers(300), { key: 'goal', units: UNITS + 1, place }));
      if (!placing) throw new Error('nothing was placed');
      return placing;
    };
    const half = placed({});
    expect(half.standing).toMatchObject({ isSettled: false });
    expect(half.standing.probability).toBeLessThan(0.9);
    expect(half.expected?.median).toBeGreaterThan(0);
    // Held against the last of all, a unit of which nobody knows anything is more likely better.
    const beats = placed({ goal: { kind: 'beats', than: UNITS - 1 } });
    expect(beats.standing).toMatchObject({ answer: 1, border: [UNITS - 1] });
    // Points that fall as the worths do: a unit with the points of the second is hinted at beside it.
    const points = [...opponents.map((i) => 5 - 0.3 * i), 4.7];
    const hinted = placed({ points });
    expect(hinted.hint?.logWorth).toBeGreaterThan(1);
    expect(hinted.standing).toMatchObject({ answer: 1 });
    expect(hinted.standing.probability).toBeGreaterThan(half.standing.probability);
    expect(placed({ points: points.map(() => null) }).hint).toBeNull();
  });

  it('begins anew where answers were taken back or units came in', () => {
    const all = answers(60);
    const before = rankHeard(task(all));
    const less = rankHeard(task(all.slice(0, 40)));
    const fresh = rankHeard(task(all.slice(0, 40), { key: 'fresh' }));
    expect(less.items.map((i) => i.logWorth)).toEqual(fresh.items.map((i) => i.logWorth));
    expect(less.items[0].se).toBeGreaterThan(before.items[0].se);
    expect(rankHeard(task(all, { units: UNITS + 1 })).items).toHaveLength(UNITS + 1);
  });

  it('finds an effect of the order of hearing, and takes matched levels for what they are', () => {
    const { effects } = rankHeard(task(answers(500, 0.8), { key: 'effect', withEffects: true }));
    expect(effects.map((e) => e.name)).toEqual(['order']);
    expect(effects[0].p).toBeLessThan(0.001);
    expect(Math.abs(effects[0].estimate - 0.8)).toBeLessThan(2.5 * effects[0].se);
  });

  it('places a unit that nobody has heard: anywhere, and says what to ask', () => {
    const place = {
      unit: UNITS,
      opponents: Array.from({ length: UNITS }, (_, i) => i),
      kind: 'pair' as const,
      goal: { kind: 'half' } as const,
      points: null,
    };
    const { placing } = rankHeard(task(answers(300), { key: 'place', units: UNITS + 1, place }));
    expect(placing?.place90[0]).toBeLessThanOrEqual(2);
    expect(placing?.place90[1]).toBeGreaterThanOrEqual(UNITS);
    expect(placing?.isSettled).toBe(false);
    // Somebody from the middle, where the answer is most open.
    const asked = placing?.question?.items[1] ?? -1;
    expect(asked).toBeGreaterThan(2);
    expect(asked).toBeLessThan(9);
    expect(placing?.question?.sdAfter).toBeLessThan(placing?.sdNow ?? 0);
    const heat = rankHeard(task(answers(300), { key: 'place', units: UNITS + 1, place: { ...place, kind: 'heat' } }));
    expect(heat.placing?.question?.items).toHaveLength(4);
  });
});
