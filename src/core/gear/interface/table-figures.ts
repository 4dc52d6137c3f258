import { formatNumber } from '../../measure/figure-text';
import { measured, notMeasured, type Measurement } from '../../measure/measurement';
import { quantile } from '../../stats/quantile';
import type { RunTable } from '../run/run-table';
import { leading } from '../run/leading-number';

/** A meter that shows volts is read to about this (common practice, no source). */
const VOLT_SHARE = 0.02;
/** A cell that is off by more than this from what the others say of the fixed part is marked (common practice). */
export const LATENCY_OFF_MS = 1;

/** A cell of a table of latencies, and what is left of it once the buffers are taken off. */
export interface LatencyCell {
  readonly row: string;
  readonly column: string;
  readonly totalMs: number;
  /** Total minus two buffers. */
  readonly restMs: number;
  /** Off by more than a millisecond from the median of its rate. */
  readonly isOdd: boolean;
}

/**
 * What lies beyond the buffers in each cell of a table of round trips by rate (rows) and buffer (columns): total minus
 * two buffers. At one rate it is the same for every buffer; a cell that says otherwise is a misreading, or a driver that
 * does not do what it shows. (Common practice, no source; it fits published tables within 0.2 ms.)
 *
 * @param table - rows such as "48 kHz", columns such as "64", cells in milliseconds
 */
export function latencyCells(table: Pick<RunTable, 'cells'>): LatencyCell[] {
  const cells = table.cells.flatMap((cell) => {
    const [rate, buffer] = [leading(cell.row), leading(cell.column)];
    if (!(rate > 0) || !(buffer > 0)) return [];
    // "48 kHz" and "48000" are one rate; nothing runs below 8 kHz.
    const perSecond = rate < 1000 ? rate * 1000 : rate;
    return [{ ...cell, totalMs: cell.value, restMs: cell.value - (2000 * buffer) / perSecond }];
  });
  return cells.map(({ row, column, totalMs, restMs }) => {
    const ofRate = cells.filter((c) => c.row === row).map((c) => c.restMs);
    return { row, column, totalMs, restMs, isOdd: Math.abs(restMs - quantile(ofRate, 0.5)) > LATENCY_OFF_MS };
  });
}

/** Latency beyond the buffers: of the rate with most cells, its median, and how far the cells scatter. */
export function latencyFigure(table: Pick<RunTable, 'cells'>): Measurement[] {
  const cells = latencyCells(table);
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
  const condition = `round trip minus two buffers at ${most[0].row}, median of ${alike.length} ${alike.length === 1 ? 'buffer' : 'buffers'}${left}`; // prettier-ignore
  if (middle < 0)
    return [notMeasured('latencyFixed', condition, `It would be ${formatNumber(middle, 1)} ms: a round trip cannot be shorter than its buffers. Are these outputs alone, or one buffer only?`)]; // prettier-ignore
  if (2 * alike.length <= most.length && most.length > 1)
    return [notMeasured('latencyFixed', condition, 'The cells do not go together: a round trip grows by two buffers from one to the next.')]; // prettier-ignore
  const scatter =
    alike.length < 2
      ? null
      : Math.sqrt(alike.reduce((s, c) => s + (c.restMs - middle) ** 2, 0) / (alike.length - 1) / alike.length);
  return [measured('latencyFixed', middle, condition, { uncertainty: scatter })];
}

/**
 * Gain by dial: its whole range, and what the last 15 % hold.
 *
 * @param table - rows such as "85 %", one column, levels in decibels
 */
export function dialFigures(table: Pick<RunTable, 'cells'>): Measurement[] {
  const byShare = new Map(table.cells.map((c) => [leading(c.row), c.value]));
  const [least, before, most] = [0, 85, 100].map((share) => byShare.get(share));
  const steps = [...byShare].sort(([x], [y]) => x - y);
  const falls = steps.findIndex(([, level], i) => i > 0 && level < steps[i - 1][1]);
  const remark = falls < 1 ? '' : `; it falls between ${steps[falls - 1][0]} and ${steps[falls][0]} %`;
  return [
    ...(least === undefined || most === undefined
      ? []
      : [measured('gainRange', most - least, `0 to 100 % of the dial${remark}`)]),
    ...(before === undefined || most === undefined ? [] : [measured('gainLast15', most - before, '85 to 100 % of the dial')]), // prettier-ignore
    ...steepestFigure(table),
  ];
}

function steepestFigure(table: Pick<RunTable, 'cells'>): Measurement[] {
  const part = steepestPart(table);
  return part === null
    ? []
    : [measured('gainSteepest', part.dbPerTenth, `${part.fromRow} to ${part.toRow} of the dial, of ${table.cells.length} places`)]; // prettier-ignore
}

/** Where a dial rises most from one place that was read to the next, in decibels for a tenth of its travel. */
export function steepestPart(
  table: Pick<RunTable, 'cells'>,
): { fromRow: string; toRow: string; dbPerTenth: number } | null {
  const places = table.cells.filter((c) => leading(c.row) >= 0).sort((x, y) => leading(x.row) - leading(y.row));
  return places.slice(1).reduce<ReturnType<typeof steepestPart>>((most, cell, i) => {
    const travel = leading(cell.row) - leading(places[i].row);
    const dbPerTenth = (10 * (cell.value - places[i].value)) / travel;
    return travel > 0 && (!most || dbPerTenth > most.dbPerTenth) ? { fromRow: places[i].row, toRow: cell.row, dbPerTenth } : most; // prettier-ignore
  }, null);
}

/**
 * Power into 32 Ω and output impedance by the highest voltage at loads.
 *
 * @param table - rows such as "32 Ω" and "open", one column, volts
 */
export function headphoneOutput(table: Pick<RunTable, 'cells'>): Measurement[] {
  const open = table.cells.find((c) => /^\s*(open|none|∞)/i.test(c.row))?.value ?? null;
  const loads = table.cells
    .map((c) => ({ ohms: leading(c.row), volts: c.value }))
    .filter((c) => c.ohms > 0 && c.volts > 0)
    .sort((x, y) => x.ohms - y.ohms);
  const of32 = loads.find((c) => c.ohms === 32);
  const lowest = loads.at(0);
  return [
    ...(of32
      ? [
          measured('headphonePower', (1000 * of32.volts ** 2) / 32, `${of32.volts} V at 32 Ω, one side`, {
            uncertainty: (2 * VOLT_SHARE * 1000 * of32.volts ** 2) / 32,
          }),
        ]
      : []),
    ...(open !== null && lowest ? [impedance(open, lowest)] : []),
  ];
}

function impedance(open: number, { ohms, volts }: { readonly ohms: number; readonly volts: number }): Measurement {
  const condition = `${open} V open, ${volts} V at ${ohms} Ω`;
  const value = ohms * (open / volts - 1);
  // Both voltages are read alike badly; their ratio is unsure by √2 of one.
  const uncertainty = Math.SQRT2 * VOLT_SHARE * ohms * (open / volts);
  if (value < -2 * uncertainty)
    return notMeasured('headphoneImpedance', condition, 'The voltage rises with the load: one of the two is misread.');
  return value < uncertainty
    ? measured('headphoneImpedance', Math.max(value, 0) + uncertainty, `${condition}; less than the meter can tell`, { bound: 'at-most' }) // prettier-ignore
    : measured('headphoneImpedance', value, condition, { uncertainty });
}
