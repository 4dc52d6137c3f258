import { measured, notMeasured, type Measurement } from '../../measure/measurement';
import type { RunTable } from '../run/run-table';
import { leading } from '../run/leading-number';

/** A level that a recorder's meter shows is read to this, dB (common practice, no source). */
const READ_DB = 0.1;
/** A resistor is what its rings say within 1 % (its tolerance, as a standard uncertainty). */
const RESISTOR_SHARE = 0.01;

/**
 * Input impedance by one known resistor in series: the two make a divider, R / (10^(ΔL/20) − 1).
 *
 * @param table - rows "nothing" and a resistance such as "1 kΩ", one column, levels of one tone in dB
 * @returns `inputImpedance` in ohms; nothing where the table does not hold both
 */
export function inputImpedance(table: Pick<RunTable, 'cells'>): Measurement[] {
  const straight = table.cells.find((c) => /^\s*(nothing|none|straight|direct|0)/i.test(c.row));
  const through = table.cells.find((c) => leading(c.row) > 0);
  if (!straight || !through) return [];
  const ohms = leading(through.row);
  const lost = straight.value - through.value;
  const condition = `1 kHz, ${lost.toFixed(1)} dB less behind ${through.row} in series`;
  const unsure = Math.SQRT2 * READ_DB;
  if (lost < -2 * unsure)
    return [
      notMeasured('inputImpedance', condition, 'The level rises behind the resistor: one of the two is misread.'),
    ];
  // Less than the meter can tell: at least so much.
  if (lost < 2 * unsure) return [measured('inputImpedance', ohms / (10 ** (2 * unsure / 20) - 1), condition, { bound: 'at-least' })]; // prettier-ignore
  const ratio = 10 ** (lost / 20);
  const value = ohms / (ratio - 1);
  const byLevel = (value * ratio * (Math.LN10 / 20) * unsure) / (ratio - 1);
  return [measured('inputImpedance', value, condition, { uncertainty: Math.hypot(byLevel, RESISTOR_SHARE * value) })];
}

/**
 * By how much one's own voice changes when the direct monitor is switched on.
 *
 * @param table - rows "through the computer" and "direct", one column, levels of one tone in dB
 */
export function directMonitor(table: Pick<RunTable, 'cells'>): Measurement[] {
  const through = table.cells.find((c) => /computer|software/i.test(c.row));
  const direct = table.cells.find((c) => /^\s*direct/i.test(c.row));
  return through && direct
    ? [measured('directMonitorStep', direct.value - through.value, 'direct re through the computer, one tone', { uncertainty: Math.SQRT2 * READ_DB })] // prettier-ignore
    : [];
}
