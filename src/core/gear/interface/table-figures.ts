import { measured, notMeasured, type Measurement } from '../../measure/measurement';
import type { RunTable } from '../run/run-table';
import { leading } from '../run/leading-number';

/** A meter that shows volts is read to about this (common practice, no source). */
const VOLT_SHARE = 0.02;
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

/** A volt meter re 0.775 V: dBu of one volt. */
const DBU_PER_VOLT = 20 * Math.log10(1 / Math.sqrt(0.6));
/** Noise is read from a meter that moves to about this, dB (common practice, no source). */
const NOISE_READ_DB = 0.5;

/**
 * Noise of the headphone output with nothing played, and how far it lies below the highest voltage.
 *
 * @param table - rows such as "volume at its highest", one column, dBu(A)
 * @param output - table of {@link headphoneOutput}; undefined where there is none
 */
export function headphoneNoise(
  table: Pick<RunTable, 'cells'>,
  output: Pick<RunTable, 'cells'> | undefined,
): Measurement[] {
  const loudest = table.cells.reduce<RunTable['cells'][number] | null>(
    (a, b) => (!a || b.value > a.value ? b : a),
    null,
  );
  if (!loudest) return [];
  const volts = Math.max(0, ...(output?.cells ?? []).map((c) => c.value));
  const below =
    volts > 0
      ? `; ${(20 * Math.log10(volts) + DBU_PER_VOLT - loudest.value).toFixed(0)} dB below its highest voltage`
      : '';
  return [
    measured('headphoneNoise', loudest.value, `nothing played, ${loudest.row}${below}`, { uncertainty: NOISE_READ_DB }),
  ];
}
