import type { QuantityId } from '../measure/registry';
import type { Knot } from './points-curve';

/** What a price can be. */
export const PRICE_KINDS = ['list', 'street', 'sale', 'used', 'paid'] as const;
export type PriceKind = (typeof PRICE_KINDS)[number];

/** Whether the tax of a region is in a price. */
export const TAX_WORDS = ['with', 'without'] as const;
export type TaxWord = (typeof TAX_WORDS)[number];

/** Which of several prices counts. */
export const PRICE_MOMENTS = ['latest', 'at-review', 'cheapest'] as const;
export type PriceMoment = (typeof PRICE_MOMENTS)[number];

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
  /** What each whole point means, from 0 to 5; what nobody has written is empty. */
  readonly words?: readonly string[];
  /** Standard deviation of the same person giving points again. */
  readonly repeatability: number;
}

/** Points by a curve over the price. */
export interface PriceCriterion extends CriterionBase {
  readonly kind: 'price';
  readonly currency: string;
  /** Which kind of price counts; the first that is known. */
  readonly basis: readonly PriceKind[];
  /** Which of them: the latest where nothing is said, the one at the first test, or the cheapest of the newest. */
  readonly moment?: PriceMoment;
  /** Parts without which it cannot be used are paid as well: those of every use, and of the one that is named. */
  readonly parts?: { readonly use: string | null };
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

/** Points by a curve over a number of the data sheet, in the unit that its field is compared in. */
export interface SheetNumberCriterion extends CriterionBase {
  readonly kind: 'sheet-number';
  readonly field: string;
  readonly curve: readonly Knot[];
}

/** Points for what a field of the data sheet says: of several words the best counts. */
export interface SheetWordCriterion extends CriterionBase {
  readonly kind: 'sheet-word';
  readonly field: string;
  readonly points: Readonly<Record<string, number>>;
  /** For any other word. */
  readonly otherwise: number;
}

/** Something that a unit has or has not, by its data sheet. */
export interface Feature {
  readonly field: string;
  /** The word that has to stand there; null: yes, or any number above zero. */
  readonly is: string | null;
}

/** Points by a curve over how many of some features a unit has. */
export interface FeaturesCriterion extends CriterionBase {
  readonly kind: 'features';
  readonly features: readonly Feature[];
  readonly curve: readonly Knot[];
}

/** Points by a curve over a cell of a table that was filled in at a step of a protocol. */
export interface TableCriterion extends CriterionBase {
  readonly kind: 'table';
  readonly protocol: string;
  readonly step: string;
  readonly row: string;
  readonly column: string;
  readonly curve: readonly Knot[];
  /** Standard deviation of filling in again, in the unit of the cell. */
  readonly repeatability: number;
}

export type Criterion =
  | MeasuredCriterion
  | ByHandCriterion
  | PriceCriterion
  | HeardCriterion
  | SheetNumberCriterion
  | SheetWordCriterion
  | FeaturesCriterion
  | TableCriterion;

/** Whether people give points for it. */
export const isGivenByHand = ({ kind }: Criterion): boolean => kind === 'by-hand' || kind === 'heard';

/** Weights of the criteria for one use; a criterion that is not named keeps its usual one. */
export interface RubricUse {
  readonly name: string;
  readonly weights: Readonly<Record<string, number>>;
}

/** How a total is shown. */
export const TOTALS_SHOWN = ['mean', 'sum', 'per-cent'] as const;
export type TotalShown = (typeof TOTALS_SHOWN)[number];

/** The currency that rules count prices in; null where they count none. */
export const countedCurrency = ({ criteria }: Pick<Rubric, 'criteria'>): string | null =>
  criteria.find((c) => c.kind === 'price')?.currency ?? null;

/** When going over from one unit to another is called an upgrade. */
export interface UpgradeRule {
  /** From these probabilities of being better, the price left out, it is said so. */
  readonly clearly: number;
  readonly probably: number;
  /** What it may cost more, in the currency of the price rule; null: whatever it costs. */
  readonly mostMore: number | null;
}

/** Where rules say nothing else. Common practice, no source; the first is that of the strata. */
export const USUAL_UPGRADE: UpgradeRule = { clearly: 0.9, probably: 0.75, mostMore: null };

/** The written rules by which a category is scored: data, versioned, frozen once used. */
export interface Rubric {
  readonly id: string;
  readonly version: number;
  readonly name: string;
  readonly category: string;
  readonly criteria: readonly Criterion[];
  /** Share of each criterion in the composite; they need not add up to anything. */
  readonly weights: Readonly<Record<string, number>>;
  /** Other weights for other uses: singing, on a camera, in the street. */
  readonly uses?: readonly RubricUse[];
  /** How a total is shown; the mean of 5 where nothing is said. */
  readonly total?: TotalShown;
  /** A unit opens a new stratum when the first of the stratum above beats it with at least this probability. */
  readonly stratumProbability: number;
  /** When going over to another unit is called an upgrade; the usual where nothing is said. */
  readonly upgrade?: UpgradeRule;
}
