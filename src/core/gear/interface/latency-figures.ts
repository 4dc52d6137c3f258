import { formatNumber } from '../../measure/figure-text';
import { measured, notMeasured, type Measurement } from '../../measure/measurement';
import { quantile } from '../../stats/quantile';
import { leading } from '../run/leading-number';
import type { RunTable } from '../run/run-table';

type Cells = Pick<RunTable, 'cells'>;

/** A cell that is off by more than this from what the others say of the fixed part is marked (common practice). */
export const LATENCY_OFF_MS = 1;

/** A way of the sound whose delay depends on the buffer, by the role of its table's step. */
interface DelayedPath {
  readonly quantity: 'latencyFixed' | 'latencyOutput';
  /** Buffers that the sound waits for on its way. */
  readonly buffers: 1 | 2;
  readonly name: string;
  readonly tooShort: string;
  readonly uneven: string;
}

const PATHS: Readonly<Record<string, DelayedPath>> = {
  latency: {
    quantity: 'latencyFixed',
    buffers: 2,
    name: 'round trip minus two buffers',
    tooShort: 'a round trip cannot be shorter than its buffers. Are these outputs alone, or one buffer only?',
    uneven: 'a round trip grows by two buffers from one to the next.',
  },
  'latency-output': {
    quantity: 'latencyOutput',
    buffers: 1,
    name: 'output minus one buffer',
    tooShort: 'an output cannot come before its buffer is played.',
    uneven: 'an output grows by one buffer from one to the next.',
  },
};

/** Buffers in the cells of a table of latencies, by the role of its step; null for tables of other things. */
export const latencyBuffers = (role: string): 1 | 2 | null => PATHS[role]?.buffers ?? null;

/** A cell of a table of latencies, and what is left of it once the buffers are taken off. */
export interface LatencyCell {
  readonly row: string;
  readonly column: string;
  readonly totalMs: number;
  /** Total minus the buffers. */
  readonly restMs: number;
  /** Off by more than a millisecond from the median of its rate. */
  readonly isOdd: boolean;
}

/**
 * What lies beyond the buffers in each cell of a table of latencies by rate (rows) and buffer (columns): total minus two
 * buffers of a round trip, minus one of an output. At one rate it is the same for every buffer; a cell that says
 * otherwise is a misreading, or a driver that does not do what it shows. (Common practice, no source; it fits published
 * tables within 0.2 ms.)
 *
 * @param table - rows such as "48 kHz", columns such as "64", cells in milliseconds
 * @param buffers - that a cell holds
 */
export function latencyCells(table: Cells, buffers: 1 | 2): LatencyCell[] {
  const cells = table.cells.flatMap((cell) => {
    const [rate, buffer] = [leading(cell.row), leading(cell.column)];
    if (!(rate > 0) || !(buffer > 0)) return [];
    // "48 kHz" and "48000" are one rate; nothing runs below 8 kHz.
    const perSecond = rate < 1000 ? rate * 1000 : rate;
    return [{ ...cell, totalMs: cell.value, restMs: cell.value - (1000 * buffers * buffer) / perSecond }];
  });
  return cells.map(({ row, column, totalMs, restMs }) => {
    const ofRate = cells.filter((c) => c.row === row).map((c) => c.restMs);
    return { row, column, totalMs, restMs, isOdd: Math.abs(restMs - quantile(ofRate, 0.5)) > LATENCY_OFF_MS };
  });
}

/**
 * Latency beyond the buffers: of the rate with most cells, its median, and how far the cells scatter.
 *
 * @param table - as of {@link latencyCells}
 * @param role - of its step: `latency` of round trips, `latency-output` of outputs
 * @returns nothing where the table has no rates and buffers, or is none of latencies
 */
export function latencyFigure(table: Cells, role: string): Measurement[] {
  const path = PATHS[role] as DelayedPath | undefined;
  if (!path) return [];
  const cells = latencyCells(table, path.buffers);
  const rows = [...new Set(cells.map((c) => c.row))].map((row) => cells.filter((c) => c.row === row));
  const most = rows.reduce<LatencyCell[]>((best, row) => (row.length > best.length ? row : best), []);
  if (most.length === 0) return [];
  const alike = most.filter((c) => !c.isOdd);
  const middle = quantile(
    (alike.length > 0 ? alike : most).map((c) => c.restMs),
    0.5,
  );
  const odd = most.filter((c) => c.isOdd).map((c) => c.column);
  const left = odd.length === 0 ? '' : `; left out as implausible: ${odd.join(', ')}`;
  const condition = `${path.name} at ${most[0].row}, median of ${alike.length} ${alike.length === 1 ? 'buffer' : 'buffers'}${left}`; // prettier-ignore
  if (middle < 0) return [notMeasured(path.quantity, condition, `It would be ${formatNumber(middle, 1)} ms: ${path.tooShort}`)]; // prettier-ignore
  if (2 * alike.length <= most.length && most.length > 1)
    return [notMeasured(path.quantity, condition, `The cells do not go together: ${path.uneven}`)];
  const scatter =
    alike.length < 2
      ? null
      : Math.sqrt(alike.reduce((s, c) => s + (c.restMs - middle) ** 2, 0) / (alike.length - 1) / alike.length);
  return [measured(path.quantity, middle, condition, { uncertainty: scatter })];
}

/**
 * Latency of the output beyond its buffer, held against the round trips that it is a part of.
 *
 * @param output - table of outputs
 * @param roundTrip - table of round trips; undefined where there is none
 */
export function outputLatency(output: Cells, roundTrip: Cells | undefined): Measurement[] {
  const found = latencyFigure(output, 'latency-output');
  const whole = new Map(roundTrip?.cells.map((c) => [`${c.row} / ${c.column}`, c.value]));
  const longer = output.cells.map((c) => ({ name: `${c.row} / ${c.column}`, value: c.value })).filter(({ name, value }) => value > (whole.get(name) ?? Infinity)); // prettier-ignore
  return found.map(
    (f) =>
    longer.length === 0
      ? f
      : notMeasured('latencyOutput', f.condition, `The output takes longer than the round trip that it is a part of: ${longer.map((c) => c.name).join(', ')}.`), // prettier-ignore
  );
}

/** A latency that depends on no buffer: what the direct monitor takes from input to headphones, in milliseconds: of several ways the longest. */
export function directLatency({ cells }: Cells): Measurement[] {
  if (cells.length === 0) return [];
  const longest = cells.reduce((a, b) => (b.value > a.value ? b : a));
  const condition = `from the input to the headphones, ${longest.row}${cells.length === 1 ? '' : `; the longest of ${cells.length}`}`;
  return longest.value < 0
    ? [notMeasured('latencyDirect', condition, 'A voice is not heard before it is sung: the channels are mistaken.')]
    : [measured('latencyDirect', longest.value, condition)];
}
