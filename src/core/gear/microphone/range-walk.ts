import type { DropOut } from '../../dsp/drop-out-reading';
import { formatNumber } from '../../measure/figure-text';
import { measured, notMeasured, type Measurement } from '../../measure/measurement';
import { leading } from '../run/leading-number';
import type { RunTable } from '../run/run-table';
import type { HolesOnTheWay } from '../run/analysed-take';

/** A link that holes so much of a few seconds is not used on (common practice, no source). */
export const BAD_HOLES_S = 0.5;
export const BAD_WITHIN_S = 5;
/** A distance that is called out is noted to about a second (common practice, no source). */
const NOTED_TO_S = 1;

/** A distance of the walk and the moment of the take at which it was passed. */
interface Mark {
  readonly distanceM: number;
  readonly atS: number;
}

/** What a walk with its distances shows. */
export interface RangeWalk {
  readonly measurements: Measurement[];
  readonly holes: readonly HolesOnTheWay[] | null;
}

/**
 * A walk away from the receiver: how far the link holds, and how many holes lie between one noted distance and the next.
 * The way back is left out. A walk that begins at the receiver is 0 m at its first second, unless that is noted.
 *
 * @param drops - holes of the take, in order of time
 * @param table - rows such as "10 m", one column: the second of the take at which that was passed
 * @returns figures, and holes by stretch; a table that does not go out is told as not measured
 */
export function rangeWalk(drops: readonly DropOut[], table: Pick<RunTable, 'cells'>): RangeWalk {
  const noted = table.cells
    .map((c) => ({ distanceM: leading(c.row), atS: c.value }))
    .filter((m) => m.distanceM >= 0)
    .sort((a, b) => a.distanceM - b.distanceM);
  if (noted.length === 0) return { measurements: [], holes: null };
  const marks: Mark[] = noted[0].distanceM === 0 ? noted : [{ distanceM: 0, atS: 0 }, ...noted];
  const back = marks.findIndex((m, i) => i > 0 && m.atS <= marks[i - 1].atS);
  if (marks.length < 2 || back > 0) {
    const reason = marks.length < 2 ? 'Only the beginning of the walk is noted.' : `${marks[back].distanceM} m is noted at ${formatNumber(marks[back].atS, 0)} s, not after ${marks[back - 1].distanceM} m: the table is of the way out.`; // prettier-ignore
    return { measurements: (['linkFirst', 'linkLost'] as const).map((id) => notMeasured(id, '', reason)), holes: null };
  }
  const farthest = marks[marks.length - 1];
  const out = drops.filter((d) => d.startS >= marks[0].atS && d.startS <= farthest.atS);
  const condition = `walked away to ${farthest.distanceM} m in ${formatNumber(farthest.atS - marks[0].atS, 0)} s`;
  const figure = (id: 'linkFirst' | 'linkLost', atS: number | null, what: string): Measurement => {
    if (atS === null) return measured(id, farthest.distanceM, `${condition}, ${what}`, { bound: 'at-least' });
    const { distanceM, paceMs } = placeAt(marks, atS);
    return measured(id, distanceM, `${condition}, ${what}`, { uncertainty: paceMs * NOTED_TO_S });
  };
  return {
    measurements: [
      figure('linkFirst', out.at(0)?.startS ?? null, 'first hole of 5 ms or more'),
      figure('linkLost', firstBad(out), `holes of ${BAD_HOLES_S} s within ${BAD_WITHIN_S} s`),
    ],
    holes: marks.slice(1).map((to, i) => {
      const within = out.filter((d) => d.startS > marks[i].atS && d.startS <= to.atS);
      return {
        fromM: marks[i].distanceM,
        toM: to.distanceM,
        count: within.length,
        lostMs: 1000 * within.reduce((sum, d) => sum + d.lengthS, 0),
      };
    }),
  };
}

/** Where one is at a moment, walking evenly from mark to mark. */
function placeAt(marks: readonly Mark[], atS: number): { distanceM: number; paceMs: number } {
  const next = Math.max(1, marks.findIndex((m) => m.atS >= atS)); // prettier-ignore
  const [a, b] = [marks[next - 1], marks[next]];
  const paceMs = (b.distanceM - a.distanceM) / (b.atS - a.atS);
  return { distanceM: a.distanceM + paceMs * (atS - a.atS), paceMs };
}

/** The hole with which so much is lost within a few seconds for the first time. */
function firstBad(drops: readonly DropOut[]): number | null {
  for (const [i, { startS }] of drops.entries()) {
    const recent = drops.slice(0, i + 1).filter((d) => d.startS > startS - BAD_WITHIN_S);
    if (recent.reduce((sum, d) => sum + d.lengthS, 0) >= BAD_HOLES_S) return startS;
  }
  return null;
}
