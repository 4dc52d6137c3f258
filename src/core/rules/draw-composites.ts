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
 * Draws composites many times over: every figure, every point given by hand and every missing criterion anew within
 * its scatter. Made once for a ranking, so that its buffers serve all units.
 */
export class CompositeDrawer {
  private readonly figures: Float64Array;
  private readonly normal: Float32Array;
  private readonly words: Uint32Array;

  /** @param draws - how many composites each unit gets */
  constructor(private readonly draws: number) {
    this.figures = new Float64Array(draws);
    this.normal = new Float32Array(draws);
    this.words = new Uint32Array(draws);
  }

  /**
   * @param contributions - one per criterion
   * @param seed - the same seed gives the same draws
   * @returns one composite per draw
   */
  draw(contributions: readonly Contribution[], seed: string): Float64Array {
    const source = new SeededWords(seed);
    const sums = new Float64Array(this.draws);
    let fixed = 0;
    let variance = 0;
    for (const { points, catalogue, share } of contributions) {
      const { scatter } = points;
      if (points.points === null) this.addFromCatalogue(sums, catalogue.known, share, source);
      else if (scatter.kind === 'figure') {
        this.figures.fill(scatter.value);
        if (scatter.sd > 0) this.addNormal(this.figures, scatter.sd, source);
        if (scatter.beyond !== 0) this.addBeyond(scatter.beyond, source);
        addThroughCurve(sums, this.figures, scatter.curve, share);
      } else {
        fixed += share * points.points;
        // Independent normal scatters add up to one: a single draw does for all points given by hand.
        if (scatter.kind === 'points') variance += (share * scatter.sd) ** 2;
      }
    }
    for (let d = 0; d < sums.length; d++) sums[d] += fixed;
    if (variance > 0) this.addNormal(sums, Math.sqrt(variance), source);
    return sums;
  }

  private addNormal(sums: Float64Array, sd: number, source: SeededWords): void {
    const { normal } = this;
    fillStandardNormal(normal, source, this.words);
    for (let d = 0; d < sums.length; d++) sums[d] += sd * normal[d];
  }

  private addBeyond(beyond: number, source: SeededWords): void {
    const { normal, figures } = this;
    fillStandardNormal(normal, source, this.words);
    for (let d = 0; d < figures.length; d++) figures[d] += beyond * Math.abs(normal[d]);
  }

  private addFromCatalogue(sums: Float64Array, known: readonly number[], share: number, source: SeededWords): void {
    const points = Float64Array.from(known);
    source.fill(this.words);
    for (let d = 0; d < sums.length; d++)
      sums[d] += share * points[Math.floor((this.words[d] / 2 ** 32) * points.length)];
  }
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
