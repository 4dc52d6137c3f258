import { measured, notMeasured, type Measurement } from '../../measure/measurement';
import { mean } from '../../stats/moments';
import { leading } from '../run/leading-number';
import type { RunTable } from '../run/run-table';

/** A resistor and a meter are read to about this (common practice, no source). */
const READING_SHARE = 0.03;
/** An artificial ear with its calibrator is read to about this, dB (common practice, no source). */
const EAR_LEVEL_DB = 1;
/** Output that the change of the response is told for. */
const OUTPUT_OHMS = 10;
/** Rows this far from 1 kHz are another frequency. */
const NEAR_1K = 1.1;

type Cells = Pick<RunTable, 'cells'>;
const isAt1k = (hz: number): boolean => hz > 1000 / NEAR_1K && hz < 1000 * NEAR_1K;

/** Readings by column (left, right), rising frequency, whatever the rows are named: "20 Hz", "1 kHz". */
function bySide({ cells }: Cells): { hz: number; value: number }[][] {
  const columns = [...new Set(cells.map((c) => c.column))];
  return columns.map((column) =>
    cells
      .filter((c) => c.column === column && leading(c.row) > 0 && c.value > 0)
      .map((c) => ({ hz: leading(c.row), value: c.value }))
      .sort((x, y) => x.hz - y.hz),
  );
}

/** What each side has in the row of 1 kHz. */
const valuesAt1k = (table: Cells): number[] => bySide(table).flatMap((side) => side.find((r) => isAt1k(r.hz))?.value ?? []); // prettier-ignore

/** Impedance at 1 kHz, mean of the sides; null where no row says it. */
function impedanceAt1k(table: Cells): number | null {
  const values = valuesAt1k(table);
  return values.length === 0 ? null : mean(values);
}

/**
 * Impedance at 1 kHz, and what an output of 10 Ω makes of the curve.
 *
 * @param table - rows such as "20 Hz" and "1 kHz", columns the sides, ohms
 */
export function impedanceFigures(table: Cells): Measurement[] {
  const sides = bySide(table).filter((side) => side.length > 0);
  const all = sides.flat();
  if (all.length === 0) return [];
  const how = `${sides.length === 1 ? 'one side' : 'mean of both sides'}, through a known resistor`;
  const at1k = impedanceAt1k(table);
  const changes = sides.flatMap((side) => {
    if (side.length < 2) return [];
    const losses = side.map(({ value }) => 20 * Math.log10(value / (value + OUTPUT_OHMS)));
    return [{ db: Math.max(...losses) - Math.min(...losses), rows: side.length, from: side[0].hz, to: side[side.length - 1].hz }]; // prettier-ignore
  });
  const most = changes.reduce<(typeof changes)[number] | null>((a, b) => (!a || b.db > a.db ? b : a), null);
  return [
    at1k === null
      ? notMeasured('impedance', how, 'The table has no row of 1 kHz.')
      : measured('impedance', at1k, how, { uncertainty: READING_SHARE * at1k }),
    ...(most
      ? [measured('outputColours', most.db, `${most.rows} frequencies from ${hz(most.from)} to ${hz(most.to)}`)]
      : []),
  ];
}

const hz = (value: number): string => (value < 1000 ? `${value} Hz` : `${value / 1000} kHz`);

/**
 * Level at 1 V, and at 1 mW where the impedance is known.
 *
 * @param table - a row "1 kHz", columns the sides, dB SPL at 1 V
 * @param impedance - table of {@link impedanceFigures}; undefined where there is none
 */
export function earLevelFigures(table: Cells, impedance: Cells | undefined): Measurement[] {
  const levels = valuesAt1k(table);
  if (levels.length === 0) return [];
  const how = `1 kHz, artificial ear, ${levels.length === 1 ? 'one side' : 'mean of both sides'}`;
  const perVolt = mean(levels);
  const ohms = impedance && impedanceAt1k(impedance);
  // 1 V into Z ohms is 1000/Z milliwatts.
  const perPower = ohms ? perVolt - 10 * Math.log10(1000 / ohms) : null;
  return [
    measured('sensitivityPerVoltage', perVolt, `1 V, ${how}`, { uncertainty: EAR_LEVEL_DB }),
    perPower === null
      ? notMeasured('sensitivityPerPower', how, 'The impedance at 1 kHz is not known: fill in its table.')
      : measured('sensitivityPerPower', perPower, `1 mW, ${how}`, {
          uncertainty: Math.hypot(EAR_LEVEL_DB, (10 / Math.LN10) * READING_SHARE),
        }),
  ];
}
