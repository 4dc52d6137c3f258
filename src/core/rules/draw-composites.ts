import { fillStandardNormal } from '../stats/normal';
import { SeededWords } from '../stats/random';
import type { CatalogueOfPoints, CriterionPoints } from './criterion-points';
import type { Knot } from './points-curve';

/** One criterion's part of a composite. */
export interface Contribution {
  readonly points: CriterionPoints;
  readonly catalogue: CatalogueOfPoints;
  /** Weight of the criterion, all weights together being 1. */
  readonly share: number;
}

/**
 * Draws a unit's composite many times over: every figure, every point given by hand and every missing criterion anew
 * within its scatter.
 *
 * @param contributions - one per criterion
 * @param draws - how many
 * @param seed - the same seed gives the same draws
 * @returns one composite per draw
 */
export function drawComposites(contributions: readonly Contribution[], draws: number, seed: string): Float64Array {
  const words = new SeededWords(seed);
  const sums = new Float64Array(draws);
  const normal = new Float32Array(draws);
  let fixed = 0;
  let variance = 0;
  for (const { points, catalogue, share } of contributions) {
    if (points.points === null) addFromCatalogue(sums, catalogue.known, share, words);
    else if (points.scatter.kind === 'figure') {
      const { value, sd, beyond, curve } = points.scatter;
      const figures = new Float64Array(draws).fill(value);
      if (sd > 0) addNormal(figures, normal, sd, words);
      if (beyond !== 0) addBeyond(figures, normal, beyond, words);
      addThroughCurve(sums, figures, curve, share);
    } else {
      fixed += share * points.points;
      // Independent normal scatters add up to one: a single draw does for all points given by hand.
      if (points.scatter.kind === 'points') variance += (share * points.scatter.sd) ** 2;
    }
  }
  for (let d = 0; d < draws; d++) sums[d] += fixed;
  if (variance > 0) addNormal(sums, normal, Math.sqrt(variance), words);
  return sums;
}

function addNormal(sums: Float64Array, normal: Float32Array, sd: number, words: SeededWords): void {
  fillStandardNormal(normal, words);
  for (let d = 0; d < sums.length; d++) sums[d] += sd * normal[d];
}

function addBeyond(figures: Float64Array, normal: Float32Array, beyond: number, words: SeededWords): void {
  fillStandardNormal(normal, words);
  for (let d = 0; d < figures.length; d++) figures[d] += beyond * Math.abs(normal[d]);
}

function addFromCatalogue(sums: Float64Array, known: readonly number[], share: number, words: SeededWords): void {
  const points = Float64Array.from(known);
  const drawn = new Uint32Array(sums.length);
  words.fill(drawn);
  for (let d = 0; d < sums.length; d++) sums[d] += share * points[Math.floor((drawn[d] / 2 ** 32) * points.length)];
}

/** As pointsOnCurve, over an array, the knots laid out flat. */
function addThroughCurve(sums: Float64Array, figures: Float64Array, curve: readonly Knot[], share: number): void {
  const xs = Float64Array.from(curve, ([x]) => x);
  const ys = Float64Array.from(curve, ([, points]) => share * points);
  const last = xs.length - 1;
  for (let d = 0; d < sums.length; d++) {
    const x = figures[d];
    if (x <= xs[0]) sums[d] += ys[0];
    else if (x >= xs[last]) sums[d] += ys[last];
    else {
      let i = 1;
      while (xs[i] < x) i++;
      sums[d] += ys[i - 1] + ((x - xs[i - 1]) / (xs[i] - xs[i - 1])) * (ys[i] - ys[i - 1]);
    }
  }
}
