import { measured, notMeasured, type Measurement } from '../../measure/measurement';
import { radioEvents } from '../../measure/radio-events';
import type { AnalysedTake } from '../run/analysed-take';
import type { RunTable } from '../run/run-table';

const MINUTES_PER_HOUR = 60;

/** Bursts of a telephone that sends beside it; nothing where there is no such take. */
export function radioFigure(take: AnalysedTake | undefined): Measurement[] {
  if (!take) return [];
  const condition = `${(take.stepPowers.length / 10).toFixed(0)} s beside a telephone that sends`;
  if (take.speechS > 0) return [notMeasured('radioEvents', condition, 'Words were found in the take: it must be silent.')]; // prettier-ignore
  const found = radioEvents(take.stepPowers);
  return [
    found
      ? measured('radioEvents', found.perMinute, condition, {
          uncertainty: found.u,
          settings: { bursts: found.count, ...(found.loudestDb === null ? {} : { loudestDb: Math.round(10 * found.loudestDb) / 10 }) }, // prettier-ignore
        })
      : notMeasured('radioEvents', condition, 'It takes five seconds of sound at least.'),
  ];
}

/**
 * How long it runs: a set stops with the first of its parts.
 *
 * @param table - rows such as "transmitter 1" and "receiver", cells in minutes; undefined where there is none
 */
export function runningTime(table: Pick<RunTable, 'cells'> | undefined): Measurement[] {
  const cells = table?.cells.filter((c) => c.value > 0) ?? [];
  if (cells.length === 0) return [];
  const first = cells.reduce((a, b) => (b.value < a.value ? b : a));
  const condition = cells.length === 1 ? first.row : `${first.row} stops first of ${cells.length} parts`;
  return [measured('batteryLife', first.value / MINUTES_PER_HOUR, condition)];
}
