import { seededBits, uniform } from './random';
import { ReorderedRanks } from './reordered-ranks';

/** Values that something is held against; null where one was not measured. */
export interface HeldAgainst<Id> {
  readonly id: Id;
  readonly values: readonly (number | null)[];
}

/** What goes best with something, of all that was looked at. */
export interface BestAssociation<Id> {
  readonly id: Id;
  /** Spearman’s rank correlation, −1…1. */
  readonly rho: number;
  /** Things of which both are known. */
  readonly count: number;
  /** How many were looked at. */
  readonly looked: number;
  /** Probability that the best of as many goes as well, either way, where nothing goes with anything. */
  readonly p: number;
  /** All that were looked at, strongest first. */
  readonly all: readonly { readonly id: Id; readonly rho: number; readonly count: number }[];
}

/** With fewer, hardly anything could be shown. */
export const LEAST_ASSOCIATED = 5;
/** Up to so many things every order is gone through. */
const MOST_EXACT = 7;
const DRAWS = 2000;

/**
 * Which of several figures goes best with something, and how easily the best of so many goes as well by chance: by the
 * largest rank correlation over all orders of the things (Westfall & Young’s maxT with one step). Up to seven things the
 * probability is exact, beyond that it is drawn, with 2000 orders.
 *
 * @param of - what is held against them, one value per thing
 * @param against - as long each; those of which fewer than five are known, or that do not vary, are not looked at
 * @param seed - of the drawn orders
 * @returns null where nothing could be looked at
 * @throws RangeError where lengths differ
 * @see Westfall & Young, Resampling-Based Multiple Testing (1993), ch. 2; Spearman, Amer. J. Psychol. 15 (1904); the
 *   count of the drawn orders with the one that was found: Phipson & Smyth, Stat. Appl. Genet. Mol. Biol. 9 (2010)
 */
export function bestAssociation<Id>(
  of: readonly number[],
  against: readonly HeldAgainst<Id>[],
  seed: string,
): BestAssociation<Id> | null {
  if (against.some((a) => a.values.length !== of.length)) throw new RangeError('lists of one length are needed');
  const asTheyStand = of.map((_, i) => i);
  const looked = against.flatMap(({ id, values }) => {
    const known = values.flatMap((value, i) => (value === null ? [] : [{ value, i }]));
    if (known.length < LEAST_ASSOCIATED) return [];
    const ranks = new ReorderedRanks(of, known.map((k) => k.i), known.map((k) => k.value)); // prettier-ignore
    const rho = ranks.correlation(asTheyStand);
    return rho === null ? [] : [{ id, ranks, count: known.length, rho }];
  });
  if (looked.length === 0) return null;
  const all = looked
    .map(({ id, rho, count }) => ({ id, rho, count }))
    .sort((a, b) => Math.abs(b.rho) - Math.abs(a.rho));
  const found = Math.abs(all[0].rho) - 1e-9;
  const isAsGood = (order: readonly number[]): boolean =>
    looked.some(({ ranks }) => Math.abs(ranks.correlation(order) ?? 0) >= found);
  return { ...all[0], looked: looked.length, p: chance(of.length, seed, isAsGood), all };
}

function chance(things: number, seed: string, isAsGood: (order: readonly number[]) => boolean): number {
  const order = Array.from({ length: things }, (_, i) => i);
  if (things <= MOST_EXACT) {
    let [good, all] = [0, 0];
    eachOrder(order, 0, () => {
      all++;
      if (isAsGood(order)) good++;
    });
    return good / all;
  }
  const bits = seededBits(seed);
  let good = 1;
  for (let draw = 0; draw < DRAWS; draw++) {
    for (let i = things - 1; i > 0; i--) {
      const j = Math.floor(uniform(bits) * (i + 1));
      [order[i], order[j]] = [order[j], order[i]];
    }
    if (isAsGood(order)) good++;
  }
  return good / (DRAWS + 1);
}

/** Goes through every order of a list, in place. */
function eachOrder(order: number[], from: number, visit: () => void): void {
  if (from >= order.length - 1) return visit();
  for (let i = from; i < order.length; i++) {
    [order[from], order[i]] = [order[i], order[from]];
    eachOrder(order, from + 1, visit);
    [order[from], order[i]] = [order[i], order[from]];
  }
}
