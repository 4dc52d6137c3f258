import { quantile } from '../../stats/quantile';
import type { AnalysedTake } from '../run/analysed-take';
import type { RunTable } from '../run/run-table';

/** A place of a dial is found again to about this share of its travel, % (common practice, no source). */
const PLACE_UNCERTAINTY_PERCENT = 2;
/** From the lowest place of a dial, seven o’clock, to the highest, five o’clock: ten hours (common practice, no source). */
const FIRST_HOUR = 7;
const PERCENT_PER_HOUR = 10;

/**
 * Where on its travel a dial stands, in per cent: "50 %", "noon", "3 o’clock", "7 of 10", "maximum".
 *
 * @param place - as it was noted
 * @returns null for a place that says nothing of the travel ("7", where nobody knows of how many)
 *
 * @example
 *   dialTravel('3 o’clock'); // => 80
 */
export function dialTravel(place: string): number | null {
  const text = place.trim().toLowerCase().replace(',', '.');
  if (/^(max|maximum|full|fully up|all the way)$/.test(text)) return 100;
  if (/^(min|minimum|off|zero)$/.test(text)) return 0;
  if (/^(noon|middle|half)$/.test(text)) return 50;
  const [, percent] = /^([\d.]+)\s*%$/.exec(text) ?? [];
  const [, hour] = /^(\d{1,2})\s*o[’']?\s?clock$/.exec(text) ?? [];
  const [, part, whole] = /^([\d.]+)\s*(?:of|\/)\s*([\d.]+)$/.exec(text) ?? [];
  const travel =
    percent !== undefined
      ? Number(percent)
      : hour !== undefined
        ? PERCENT_PER_HOUR * ((Number(hour) - FIRST_HOUR + 12) % 12)
        : part !== undefined
          ? (100 * Number(part)) / Number(whole)
          : NaN;
  return travel >= 0 && travel <= 100 ? travel : null;
}

/** Gain of one place of a dial against that of the others, dB, with its standard uncertainty. */
export interface DialGain {
  readonly db: number;
  readonly u: number;
}

/**
 * The gain at a place of a dial that was measured: between two places that were read, on the line between them. Only
 * differences between places are known: the table holds levels of one signal.
 *
 * @param table - rows such as "85 %", one column, levels in dB
 * @param place - as it was noted with a take
 * @returns null outside what was read, or for a place that says nothing of the travel
 */
export function gainAtDial(table: Pick<RunTable, 'cells'>, place: string): DialGain | null {
  const travel = dialTravel(place);
  if (travel === null) return null;
  const read = table.cells
    .flatMap(({ row, value }) => {
      const at = dialTravel(row);
      return at === null ? [] : [{ at, value }];
    })
    .sort((a, b) => a.at - b.at);
  const above = read.findIndex((r) => r.at >= travel);
  if (above < 0) return null;
  const [high, low] = [read[above], read[above - 1]];
  if (high.at === travel) {
    const next = read[above + 1] ?? low;
    return next ? { db: high.value, u: placeU(low ?? next, high, next) } : null;
  }
  if (!low) return null;
  const share = (travel - low.at) / (high.at - low.at);
  return { db: low.value + share * (high.value - low.value), u: placeU(low, high) };
}

interface ReadPlace {
  readonly at: number;
  readonly value: number;
}

/** How many decibels a place that is found again by eye may be off: by the steepest slope beside it. */
function placeU(...places: readonly ReadPlace[]): number {
  const slopes = places.slice(1).map((p, i) => {
    const travel = p.at - places[i].at;
    return travel === 0 ? 0 : Math.abs((p.value - places[i].value) / travel);
  });
  return PLACE_UNCERTAINTY_PERCENT * Math.max(...slopes);
}

/**
 * Takes whose dial stands where its table says how much it gives: with decibels. Those that note decibels and a place
 * tie the table to them; where takes note decibels and no place, nothing ties the two, and all stay as they are.
 *
 * @param takes - of a unit whose dial was measured
 * @param table - of its dial; undefined where it was not
 */
export function withDialGains(
  takes: readonly AnalysedTake[],
  table: Pick<RunTable, 'cells'> | undefined,
): readonly AnalysedTake[] {
  if (!table) return takes;
  const at = ({ dial }: AnalysedTake): DialGain | null => (dial ? gainAtDial(table, dial) : null);
  const tied = takes.flatMap((t) => {
    const found = t.gainDb === null ? null : at(t);
    return found && t.gainDb !== null ? [t.gainDb - found.db] : [];
  });
  if (tied.length === 0 && takes.some((t) => t.gainDb !== null)) return takes;
  const offset = tied.length === 0 ? 0 : quantile(tied, 0.5);
  return takes.map((t) => {
    const found = t.gainDb === null ? at(t) : null;
    return found ? { ...t, gainDb: found.db + offset, gainU: found.u } : t;
  });
}
