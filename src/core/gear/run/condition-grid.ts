import type { Measurement } from '../../measure/measurement';
import { quantity, type QuantityId } from '../../measure/registry';
import {
  CONDITION_FACTORS,
  conditionsOf,
  takesIn,
  type ConditionFactor,
  type TakeCondition,
} from '../../rules/take-conditions';
import { analysisOfVariance } from '../../stats/analysis-of-variance';
import { mean } from '../../stats/moments';
import type { AnalysedTake, RunFigures } from './analysed-take';
import { distinctReadings, repeatsOf, withRepeats, type NotedTake } from './repeated-figures';

/** One figure of one condition; null where it was not measured there. */
export interface GridCell {
  readonly value: number;
  readonly uncertainty: number | null;
  /** Takes that differ which it is the mean of. */
  readonly repeats: number;
}

/** How much a figure depends on one of the things that were varied. */
export interface ConditionEffect {
  readonly factor: ConditionFactor;
  readonly lowest: { readonly of: string; readonly value: number };
  readonly highest: { readonly of: string; readonly value: number };
  /** Whether the difference is larger than repeats explain; null where nothing was repeated. */
  readonly p: number | null;
}

/** A figure over all conditions of a run. */
export interface GridRow {
  readonly quantity: QuantityId;
  readonly cells: readonly (GridCell | null)[];
  /** Number of the best condition, from 0; null where the best two are not told apart, or none is better. */
  readonly best: number | null;
  readonly effects: readonly ConditionEffect[];
}

/** One unit in several conditions: voices, places, mounts. */
export interface ConditionGrid {
  readonly conditions: readonly TakeCondition[];
  readonly rows: readonly GridRow[];
}

/** Two uncertainties apart, two figures are taken to differ. */
const TOLD_APART = 2;

/** The figures of a run: of the condition that counts, and of all that there are. */
export interface ConditionedFigures<T> {
  /** Of the condition that was recorded first, with its repeats. */
  readonly figures: RunFigures;
  /** The takes that these were read from. */
  readonly counting: readonly T[];
  readonly grid: ConditionGrid | null;
}

/**
 * Figures of a run whose takes were made in one condition or in several, once or repeatedly. What counts for the unit
 * is the condition that was recorded first; the others stand beside it.
 *
 * @param takes - of the unit alone, in order
 * @param read - figures of some of these takes
 */
export function figuresByCondition<T extends NotedTake>(
  takes: readonly T[],
  read: (takes: readonly AnalysedTake[]) => RunFigures,
): ConditionedFigures<T> {
  const conditions = conditionsOf(takes);
  const read1 = (some: readonly T[]): RunFigures => read(some.map((t) => t.analysed));
  if (conditions.length < 2) {
    const { figures } = readRepeats(takes, read1);
    return { figures, counting: takes, grid: null };
  }
  const all = conditions.map((condition) => {
    const own = takesIn(takes, condition);
    return { own, ...readRepeats(own, read1) };
  });
  return {
    figures: all[0].figures,
    counting: all[0].own,
    grid: gridOf(conditions, all),
  };
}

interface RepeatedReading {
  readonly figures: RunFigures;
  readonly passes: readonly (readonly Measurement[])[];
}

function readRepeats<T extends NotedTake>(
  takes: readonly T[],
  read: (takes: readonly T[]) => RunFigures,
): RepeatedReading {
  const figures = read(takes);
  const repeats = repeatsOf(takes);
  const passes = repeats.length < 2 ? [figures.measurements] : repeats.map((some) => read(some).measurements);
  return { figures: { ...figures, measurements: withRepeats(figures.measurements, passes) }, passes };
}

function gridOf(conditions: readonly TakeCondition[], all: readonly RepeatedReading[]): ConditionGrid | null {
  const ids = [...new Set(all.flatMap((a) => a.figures.measurements.map((m) => m.quantity)))];
  const rows = ids.flatMap((id) => {
    const readings = all.map((a) => {
      const figure = a.figures.measurements.find((m) => m.quantity === id);
      if (!figure || figure.value === null || figure.bound !== 'exact') return null;
      return { figure, values: distinctReadings(a.passes, id).map((m) => m.value as number) };
    });
    const there = readings.filter((r) => r !== null);
    // What does not depend on the condition is no row of the grid.
    if (there.length < 2 || new Set(there.map((r) => r.figure.value)).size < 2) return [];
    const cells = readings.map((r) => r && { value: r.figure.value as number, uncertainty: r.figure.uncertainty, repeats: Math.max(1, r.values.length) }); // prettier-ignore
    return [{ quantity: id, cells, best: bestOf(id, cells), effects: effectsOf(conditions, readings) }];
  });
  return rows.length === 0 ? null : { conditions, rows };
}

function bestOf(id: QuantityId, cells: readonly (GridCell | null)[]): number | null {
  const { better } = quantity(id);
  if (better !== 'lower' && better !== 'higher') return null;
  const sign = better === 'lower' ? 1 : -1;
  const order = cells.flatMap((cell, at) => (cell ? [{ at, ...cell }] : [])).sort((a, b) => sign * (a.value - b.value));
  const [first, second] = order;
  if (!second) return null;
  const u = Math.hypot(first.uncertainty ?? 0, second.uncertainty ?? 0);
  return Math.abs(first.value - second.value) > TOLD_APART * u ? first.at : null;
}

interface CellReading {
  readonly level: string;
  /** What the other factors were. */
  readonly block: string;
  readonly values: readonly number[];
}

/** By each thing that takes two values or more, the means of its values, and whether repeats explain their difference. */
function effectsOf(
  conditions: readonly TakeCondition[],
  readings: readonly ({ readonly values: readonly number[]; readonly figure: Measurement } | null)[],
): ConditionEffect[] {
  return CONDITION_FACTORS.flatMap((factor) => {
    const cells = readings.flatMap((reading, i): CellReading[] => {
      if (!reading) return [];
      const others = CONDITION_FACTORS.filter((f) => f !== factor).map((f) => conditions[i][f]?.toLowerCase() ?? null);
      const values = reading.values.length > 0 ? reading.values : [reading.figure.value as number];
      return [{ level: conditions[i][factor] ?? 'not named', block: JSON.stringify(others), values }];
    });
    const levels = byLevel(balanced(cells));
    if (levels.size < 2) return [];
    const means = [...levels].map(([of, own]) => ({ of, value: mean(own.map((c) => mean(c))) }));
    means.sort((a, b) => a.value - b.value);
    const spent = [...levels.values()].reduce((n, own) => n + own.length, 0) - levels.size;
    const analysis = analysisOfVariance(repeatsAbout(levels), spent);
    return [{ factor, lowest: means[0], highest: means[means.length - 1], p: analysis?.p ?? null }];
  });
}

/** Cells of which all levels were recorded with the same of everything else, or where there are none, the fullest such set. */
function balanced(cells: readonly CellReading[]): CellReading[] {
  const blocks = new Map<string, CellReading[]>();
  for (const cell of cells) blocks.set(cell.block, [...(blocks.get(cell.block) ?? []), cell]);
  const most = Math.max(0, ...[...blocks.values()].map((b) => b.length));
  const levels = new Set(cells.map((c) => c.level)).size;
  const fullest = [...blocks.values()].filter((b) => b.length === most);
  return most === levels ? fullest.flat() : (fullest[0] ?? []);
}

function byLevel(cells: readonly CellReading[]): Map<string, (readonly number[])[]> {
  const levels = new Map<string, (readonly number[])[]>();
  for (const { level, values } of cells) levels.set(level, [...(levels.get(level) ?? []), values]);
  return levels;
}

/**
 * Readings by the levels of one factor, each about its own cell: what another factor does within a level is neither
 * this factor's doing nor a repeat's.
 */
function repeatsAbout(levels: ReadonlyMap<string, readonly (readonly number[])[]>): number[][] {
  return [...levels.values()].map((cells) => {
    const middle = mean(cells.map((c) => mean(c)));
    return cells.flatMap((cell) => cell.map((value) => value - mean(cell) + middle));
  });
}
