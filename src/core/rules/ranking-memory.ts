import { standardDeviation } from '../stats/moments';
import { selectInPlace } from '../stats/order-statistic';
import { percentIndex, PlaceDistribution } from '../stats/place-distribution';
import {
  catalogueOfPoints,
  criterionPoints,
  weightOf,
  type CatalogueOfPoints,
  type CriterionPoints,
  type UnitFacts,
} from './criterion-points';
import { CompositeDrawer } from './draw-composites';
import { MOST_POINTS } from './points-curve';
import { probabilityOfBeating, strataOf } from './strata';
import type { Rubric } from './rubric';

/** Settings of the Monte Carlo. */
export interface RankOptions {
  readonly weights?: Rubric['weights'];
  readonly draws?: number;
  readonly seed?: string;
}

/** Where every unit stands, column by column, the best unit first: what goes between threads without being copied twice. */
export interface Standings {
  /** Which of the units it was asked about stands at each place. */
  readonly order: Uint32Array;
  /** 1 = top stratum. */
  readonly stratum: Uint32Array;
  /** Weighted mean of the points, 0…5; a missing criterion counts with the catalogue's mean. */
  readonly composite: Float64Array;
  readonly sd: Float64Array;
  /** 5 % and 95 % points of the composite. */
  readonly composite5: Float64Array;
  readonly composite95: Float64Array;
  /** 5 % and 95 % points of the place. */
  readonly rank5: Float64Array;
  readonly rank95: Float64Array;
  readonly expectedRank: Float64Array;
  /** Probability of beating the unit one place below; 0 for the last. */
  readonly beatsNext: Float64Array;
  /** The catalogue's mean of each criterion, which stands in for missing points. */
  readonly assumed: readonly number[];
}

/** How likely a unit beats another one, or is beaten by it, by the draws of that one. */
interface Compared {
  readonly other: Float64Array;
  readonly probability: number;
}

/** A unit with what was drawn for it. */
interface Drawn {
  readonly id: string;
  readonly facts: UnitFacts;
  /** One per criterion. */
  readonly points: readonly CriterionPoints[];
  readonly drawn: Float64Array;
  readonly sd: number;
  readonly composite90: readonly [number, number];
  /** Against the unit that stood below it the last time, and against the first of its stratum: most stay. */
  beatsNext: Compared | null;
  beatenByFirst: Compared | null;
}

/**
 * A ranking that goes on from the last one: units whose facts are the same objects as before, and whose missing
 * criteria are drawn from the same catalogue, keep their draws. The answer is the same to the last bit as that of a new
 * memory; what is saved is time.
 */
export class RankingMemory {
  private units = new Map<string, Drawn>();
  private readonly places = new PlaceDistribution();
  private order: readonly number[] = [];
  private settings = '';
  private catalogue: readonly CatalogueOfPoints[] = [];

  /**
   * @param units - facts of each unit, ids unique
   * @param rubric - the rules
   * @param options - other weights than the rubric's, number of draws, seed
   */
  rank(units: readonly UnitFacts[], rubric: Rubric, options: RankOptions = {}): Standings {
    const weights = options.weights ?? rubric.weights;
    const draws = options.draws ?? usualDraws(units.length);
    const seed = options.seed ?? 'sediment';
    const settings = JSON.stringify([rubric, weights, draws, seed]);
    if (settings !== this.settings) this.units.clear();
    this.settings = settings;

    const rows = units.map((facts) => {
      const known = this.units.get(facts.id);
      return known?.facts === facts ? known.points : rubric.criteria.map((c) => criterionPoints(c, facts));
    });
    const catalogue = rubric.criteria.map((_, c) => catalogueOfPoints(knownPoints(rows, c), MOST_POINTS));
    const isSameCatalogue = catalogue.map((of, c) => sameCatalogue(this.catalogue.at(c), of));
    this.catalogue = catalogue;
    const shares = normalisedWeights(rubric, weights);
    const drawer = new CompositeDrawer(draws);
    const scratch = new Float64Array(draws);
    const all = units.map((facts, u): Drawn => {
      const points = rows[u];
      const known = this.units.get(facts.id);
      if (known?.points === points && points.every((p, c) => p.points !== null || isSameCatalogue[c])) return known;
      const drawn = drawer.draw(
        points.map((p, c) => ({ points: p, catalogue: catalogue[c], share: shares[c] })),
        `${seed}/${facts.id}`,
      );
      scratch.set(drawn);
      const composite90 = [
        selectInPlace(scratch, percentIndex(draws, 0.05)),
        selectInPlace(scratch, percentIndex(draws, 0.95)),
      ] as const;
      const sd = standardDeviation(drawn);
      return { id: facts.id, facts, points, drawn, sd, composite90, beatsNext: null, beatenByFirst: null };
    });
    this.units = new Map(all.map((unit) => [unit.id, unit]));
    const composites = all.map(({ points }) =>
      points.reduce((sum, p, c) => sum + shares[c] * (p.points ?? catalogue[c].mean), 0),
    );
    return this.standings(all, composites, rubric.stratumProbability);
  }

  /** Points of a unit of the last ranking, one per criterion. */
  pointsOf(id: string): readonly CriterionPoints[] {
    return this.units.get(id)?.points ?? [];
  }

  /** Composites that were drawn for a unit in the last ranking. */
  drawsOf(id: string): Float64Array {
    return this.units.get(id)?.drawn ?? new Float64Array();
  }

  private standings(all: readonly Drawn[], composites: readonly number[], stratumProbability: number): Standings {
    const order = this.inOrder(all, composites);
    const ordered = order.map((u) => all[u]);
    const ranks = this.places.of(ordered);
    const column = (): Float64Array => new Float64Array(ordered.length);
    const standings = {
      order: Uint32Array.from(order),
      stratum: Uint32Array.from(strataOf(ordered, stratumProbability, firstBeats)),
      composite: column(),
      sd: column(),
      composite5: column(),
      composite95: column(),
      rank5: column(),
      rank95: column(),
      expectedRank: column(),
      beatsNext: column(),
      assumed: this.catalogue.map((c) => c.mean),
    };
    for (let at = 0; at < ordered.length; at++) {
      const unit = ordered[at];
      const { mean, interval } = ranks[at];
      standings.composite[at] = composites[order[at]];
      standings.sd[at] = unit.sd;
      standings.composite5[at] = unit.composite90[0];
      standings.composite95[at] = unit.composite90[1];
      standings.rank5[at] = interval[0];
      standings.rank95[at] = interval[1];
      standings.expectedRank[at] = mean;
      standings.beatsNext[at] = at + 1 < ordered.length ? beatsNext(unit, ordered[at + 1]) : 0;
    }
    return standings;
  }

  /**
   * Which unit stands at each place. Sorting goes on from the last order, which is nearly the new one: wherever it
   * begins, no two units are level, and there is one order.
   */
  private inOrder(all: readonly Drawn[], composites: readonly number[]): readonly number[] {
    const before = this.order.length === all.length ? this.order : all.map((_, u) => u);
    this.order = [...before].sort((a, b) => composites[b] - composites[a] || compareIds(all[a].id, all[b].id));
    return this.order;
  }
}

/** Points of a criterion, of the units that have them. */
function knownPoints(rows: readonly (readonly CriterionPoints[])[], criterion: number): number[] {
  const known: number[] = [];
  for (const row of rows) {
    const { points } = row[criterion];
    if (points !== null) known.push(points);
  }
  return known;
}

/** Probability that one unit beats another, from their draws; the last answer stands while both keep theirs. */
function beatsNext(unit: Drawn, next: Drawn): number {
  if (unit.beatsNext?.other !== next.drawn)
    unit.beatsNext = { other: next.drawn, probability: probabilityOfBeating(unit.drawn, next.drawn) };
  return unit.beatsNext.probability;
}

function firstBeats(first: Drawn, unit: Drawn): number {
  if (unit.beatenByFirst?.other !== first.drawn)
    unit.beatenByFirst = { other: first.drawn, probability: probabilityOfBeating(first.drawn, unit.drawn) };
  return unit.beatenByFirst.probability;
}

const compareIds = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);

function sameCatalogue(before: CatalogueOfPoints | undefined, after: CatalogueOfPoints): boolean {
  return before?.known.length === after.known.length && before.known.every((points, i) => points === after.known[i]);
}

/**
 * 1,000 draws put a standard error of 0.9 % on a probability of 90 %. In a large catalogue, where many more pairs are
 * looked at than anyone reads, 500 (1.3 %) keep the page quick.
 */
export const usualDraws = (units: number): number => (units > 1000 ? 500 : 1000);

/** Weights of the criteria as shares of 1. */
export function normalisedWeights(rubric: Rubric, weights: Rubric['weights']): number[] {
  const raw = rubric.criteria.map((c) => Math.max(0, weightOf(weights, c)));
  const total = raw.reduce((s, w) => s + w, 0);
  // All weights at zero would divide by zero; then every criterion counts alike.
  return raw.map((w) => (total > 0 ? w / total : 1 / raw.length));
}
