import { selectInPlace } from './order-statistic';

/** Where a unit's place falls over all draws. */
export interface RankSpread {
  readonly mean: number;
  /** 5 % and 95 % points of the place. */
  readonly interval: readonly [number, number];
}

/** A unit with its composites, one per draw. */
export interface DrawnUnit {
  readonly id: string;
  /** The same array as the last time where nothing about the unit has changed. */
  readonly drawn: Float64Array;
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
/** Where more units have changed, counting all of them anew is quicker than moving the others past each. */
const MOST_MOVED = 12;
/** Twice a place: that of a unit that stands alone, and what another one that is better adds; so the mean of two neighbouring places is a whole number as well. */
const ALONE = 2;

interface Counted extends DrawnUnit {
  readonly lowest: number;
  readonly highest: number;
  /** Step of each composite, 0 for the best. */
  readonly steps: Uint16Array;
  /** The best and the worst of them. */
  best: number;
  worst: number;
  /** Twice the place in each draw. */
  readonly places: Int32Array;
  spread: RankSpread | null;
  /** The doubled places that the interval was read from: where to look for them after the others have moved. */
  ends: readonly [number, number] | null;
}

/** The range that steps divide. */
interface StepScale {
  readonly lowest: number;
  readonly highest: number;
}

/**
 * Distribution of each unit's place over all draws, by counting: a draw's composites are counted into steps from the
 * best down, and a unit's place is one more than the units in better steps. Units in one step share the mean of their
 * places.
 *
 * It remembers what it counted: where a few units have changed, the others are moved past them instead. The answer is
 * the same to the last bit, whatever was asked before.
 */
export class PlaceDistribution {
  private counted = new Map<string, Counted>();
  private scale: StepScale = { lowest: 0, highest: 0 };
  private scratch = new Int32Array();

  /**
   * @param units - all units, as many draws each; ids unique
   * @returns one entry per unit, in the same order
   */
  of(units: readonly DrawnUnit[]): RankSpread[] {
    if (units.length === 0) return [];
    const draws = units[0].drawn.length;
    if (this.scratch.length !== draws) {
      this.counted.clear();
      this.scratch = new Int32Array(draws);
    }
    const changed = units.filter(({ id, drawn }) => this.counted.get(id)?.drawn !== drawn).map(unplaced);
    const gone = this.notAmong(units);
    const fresh = new Map(changed.map((unit) => [unit.id, unit]));
    const all = units.map(({ id }) => fresh.get(id) ?? (this.counted.get(id) as Counted));
    const scale = scaleOf(all);
    const isSameScale = scale.lowest === this.scale.lowest && scale.highest === this.scale.highest;
    if (isSameScale && changed.length + gone.length <= MOST_MOVED) {
      for (const unit of gone) this.replace(unit, null);
      for (const unit of changed) this.replace(this.counted.get(unit.id) ?? null, unit);
    } else this.countAll(all, scale);
    return all.map((unit) => (unit.spread ??= this.spreadOf(unit)));
  }

  private notAmong(units: readonly DrawnUnit[]): Counted[] {
    const ids = new Set(units.map((u) => u.id));
    return [...this.counted.values()].filter((c) => !ids.has(c.id));
  }

  /** Takes a unit away, puts another in its place, or adds one; the others are moved past it. */
  private replace(before: Counted | null, after: Counted | null): void {
    if (before) this.counted.delete(before.id);
    if (after) toSteps(after, this.scale);
    let ahead = 0;
    for (const other of this.counted.values()) {
      // Most do not overlap: they are better, or worse, in every draw, and were.
      if (after && other.worst < after.best && (!before || other.worst < before.best)) ahead++;
      else if (before && after && after.worst < other.best && before.worst < other.best) continue;
      else if (before && after ? meet(other, before, after) : movePast(other, before, after)) other.spread = null;
    }
    if (!after) return;
    const { places } = after;
    for (let d = 0; d < places.length; d++) places[d] += ALONE * (1 + ahead);
    this.counted.set(after.id, after);
  }

  private countAll(all: readonly Counted[], scale: StepScale): void {
    this.scale = scale;
    this.counted = new Map(all.map((unit) => [unit.id, unit]));
    const draws = this.scratch.length;
    const units = all.length;
    const block = new Int32Array(BLOCK * units);
    const counts = new Int32Array(STEPS);
    for (const unit of all) toSteps(unit, scale);
    for (let from = 0; from < draws; from += BLOCK) {
      const size = Math.min(BLOCK, draws - from);
      for (let u = 0; u < units; u++) {
        const { steps } = all[u];
        for (let k = 0; k < size; k++) block[k * units + u] = steps[from + k];
      }
      for (let k = 0; k < size; k++) placeOneDraw(block.subarray(k * units, (k + 1) * units), counts);
      for (let u = 0; u < units; u++) {
        const { places } = all[u];
        for (let k = 0; k < size; k++) places[from + k] = block[k * units + u];
      }
    }
    for (const unit of all) unit.spread = unit.ends = null;
  }

  private spreadOf(unit: Counted): RankSpread {
    const { places, ends } = unit;
    const draws = places.length;
    let sum = 0;
    for (let d = 0; d < draws; d++) sum += places[d];
    const [low, high] =
      (ends && endsNear(places, ends)) ?? ENDS.map((p) => this.selected(places, percentIndex(draws, p)));
    unit.ends = [low, high];
    return { mean: sum / 2 / draws, interval: [Math.floor(low / 2), Math.ceil(high / 2)] };
  }

  private selected(places: Int32Array, k: number): number {
    this.scratch.set(places);
    return selectInPlace(this.scratch, k);
  }
}

/** Shares of the draws that the interval leaves out below, and holds with what is below. */
const ENDS = [0.05, 0.95];
/** Values on either side of a guess that are looked at: moving past one unit changes a doubled place by 2 at most. */
const NEAR = 2;
const WINDOW = 2 * NEAR + 1;

/**
 * Both ends of the interval where they lie near what they were, in one pass; null where they do not.
 *
 * @param values - doubled places
 * @param guesses - the ends before a little changed
 */
function endsNear(values: Int32Array, guesses: readonly [number, number]): readonly number[] | null {
  const near = new Int32Array(2 * WINDOW);
  const [firstLow, firstHigh] = [guesses[0] - NEAR, guesses[1] - NEAR];
  let belowLow = 0;
  let belowHigh = 0;
  for (let i = 0; i < values.length; i++) {
    const atLow = values[i] - firstLow;
    const atHigh = values[i] - firstHigh;
    belowLow += atLow >>> 31;
    belowHigh += atHigh >>> 31;
    if (atLow >>> 0 < WINDOW) near[atLow]++;
    if (atHigh >>> 0 < WINDOW) near[WINDOW + atHigh]++;
  }
  const found = [belowLow, belowHigh].map((below, end) => {
    const k = percentIndex(values.length, ENDS[end]);
    if (k < below) return null;
    let passed = below;
    for (let at = 0; at < WINDOW; at++) {
      passed += near[end * WINDOW + at];
      if (k < passed) return (end === 0 ? firstLow : firstHigh) + at;
    }
    return null;
  });
  return found[0] === null || found[1] === null ? null : [found[0], found[1]];
}

/**
 * Distribution of each unit's place, where nothing is known from before.
 *
 * @param drawn - one array of composites per unit, all of one length
 * @returns one entry per unit, in the same order
 */
export function rankDistribution(drawn: readonly Float64Array[]): RankSpread[] {
  return new PlaceDistribution().of(drawn.map((composites, i) => ({ id: String(i), drawn: composites })));
}

function unplaced({ id, drawn }: DrawnUnit): Counted {
  let lowest = Infinity;
  let highest = -Infinity;
  for (let d = 0; d < drawn.length; d++) {
    if (drawn[d] < lowest) lowest = drawn[d];
    if (drawn[d] > highest) highest = drawn[d];
  }
  const steps = new Uint16Array(drawn.length);
  return {
    id,
    drawn,
    lowest,
    highest,
    steps,
    best: 0,
    worst: 0,
    places: new Int32Array(drawn.length),
    spread: null,
    ends: null,
  };
}

function scaleOf(units: readonly Counted[]): StepScale {
  let lowest = Infinity;
  let highest = -Infinity;
  for (const unit of units) {
    if (unit.lowest < lowest) lowest = unit.lowest;
    if (unit.highest > highest) highest = unit.highest;
  }
  return { lowest, highest };
}

/** Step 0 is the best composite of all draws, the last step the worst. */
function toSteps(unit: Counted, { lowest, highest }: StepScale): void {
  const { drawn, steps } = unit;
  const perUnit = highest > lowest ? (STEPS - 1) / (highest - lowest) : 0;
  const stepOf = (composite: number): number => ((highest - composite) * perUnit + 0.5) | 0;
  for (let d = 0; d < drawn.length; d++) steps[d] = stepOf(drawn[d]);
  unit.best = stepOf(unit.highest);
  unit.worst = stepOf(unit.lowest);
}

/**
 * What a unit at a step loses by another one: 2 where that is better, 1 where it is level, 0 where it is worse. The sign
 * bits of differences: a branch that goes either way as often would cost ten times as much.
 */
const pushOf = (other: number, mine: number): number => ((other - mine) >>> 31) + ((other - mine - 1) >>> 31);

/** What a unit's places gain (or lose) by another one; whether they moved. */
function pushBy({ steps, places, best, worst }: Counted, other: Counted, sign: 1 | -1): boolean {
  // Most pairs do not overlap: one is better in every draw.
  if (worst < other.best) return false;
  if (other.worst < best) {
    for (let d = 0; d < places.length; d++) places[d] += sign * ALONE;
    return true;
  }
  let moved = 0;
  for (let d = 0; d < steps.length; d++) {
    const push = pushOf(other.steps[d], steps[d]);
    places[d] += sign * push;
    moved |= push;
  }
  return moved !== 0;
}

/** One unit goes, or comes and learns its own places as well; whether those of the other moved. */
function movePast(other: Counted, before: Counted | null, after: Counted | null): boolean {
  if (after) pushBy(after, other, 1);
  return (before !== null && pushBy(other, before, -1)) || (after !== null && pushBy(other, after, 1));
}

/** Another unit was there before and stands elsewhere now: both are counted in one pass, and most places stay. */
function meet({ steps, places }: Counted, before: Counted, after: Counted): boolean {
  let moved = 0;
  for (let d = 0; d < steps.length; d++) {
    const mine = steps[d];
    const push = pushOf(after.steps[d], mine);
    const by = push - pushOf(before.steps[d], mine);
    places[d] += by;
    // What the one loses by the other, the other does not lose by the one.
    after.places[d] += ALONE - push;
    moved |= by;
  }
  return moved !== 0;
}

/** Turns the steps of one draw into twice the places. */
function placeOneDraw(steps: Int32Array, counts: Int32Array): void {
  counts.fill(0);
  for (let u = 0; u < steps.length; u++) counts[steps[u]]++;
  let better = 0;
  for (let s = 0; s < STEPS; s++) {
    const here = counts[s];
    // Twice the units in better steps, and half of those beside it on either side.
    counts[s] = 2 * better + here + 1;
    better += here;
  }
  for (let u = 0; u < steps.length; u++) steps[u] = counts[steps[u]];
}
