import type { QuantityId } from '../measure/registry';
import type { Knot } from './points-curve';

/** What a price can be. */
export const PRICE_KINDS = ['list', 'street', 'sale', 'used', 'paid'] as const;
export type PriceKind = (typeof PRICE_KINDS)[number];

interface CriterionBase {
  readonly id: string;
  readonly name: string;
  /** One sentence for people: what earns points here. */
  readonly meaning: string;
}

/** Points by a curve over a measured figure. */
export interface MeasuredCriterion extends CriterionBase {
  readonly kind: 'measured';
  readonly quantity: QuantityId;
  readonly curve: readonly Knot[];
  /** Standard deviation of repeating the whole take, unit of the figure; joins the figure's own uncertainty. */
  readonly repeatability: number;
}

/** Points given by a person. */
export interface ByHandCriterion extends CriterionBase {
  readonly kind: 'by-hand';
  /** Standard deviation of the same person giving points again. */
  readonly repeatability: number;
}

/** Points by a curve over the price. */
export interface PriceCriterion extends CriterionBase {
  readonly kind: 'price';
  readonly currency: string;
  /** Which kind of price counts; the first that is known. */
  readonly basis: readonly PriceKind[];
  readonly curve: readonly Knot[];
  /** A price above the limit loses points; a sale price at or below it gives them back. Null: no limit. */
  readonly limit: { readonly amount: number; readonly penalty: number } | null;
}

/** Points by a curve over what blind listening says, weighed with points given by hand by the certainty of each. */
export interface HeardCriterion extends CriterionBase {
  readonly kind: 'heard';
  /** Over the log odds of being preferred to the middle unit: 0 as often, 1.1 three times in four, 2.2 nine in ten. */
  readonly curve: readonly Knot[];
  /** Fewer answers do not stand for a unit. */
  readonly leastAnswers: number;
  /** Standard deviation of the same person giving points by hand again. */
  readonly repeatability: number;
}

export type Criterion = MeasuredCriterion | ByHandCriterion | PriceCriterion | HeardCriterion;

/** Whether people give points for it. */
export const isGivenByHand = ({ kind }: Criterion): boolean => kind === 'by-hand' || kind === 'heard';

/** The written rules by which a category is scored: data, versioned, frozen once used. */
export interface Rubric {
  readonly id: string;
  readonly version: number;
  readonly name: string;
  readonly category: string;
  readonly criteria: readonly Criterion[];
  /** Share of each criterion in the composite; they need not add up to anything. */
  readonly weights: Readonly<Record<string, number>>;
  /** A unit opens a new stratum when the first of the stratum above beats it with at least this probability. */
  readonly stratumProbability: number;
}
