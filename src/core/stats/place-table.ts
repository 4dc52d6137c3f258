import { kernelInstance, type KernelExports } from '../dsp/kernel-instance';
import { PLACE_MOVES_KERNEL } from './place-moves-kernel';

/** kernels/place-moves.ts. */
interface PlaceMovesKernel extends KernelExports {
  readonly NEXT: { readonly value: number };
  readonly STEPS: { readonly value: number };
  readonly PLACES: { readonly value: number };
  readonly COUNTS: { readonly value: number };
  readonly MOVED: { readonly value: number };
  plan(units: number, draws: number): void;
  move(unit: number, units: number): void;
  survey(unit: number, low: number, high: number): void;
}

/** Whole numbers in a row that a survey counts values at. */
export const SURVEYED = 5;

/** What a unit's doubled places are. */
export interface PlaceSurvey {
  readonly sum: number;
  /** How many are below the first whole number of each window, below the second one …, and below what follows its last. */
  readonly below: readonly [Int32Array, Int32Array];
}

/** Two windows, and the sum. */
const COUNTED = 2 * (SURVEYED + 1) + 1;
/** Worse than any step: where a unit stands that is not there. */
const ABSENT = 0x7fff;
/** Twice a place: that of a unit that stands alone, and what another one that is better adds; so the mean of two neighbouring places is a whole number as well. */
const ALONE = 2;

/**
 * Steps and doubled places of units, draw by draw, in rows that are counted from 0 on. Units come, go, or move to other
 * steps; the places of all others follow. The work is done by kernels/place-moves.ts, compiled to WebAssembly.
 */
export class PlaceTable {
  /** Units that are there. */
  units = 0;
  private readonly kernel: PlaceMovesKernel = kernelInstance(PLACE_MOVES_KERNEL);
  /** Draws of a row, padded. */
  private readonly width: number;
  private readonly next: Uint16Array;
  /** What the kernel counts: each window, and the sum. */
  private readonly below: PlaceSurvey['below'];
  private readonly sum: Int32Array;

  /**
   * @param room - most units
   * @param draws - of each
   */
  constructor(
    readonly room: number,
    readonly draws: number,
  ) {
    this.width = 8 * Math.ceil(draws / 8);
    this.kernel.plan(room, this.width);
    this.next = new Uint16Array(this.kernel.memory.buffer, this.kernel.NEXT.value, draws);
    const counts = new Int32Array(this.kernel.memory.buffer, this.kernel.COUNTS.value, COUNTED);
    const each = SURVEYED + 1;
    this.below = [counts.subarray(0, each), counts.subarray(each, 2 * each)];
    this.sum = counts.subarray(2 * each);
  }

  /** Step of a unit in each draw, 0 for the best, below 32,767; a view. */
  steps(unit: number): Uint16Array {
    return new Uint16Array(this.kernel.memory.buffer, this.kernel.STEPS.value + 2 * this.width * unit, this.draws);
  }

  /** Twice the place of a unit in each draw; a view. */
  places(unit: number): Int32Array {
    return new Int32Array(this.kernel.memory.buffer, this.kernel.PLACES.value + 4 * this.width * unit, this.draws);
  }

  /**
   * Moves a unit.
   *
   * @param unit - its row; one beyond the last is new
   * @param toSteps - fills in its steps
   * @returns for each unit whether its places moved (not for the unit itself); a view that the next call overwrites
   */
  move(unit: number, toSteps: (steps: Uint16Array) => void): Uint8Array {
    if (unit === this.units) {
      this.steps(unit).fill(ABSENT);
      this.places(unit).fill(ALONE * (1 + this.units));
      this.units++;
    }
    toSteps(this.next);
    this.kernel.move(unit, this.units);
    return new Uint8Array(this.kernel.memory.buffer, this.kernel.MOVED.value, this.units);
  }

  /**
   * Surveys the doubled places of a unit.
   *
   * @param unit - its row
   * @param low - first of the {@link SURVEYED} whole numbers of one window
   * @param high - of the other one
   * @returns views that the next call overwrites
   */
  survey(unit: number, low: number, high: number): PlaceSurvey {
    this.kernel.survey(unit, low, high);
    const { sum, below } = this;
    // What pads the rows is 0, and was counted wherever that is below.
    const padding = this.width - this.draws;
    for (let k = 0; k <= SURVEYED; k++) {
      if (low + k > 0) below[0][k] -= padding;
      if (high + k > 0) below[1][k] -= padding;
    }
    return { sum: sum[0], below };
  }

  /**
   * Takes a unit away; the last one gets its row.
   *
   * @returns as {@link move}, by the rows that were before
   */
  remove(unit: number): Uint8Array {
    const moved = this.move(unit, (steps) => steps.fill(ABSENT));
    const last = this.units - 1;
    this.steps(unit).set(this.steps(last));
    this.places(unit).set(this.places(last));
    this.units--;
    return moved;
  }
}
