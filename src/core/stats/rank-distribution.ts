import { selectInPlace } from './order-statistic';

/** Where a unit's place falls over all draws. */
export interface RankSpread {
  readonly mean: number;
  /** 5 % and 95 % points of the place. */
  readonly interval: readonly [number, number];
}

/** Index of the smallest sorted value that at least a share p of the draws does not exceed (type 1 of Hyndman & Fan). */
export const percentIndex = (count: number, p: number): number => Math.max(0, Math.ceil(p * count) - 1);

/**
 * Steps that the range of composites is divided into. A step is far below the scatter of any composite, so that
 * counting gives the places that sorting would give, at a fraction of its cost.
 */
const STEPS = 8_192;
/** Draws that are turned from unit-major to draw-major order together, to walk memory in order both ways. */
const BLOCK = 16;

/**
 * Distribution of each unit's place over all draws, by counting: a draw's composites are counted into steps from the
 * best down, and a unit's place is one more than the units in better steps. Units in one step share the mean of
 * their places.
 *
 * @param drawn - one array of composites per unit, all of one length
 * @returns one entry per unit, in the same order
 */
export function rankDistribution(drawn: readonly Float64Array[]): RankSpread[] {
  if (drawn.length === 0) return [];
  const draws = drawn[0].length;
  return doubledPlaces(drawn, draws).map((places) => {
    let sum = 0;
    for (let d = 0; d < draws; d++) sum += places[d];
    const low = Math.floor(selectInPlace(places, percentIndex(draws, 0.05)) / 2);
    const high = Math.ceil(selectInPlace(places, percentIndex(draws, 0.95)) / 2);
    return { mean: sum / 2 / draws, interval: [low, high] };
  });
}

/** Twice the place of each unit in each draw, so that the mean of two neighbouring places is a whole number as well. */
function doubledPlaces(drawn: readonly Float64Array[], draws: number): Uint32Array[] {
  const units = drawn.length;
  const { highest, scale } = stepScale(drawn);
  const places = drawn.map(() => new Uint32Array(draws));
  const block = new Uint32Array(BLOCK * units);
  const counts = new Uint32Array(STEPS);
  const before = new Uint32Array(STEPS);
  for (let from = 0; from < draws; from += BLOCK) {
    const size = Math.min(BLOCK, draws - from);
    for (let u = 0; u < units; u++) {
      const composites = drawn[u];
      for (let k = 0; k < size; k++) block[k * units + u] = Math.round((highest - composites[from + k]) * scale);
    }
    for (let k = 0; k < size; k++) placeOneDraw(block.subarray(k * units, (k + 1) * units), counts, before);
    for (let u = 0; u < units; u++) {
      const out = places[u];
      for (let k = 0; k < size; k++) out[from + k] = block[k * units + u];
    }
  }
  return places;
}

/** Turns the steps of one draw into twice the places. */
function placeOneDraw(steps: Uint32Array, counts: Uint32Array, before: Uint32Array): void {
  counts.fill(0);
  for (let u = 0; u < steps.length; u++) counts[steps[u]]++;
  let better = 0;
  for (let s = 0; s < STEPS; s++) {
    before[s] = better;
    better += counts[s];
  }
  for (let u = 0; u < steps.length; u++) steps[u] = 2 * before[steps[u]] + counts[steps[u]] + 1;
}

/** Step 0 is the best composite of all draws, the last step the worst. */
function stepScale(drawn: readonly Float64Array[]): { highest: number; scale: number } {
  let lowest = Infinity;
  let highest = -Infinity;
  for (const composites of drawn) {
    for (let d = 0; d < composites.length; d++) {
      if (composites[d] < lowest) lowest = composites[d];
      if (composites[d] > highest) highest = composites[d];
    }
  }
  return { highest, scale: highest > lowest ? (STEPS - 1) / (highest - lowest) : 0 };
}
