import { selectInPlace } from './order-statistic';
import { PlaceTable, SURVEYED } from './place-table';

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
/** Where more units have changed, counting all of them anew is quicker than moving each past the others. */
const MOST_MOVED = 12;
/** Units that may come before a new table is made. */
const ROOM = 100;

/** Has room for nobody. */
const NO_TABLE = new PlaceTable(0, 0);

interface Counted extends DrawnUnit {
  readonly lowest: number;
  readonly highest: number;
  /** Where it stands in the table. */
  row: number;
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
 * It remembers what it counted: where a few units have changed, they are moved past the others instead. The answer is
 * the same to the last bit, whatever was asked before.
 */
export class PlaceDistribution {
  private counted = new Map<string, Counted>();
  /** By their rows in the table. */
  private rows: Counted[] = [];
  private table = NO_TABLE;
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
    const changed: Counted[] = [];
    let added = 0;
    const all = units.map((unit) => {
      const known = this.counted.get(unit.id);
      if (known?.drawn === unit.drawn) return known;
      const fresh = unplaced(unit);
      changed.push(fresh);
      if (!known) added++;
      return fresh;
    });
    const gone = units.length - added === this.counted.size ? [] : this.notAmong(units);
    const scale = scaleOf(all);
    const isSameScale = scale.lowest === this.scale.lowest && scale.highest === this.scale.highest;
    const isFew = changed.length + gone.length <= MOST_MOVED;
    if (isSameScale && isFew && this.counted.size > 0 && units.length <= this.table.room) {
      for (const unit of gone) this.remove(unit);
      for (const unit of changed) this.move(unit);
    } else this.countAll(all, scale);
    return all.map((unit) => (unit.spread ??= this.spreadOf(unit)));
  }

  private notAmong(units: readonly DrawnUnit[]): Counted[] {
    const ids = new Set(units.map((u) => u.id));
    return [...this.counted.values()].filter((c) => !ids.has(c.id));
  }

  /** Puts a unit where it stands now: one that was there before is moved, another one comes in. */
  private move(unit: Counted): void {
    unit.row = this.counted.get(unit.id)?.row ?? this.table.units;
    this.counted.set(unit.id, unit);
    this.rows[unit.row] = unit;
    this.forget(this.table.move(unit.row, (steps) => toSteps(unit, this.scale, steps)));
  }

  private remove(unit: Counted): void {
    this.counted.delete(unit.id);
    this.forget(this.table.remove(unit.row));
    const last = this.rows.pop();
    if (!last || last === unit) return;
    last.row = unit.row;
    this.rows[last.row] = last;
  }

  /** @param moved - for each row whether its places have moved */
  private forget(moved: Uint8Array): void {
    for (let row = 0; row < moved.length; row++) if (moved[row] !== 0) this.rows[row].spread = null;
  }

  private countAll(all: readonly Counted[], scale: StepScale): void {
    this.scale = scale;
    this.counted = new Map(all.map((unit) => [unit.id, unit]));
    this.rows = [...all];
    const draws = this.scratch.length;
    const units = all.length;
    if (this.table.draws !== draws || this.table.room < units) this.table = new PlaceTable(units + ROOM, draws);
    const { table } = this;
    table.units = units;
    const block = new Int32Array(BLOCK * units);
    const counts = new Int32Array(STEPS);
    const steps = all.map((_, row) => table.steps(row));
    const places = all.map((_, row) => table.places(row));
    all.forEach((unit, row) => {
      unit.row = row;
      unit.spread = unit.ends = null;
      toSteps(unit, scale, steps[row]);
    });
    for (let from = 0; from < draws; from += BLOCK) {
      const size = Math.min(BLOCK, draws - from);
      for (let u = 0; u < units; u++) {
        const own = steps[u];
        for (let k = 0; k < size; k++) block[k * units + u] = own[from + k];
      }
      for (let k = 0; k < size; k++) placeOneDraw(block.subarray(k * units, (k + 1) * units), counts);
      for (let u = 0; u < units; u++) {
        const own = places[u];
        for (let k = 0; k < size; k++) own[from + k] = block[k * units + u];
      }
    }
  }

  private spreadOf(unit: Counted): RankSpread {
    const places = this.table.places(unit.row);
    const draws = places.length;
    const [guessedLow, guessedHigh] = unit.ends ?? NO_ENDS;
    const { sum, below } = this.table.survey(unit.row, guessedLow - NEAR, guessedHigh - NEAR);
    const [low, high] = ENDS.map((p, end) => {
      const k = percentIndex(draws, p);
      const from = (end === 0 ? guessedLow : guessedHigh) - NEAR;
      return valueNear(below[end], from, k) ?? this.selected(places, k);
    });
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
/** Where nothing is known from before: no doubled place is as small. */
const NO_ENDS = [-SURVEYED, -SURVEYED] as const;
/** Values on either side of a guess that are looked at: moving past one unit changes a doubled place by 2 at most. */
const NEAR = (SURVEYED - 1) / 2;

/**
 * A value by its index in sorted order, where it lies among those that were looked at; null where it does not.
 *
 * @param below - how many values are below `from`, below the next whole number …
 * @param from - the first whole number that was looked at
 * @param k - 0 for the smallest
 */
function valueNear(below: Int32Array, from: number, k: number): number | null {
  if (k < below[0]) return null;
  for (let at = 1; at < below.length; at++) if (k < below[at]) return from + at - 1;
  return null;
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
  return { id, drawn, lowest, highest, row: -1, spread: null, ends: null };
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
function toSteps({ drawn }: DrawnUnit, { lowest, highest }: StepScale, steps: Uint16Array): void {
  const perUnit = highest > lowest ? (STEPS - 1) / (highest - lowest) : 0;
  for (let d = 0; d < drawn.length; d++) steps[d] = ((highest - drawn[d]) * perUnit + 0.5) | 0;
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
