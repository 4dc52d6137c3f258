import type { Bound } from '../measure/measurement';
import { uniform, type RandomBits } from '../stats/random';
import { standardNormal } from '../stats/normal';
import { pointsOnCurve } from './points-curve';
import { pricePoints, type DatedPrice } from './price-rule';
import type { Criterion, MeasuredCriterion, Rubric } from './rubric';

/** Facts about one unit, as known on the day in question. */
export interface UnitFacts {
  readonly id: string;
  /** Measured figures by quantity; null where it could not be measured. */
  readonly figures: Readonly<Record<string, MeasuredFact>>;
  /** Points given by a person, by criterion. */
  readonly byHand: Readonly<Record<string, { readonly value: number; readonly reason: string | null }>>;
  readonly prices: readonly DatedPrice[];
}

/** A measured figure, as far as ranking needs it. */
export interface MeasuredFact {
  readonly value: number | null;
  readonly uncertainty: number | null;
  readonly bound: Bound;
  readonly notMeasured: string | null;
}

/** Points of one unit for one criterion; null points are missing, which is not zero. */
export interface CriterionPoints {
  readonly points: number | null;
  /** Where the points come from, or why there are none. */
  readonly why: string;
  /** Draws the points once more within their uncertainty; null where there is none (or no points). */
  readonly draw: ((bits: RandomBits) => number) | null;
}

/** Beyond a limit ("at least"), the true value is drawn this far above it, half-normal, in the unit of the figure. */
const BEYOND_LIMIT_SD = 3;

/**
 * @param criterion - the rule
 * @param unit - what is known of the unit
 * @returns its points, their reason, and how to draw them again
 */
export function criterionPoints(criterion: Criterion, unit: UnitFacts): CriterionPoints {
  switch (criterion.kind) {
    case 'by-hand': {
      const given = unit.byHand[criterion.id];
      if (!given) return { points: null, why: 'no points given yet', draw: null };
      const sd = criterion.repeatability;
      const draw = sd > 0 ? (bits: RandomBits) => given.value + sd * standardNormal(bits) : null;
      return { points: given.value, why: given.reason ?? 'given by hand', draw };
    }
    case 'price': {
      const verdict = pricePoints(unit.prices, criterion);
      return { points: verdict.points, why: verdict.why, draw: null };
    }
    case 'measured':
      return measuredPoints(criterion, unit.figures[criterion.quantity]);
  }
}

function measuredPoints(criterion: MeasuredCriterion, fact: MeasuredFact | undefined): CriterionPoints {
  if (!fact) return { points: null, why: 'not measured', draw: null };
  const { value } = fact;
  if (value === null) return { points: null, why: fact.notMeasured ?? 'not measured', draw: null };
  const { curve } = criterion;
  const sd = Math.hypot(fact.uncertainty ?? 0, criterion.repeatability);
  const beyond = (bits: RandomBits): number =>
    fact.bound === 'exact'
      ? 0
      : (fact.bound === 'at-least' ? 1 : -1) * BEYOND_LIMIT_SD * Math.abs(standardNormal(bits));
  const hasChance = sd > 0 || fact.bound !== 'exact';
  return {
    points: pointsOnCurve(curve, value),
    why: fact.bound === 'exact' ? 'by the curve' : `by the curve, from a limit (${fact.bound.replace('-', ' ')})`,
    draw: hasChance ? (bits) => pointsOnCurve(curve, value + sd * standardNormal(bits) + beyond(bits)) : null,
  };
}

/** What a missing criterion is drawn from: the points that the rest of the catalogue has for it. */
export interface CatalogueOfPoints {
  /** Mean of the known points; the middle of the scale where none is known. */
  readonly mean: number;
  readonly draw: (bits: RandomBits) => number;
}

/**
 * @param known - points of all units that have them
 * @param most - top of the scale
 */
export function catalogueOfPoints(known: readonly number[], most: number): CatalogueOfPoints {
  if (known.length === 0) return { mean: most / 2, draw: (bits) => most * uniform(bits) };
  return {
    mean: known.reduce((s, p) => s + p, 0) / known.length,
    draw: (bits) => known[Math.floor(uniform(bits) * known.length)],
  };
}

/** Weight of a criterion under a set of weights; a criterion that is not named has none. */
export const weightOf = (weights: Rubric['weights'], criterion: Criterion): number => weights[criterion.id] ?? 0;
