import type { AnswerTable } from './comparison-answers';

/** Two things whose comparison alone holds two parts of the catalogue together. */
export interface Bridge {
  readonly a: number;
  readonly b: number;
}

/** Which things were compared, directly or by way of others. */
export interface ComparisonGraph {
  /** Number of the component of each thing, from 0 in the order of first appearance. */
  readonly component: Int32Array;
  readonly components: number;
  /** Comparisons without which a component would fall into two. */
  readonly bridges: readonly Bridge[];
}

/** Calls for every two things that met in an answer, with what each answer says of both. */
function eachMeeting(answers: AnswerTable, meet: (a: number, b: number, aWon: boolean, bWon: boolean) => void): void {
  const { pairA, pairB, winsA, winsB, ties, orderStarts, orderItems } = answers;
  for (let e = 0; e < pairA.length; e++) meet(pairA[e], pairB[e], winsA[e] + ties[e] > 0, winsB[e] + ties[e] > 0);
  for (let o = 0; o + 1 < orderStarts.length; o++)
    for (let i = orderStarts[o]; i < orderStarts[o + 1]; i++)
      for (let j = i + 1; j < orderStarts[o + 1]; j++) meet(orderItems[i], orderItems[j], true, false);
}

function neighbours(answers: AnswerTable): number[][] {
  const sets = Array.from({ length: answers.items }, () => new Set<number>());
  eachMeeting(answers, (a, b) => {
    sets[a].add(b);
    sets[b].add(a);
  });
  return sets.map((set) => [...set]);
}

/**
 * Components of the graph of comparisons, and its bridges.
 *
 * @param answers - pairs and orders
 * @see Tarjan, A note on finding the bridges of a graph, Inf. Proc. Letters 2 (1974)
 */
export function comparisonGraph(answers: AnswerTable): ComparisonGraph {
  const near = neighbours(answers);
  const n = answers.items;
  const component = new Int32Array(n).fill(-1);
  const found = new Int32Array(n).fill(-1);
  const low = new Int32Array(n);
  const next = new Int32Array(n);
  const bridges: Bridge[] = [];
  let clock = 0;
  let components = 0;
  for (let root = 0; root < n; root++) {
    if (found[root] >= 0) continue;
    const stack = [{ at: root, from: -1 }];
    found[root] = low[root] = clock++;
    component[root] = components;
    while (stack.length > 0) {
      const { at, from } = stack[stack.length - 1];
      if (next[at] < near[at].length) {
        const to = near[at][next[at]++];
        if (found[to] < 0) {
          found[to] = low[to] = clock++;
          component[to] = components;
          stack.push({ at: to, from: at });
        } else if (to !== from) low[at] = Math.min(low[at], found[to]);
      } else {
        stack.pop();
        if (from >= 0) {
          low[from] = Math.min(low[from], low[at]);
          if (low[at] > found[from]) bridges.push({ a: Math.min(from, at), b: Math.max(from, at) });
        }
      }
    }
    components++;
  }
  return { component, components, bridges };
}

/**
 * Whether plain maximum likelihood has a finite answer: from every thing a chain of wins (or ties) must lead to every
 * other.
 *
 * @param answers - pairs and orders
 * @returns null where it has; otherwise the things that nothing outside them ever beat
 * @see Ford, Solution of a ranking problem from binary comparisons, Amer. Math. Monthly 64 (1957)
 */
export function unbeaten(answers: AnswerTable): number[] | null {
  const wins: Set<number>[] = Array.from({ length: answers.items }, () => new Set());
  const losses: Set<number>[] = Array.from({ length: answers.items }, () => new Set());
  eachMeeting(answers, (a, b, aWon, bWon) => {
    if (aWon) {
      wins[a].add(b);
      losses[b].add(a);
    }
    if (bWon) {
      wins[b].add(a);
      losses[a].add(b);
    }
  });
  if (answers.items === 0) return null;
  const below = reach(wins, 0);
  const above = reach(losses, 0);
  if (below.size === answers.items && above.size === answers.items) return null;
  const outside = answers.items - above.size;
  // Nothing in `above` was beaten by anything outside it; where that is everything, look the other way.
  return outside > 0 ? [...above] : Array.from({ length: answers.items }, (_, i) => i).filter((i) => !below.has(i));
}

function reach(edges: readonly ReadonlySet<number>[], from: number): Set<number> {
  const seen = new Set([from]);
  const open = [from];
  for (let at = open.pop(); at !== undefined; at = open.pop())
    for (const to of edges[at])
      if (!seen.has(to)) {
        seen.add(to);
        open.push(to);
      }
  return seen;
}
