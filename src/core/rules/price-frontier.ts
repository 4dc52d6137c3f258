import type { UnitFacts } from './criterion-points';
import { pricePoints } from './price-rule';
import { RankingMemory, type RankOptions } from './ranking-memory';
import type { Rubric } from './rubric';

/** A unit by its price and its points. */
export interface PricedUnit {
  readonly id: string;
  readonly price: number;
  readonly composite: number;
  readonly composite90: readonly [number, number];
  /** Whether no unit that costs as much or less has as many points. */
  readonly isOnFrontier: boolean;
  /** Probability of that, everything measured and given again. */
  readonly probability: number;
}

/**
 * Units that no cheaper one equals. What counts is the total without the price, so that a low price does not count
 * twice; the price is the one that the rubric's rule takes.
 *
 * @param units - facts of each unit, ids unique
 * @param rubric - the rules; without a price rule nothing has a price
 * @param options - as of the ranking
 * @returns the cheapest first; units without a price are not in it
 */
export function priceFrontier(units: readonly UnitFacts[], rubric: Rubric, options: RankOptions = {}): PricedUnit[] {
  const rule = rubric.criteria.find((c) => c.kind === 'price');
  if (!rule) return [];
  const weights = { ...(options.weights ?? rubric.weights), [rule.id]: 0 };
  const memory = new RankingMemory();
  const standings = memory.rank(units, rubric, { ...options, weights });
  const places = new Map(Array.from(standings.order, (u, at) => [units[u].id, at]));
  const priced = units
    .flatMap((unit) => {
      const verdict = pricePoints(unit, rule);
      if (verdict.points === null) return [];
      return [{ id: unit.id, price: verdict.total, at: places.get(unit.id) ?? 0, drawn: memory.drawsOf(unit.id) }];
    })
    // Of two at one price the better one comes first: the other has to beat it.
    .sort((a, b) => a.price - b.price || a.at - b.at);
  const draws = priced.at(0)?.drawn.length ?? 0;
  const bestOfCheaper = new Float64Array(draws).fill(-Infinity);
  let best = -Infinity;
  return groupsOfPrice(priced).flatMap((group) => {
    const rivals = topTwo(group.map((u) => u.drawn));
    const means = topTwo(group.map((u) => [standings.composite[u.at]]));
    const rows = group.map(({ id, price, at, drawn }, own): PricedUnit => {
      const composite = standings.composite[at];
      let on = 0;
      for (let d = 0; d < draws; d++) if (drawn[d] > bestOfCheaper[d] && drawn[d] >= rivals.of(own, d)) on++;
      return {
        id,
        price,
        composite,
        composite90: [standings.composite5[at], standings.composite95[at]],
        isOnFrontier: composite > best && composite >= means.of(own, 0),
        probability: on / draws,
      };
    });
    for (let d = 0; d < draws; d++) bestOfCheaper[d] = Math.max(bestOfCheaper[d], rivals.most[d]);
    best = Math.max(best, means.most[0]);
    return rows;
  });
}

/** Of several rows of numbers the highest of each column, without one row: kept as the two highest, so that it is quick. */
function topTwo(rows: readonly ArrayLike<number>[]) {
  const count = rows.at(0)?.length ?? 0;
  const most = new Float64Array(count).fill(-Infinity);
  const second = new Float64Array(count).fill(-Infinity);
  const holder = new Int32Array(count).fill(-1);
  rows.forEach((row, r) => {
    for (let d = 0; d < count; d++) {
      if (row[d] > most[d]) {
        second[d] = most[d];
        most[d] = row[d];
        holder[d] = r;
      } else if (row[d] > second[d]) second[d] = row[d];
    }
  });
  return { most, of: (row: number, d: number): number => (holder[d] === row ? second[d] : most[d]) };
}

/** Units of one price stand side by side: none of them is cheaper. */
function groupsOfPrice<T extends { readonly price: number }>(priced: readonly T[]): T[][] {
  const groups: T[][] = [];
  for (const one of priced) {
    const last = groups.at(-1);
    if (last && last[0].price === one.price) last.push(one);
    else groups.push([one]);
  }
  return groups;
}
