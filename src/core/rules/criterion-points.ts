import { plusMinus } from '../measure/figure-text';
import type { Bound } from '../measure/measurement';
import { blendedPoints, heardPoints, type HeardFact } from './heard-points';
import { pointsOnCurve, type Knot } from './points-curve';
import { pricePoints, type PricedFacts } from './price-rule';
import type {
  Criterion,
  Feature,
  FeaturesCriterion,
  HeardCriterion,
  MeasuredCriterion,
  Rubric,
  SheetNumberCriterion,
  SheetWordCriterion,
  TableCriterion,
} from './rubric';

/** What a data sheet says, by field, as units are compared by it: numbers in the unit of the field, words, yes or no. */
export type SheetFacts = Readonly<Record<string, number | boolean | readonly string[]>>;
/** Cells of tables by {@link cellKey}. */
export type CellFacts = Readonly<Record<string, number>>;

/** Name of a cell among all cells of a unit. */
export const cellKey = (cell: Pick<TableCriterion, 'protocol' | 'step' | 'row' | 'column'>): string =>
  [cell.protocol, cell.step, cell.row, cell.column].join('/');

/** Facts about one unit, as known on the day in question. */
export interface UnitFacts extends PricedFacts {
  readonly id: string;
  /** Measured figures by quantity; null where it could not be measured. */
  readonly figures: Readonly<Record<string, MeasuredFact>>;
  /** Points given by a person, by criterion. */
  readonly byHand: Readonly<Record<string, { readonly value: number; readonly reason: string | null }>>;
  /** What blind answers say; missing where nothing was heard. */
  readonly heard?: HeardFact | null;
  readonly sheet?: SheetFacts;
  readonly cells?: CellFacts;
}

/** A measured figure, as far as ranking needs it. */
export interface MeasuredFact {
  readonly value: number | null;
  readonly uncertainty: number | null;
  /** What another reading differs by, from repeats in the archive; without it the criterion's own expectation counts. */
  readonly between?: number | null;
  readonly bound: Bound;
  readonly notMeasured: string | null;
  /** Under which other conditions it was measured, and what was done about it; null where there is nothing to say. */
  readonly remark?: string | null;
}

/** How points scatter, as data, so that drawing them is a tight loop. */
export type Scatter =
  | { readonly kind: 'none' }
  /** Normal, in points. */
  | { readonly kind: 'points'; readonly sd: number }
  /** Normal in the unit of the figure, then through the curve; with a limit, half-normal beyond it. */
  | {
      readonly kind: 'figure';
      readonly value: number;
      readonly sd: number;
      /** Sign times deviation of what lies beyond a limit; 0 for an exact figure. */
      readonly beyond: number;
      readonly curve: readonly Knot[];
    };

const NO_SCATTER: Scatter = { kind: 'none' };

/** Points of one unit for one criterion; null points are missing, which is not zero. */
export interface CriterionPoints {
  readonly points: number | null;
  /** Where the points come from, or why there are none. */
  readonly why: string;
  /** How the points scatter when everything is done again. */
  readonly scatter: Scatter;
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
    case 'by-hand':
      return givenPoints(criterion, unit);
    case 'heard':
      return pointsFromListening(criterion, unit);
    case 'price': {
      const verdict = pricePoints(unit, criterion);
      return { points: verdict.points, why: verdict.why, scatter: NO_SCATTER };
    }
    case 'measured':
      return measuredPoints(criterion, unit.figures[criterion.quantity]);
    case 'sheet-number':
      return sheetNumberPoints(criterion, unit.sheet?.[criterion.field]);
    case 'sheet-word':
      return sheetWordPoints(criterion, unit.sheet?.[criterion.field]);
    case 'features':
      return featurePoints(criterion, unit.sheet ?? {});
    case 'table':
      return tablePoints(criterion, unit.cells?.[cellKey(criterion)]);
  }
}

function givenPoints(criterion: { id: string; repeatability: number }, unit: UnitFacts): CriterionPoints {
  const given = unit.byHand[criterion.id];
  if (!given) return { points: null, why: 'no points given yet', scatter: NO_SCATTER };
  const scatter: Scatter = { kind: 'points', sd: criterion.repeatability };
  return { points: given.value, why: given.reason ?? 'given by hand', scatter };
}

/**
 * What was heard and what was given by hand, each by its own certainty; both are said, and what they come to.
 */
function pointsFromListening(criterion: HeardCriterion, unit: UnitFacts): CriterionPoints {
  const fact = unit.heard;
  const heard = heardPoints(criterion, fact ?? undefined);
  const given = unit.byHand[criterion.id];
  if (heard === null || !fact) return givenPoints(criterion, unit);
  const answers = `heard in ${fact.answers} blind answers`;
  if (!given) {
    return {
      points: heard.points,
      why: `${answers} (${plusMinus(heard.sd, 1)})`,
      scatter: { kind: 'figure', value: fact.logWorth, sd: fact.se, beyond: 0, curve: criterion.curve },
    };
  }
  const { points, sd } = blendedPoints(heard, { points: given.value, sd: criterion.repeatability });
  return {
    points,
    why: `${answers} ${heard.points.toFixed(1)} ${plusMinus(heard.sd, 1)}, by hand ${given.value.toFixed(1)} ${plusMinus(criterion.repeatability, 1)}: weighed by their certainty`,
    scatter: { kind: 'points', sd },
  };
}

function measuredPoints(criterion: MeasuredCriterion, fact: MeasuredFact | undefined): CriterionPoints {
  if (!fact) return { points: null, why: 'not measured', scatter: NO_SCATTER };
  const { value, bound } = fact;
  if (value === null) return { points: null, why: fact.notMeasured ?? 'not measured', scatter: NO_SCATTER };
  const { curve } = criterion;
  const sd = Math.hypot(fact.uncertainty ?? 0, fact.between ?? criterion.repeatability);
  const beyond = bound === 'exact' ? 0 : bound === 'at-least' ? BEYOND_LIMIT_SD : -BEYOND_LIMIT_SD;
  return {
    points: pointsOnCurve(curve, value),
    why: [bound === 'exact' ? 'by the curve' : `by the curve, from a limit (${bound.replace('-', ' ')})`, fact.remark]
      .filter(Boolean)
      .join('; '),
    scatter: { kind: 'figure', value, sd, beyond, curve },
  };
}

const NOT_NOTED: CriterionPoints = { points: null, why: 'not noted in the sheet', scatter: NO_SCATTER };

function sheetNumberPoints({ curve }: SheetNumberCriterion, value: SheetFacts[string] | undefined): CriterionPoints {
  if (typeof value !== 'number') return NOT_NOTED;
  return { points: pointsOnCurve(curve, value), why: 'by the curve, from the data sheet', scatter: NO_SCATTER };
}

function sheetWordPoints(criterion: SheetWordCriterion, value: SheetFacts[string] | undefined): CriterionPoints {
  if (value === undefined || typeof value === 'number') return NOT_NOTED;
  const words = typeof value === 'boolean' ? [value ? 'yes' : 'no'] : value;
  const best = words
    .map((word) => ({ word, points: criterion.points[word] ?? criterion.otherwise }))
    .reduce((a, b) => (b.points > a.points ? b : a));
  return { points: best.points, why: `${best.word}, by the data sheet`, scatter: NO_SCATTER };
}

/** Whether a unit has a feature; undefined where its sheet does not say. */
export function hasFeature({ field, is }: Feature, sheet: SheetFacts): boolean | undefined {
  const value = sheet[field];
  if (value === undefined) return undefined;
  if (typeof value === 'boolean') return is === null ? value : undefined;
  if (typeof value === 'number') return is === null ? value > 0 : undefined;
  return is === null ? value.length > 0 : value.includes(is);
}

/**
 * What the sheet does not say may be there or not: the points are the mean of all counts that are possible, and scatter
 * as evenly as they lie.
 */
function featurePoints({ features, curve }: FeaturesCriterion, sheet: SheetFacts): CriterionPoints {
  const has = features.map((f) => hasFeature(f, sheet));
  const [there, unknown] = [has.filter((h) => h === true).length, has.filter((h) => h === undefined).length];
  if (unknown === features.length) return NOT_NOTED;
  const possible = Array.from({ length: unknown + 1 }, (_, more) => pointsOnCurve(curve, there + more));
  const points = possible.reduce((sum, p) => sum + p, 0) / possible.length;
  const sd = Math.sqrt(possible.reduce((sum, p) => sum + (p - points) ** 2, 0) / possible.length);
  return {
    points,
    why: `${there} of ${features.length}${unknown > 0 ? `, ${unknown} not noted` : ''}`,
    scatter: sd > 0 ? { kind: 'points', sd } : NO_SCATTER,
  };
}

function tablePoints({ curve, repeatability }: TableCriterion, value: number | undefined): CriterionPoints {
  if (value === undefined) return { points: null, why: 'this cell of the table is not filled in', scatter: NO_SCATTER };
  return {
    points: pointsOnCurve(curve, value),
    why: 'by the curve, from the table',
    scatter: { kind: 'figure', value, sd: repeatability, beyond: 0, curve },
  };
}

/** What a missing criterion is drawn from: the points that the rest of the catalogue has for it. */
export interface CatalogueOfPoints {
  /** Mean of the known points; the middle of the scale where none is known. */
  readonly mean: number;
  /** The known points, or an even scale where none is known. */
  readonly known: readonly number[];
}

/** Steps of the even scale that stands in for an unknown catalogue. */
const EVEN_STEPS = 100;

/**
 * @param known - points of all units that have them
 * @param most - top of the scale
 */
export function catalogueOfPoints(known: readonly number[], most: number): CatalogueOfPoints {
  const list = known.length > 0 ? known : Array.from({ length: EVEN_STEPS + 1 }, (_, i) => (most * i) / EVEN_STEPS);
  return { mean: list.reduce((s, p) => s + p, 0) / list.length, known: list };
}

/** Weight of a criterion under a set of weights; a criterion that is not named has none. */
export const weightOf = (weights: Rubric['weights'], criterion: Criterion): number => weights[criterion.id] ?? 0;
