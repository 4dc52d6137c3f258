import { notMeasured, type Measurement } from '../../measure/measurement';
import { sweepMeasurements, type SweepFigures } from '../../measure/response-report';
import { summariseResponse } from '../../measure/response-summary';
import {
  NO_CURVES,
  type AnalysedTake,
  type RunChain,
  type RunCurves,
  type RunFigures,
  type TakeResponse,
} from '../run/analysed-take';
import { reachedLimits } from '../run/reached-limits';
import type { RunTable } from '../run/run-table';
import { meanResponse } from './mean-response';
import { seatingMeasurements } from './seatings';
import { ofBothSides, sideMeasurements } from './sides';
import { earLevelFigures, impedanceFigures } from './table-figures';

/**
 * Figures and curves of one run of headphones on an artificial ear: every take of a side is one seating of it.
 *
 * The response is that of the ear it was made with: neither a free field nor a diffuse one is taken off, and no head
 * seals as it does.
 *
 * @param takes - all takes of the run
 * @param _chain - of no account: levels at the ear are typed
 * @param _planned - roles that the protocol has steps of
 * @param tables - impedance and level at the ear, by the role of their step
 */
export function headphonesRunFigures(
  takes: readonly AnalysedTake[],
  _chain: RunChain,
  _planned: ReadonlySet<string>,
  tables: ReadonlyMap<string, RunTable> = new Map(),
): RunFigures {
  const [left, right] = SIDE_ROLES.map((role) =>
    takes.flatMap((t) => (t.role === role && t.response ? [t.response] : [])),
  );
  const sides = [left, right].filter((side) => side.length > 0);
  const [impedance, earLevel] = [tables.get('impedance'), tables.get('ear-level')];
  const response = sides.length === 0 ? null : responseOf(sides);
  return {
    measurements: [
      ...(response ? responseFigures(response, left, right) : []),
      ...(sides.length === 2 ? sideMeasurements(left, right) : []),
      ...unreadSides(takes),
      ...seatingMeasurements(sides),
      ...(impedance ? impedanceFigures(impedance) : []),
      ...(earLevel ? earLevelFigures(earLevel, impedance) : []),
    ],
    curves: {
      ...NO_CURVES,
      response: response?.curve ?? null,
      sides: sides.length === 2 ? curveOf(left, right) : null,
    },
  };
}

const SIDE_ROLES = ['sweep', 'sweep-right'] as const;

/** What cannot be told of a side whose takes are there, and none of which holds the sweep. */
function unreadSides(takes: readonly AnalysedTake[]): Measurement[] {
  const unread = SIDE_ROLES.flatMap((role, side) => {
    const own = takes.filter((t) => t.role === role);
    return own.length === 0 || own.some((t) => t.response)
      ? []
      : [{ name: ['left', 'right'][side], count: own.length }];
  });
  const condition = 'on an artificial ear';
  const reason = unread
    .map(({ name, count }) =>
      count === 1
        ? `The take of the ${name} side does not hold the sweep.`
        : `None of the ${count} takes of the ${name} side holds the sweep.`,
    ) // prettier-ignore
    .join(' ');
  if (unread.length === 0) return [];
  const ids = unread.length === 2 || takes.every((t) => !t.response) ? (['responseDeviation', 'sideLevel'] as const) : (['sideLevel'] as const); // prettier-ignore
  return ids.map((id) => notMeasured(id, condition, `${reason} Is it the right file?`));
}

const MEAN_OF_SIDES = 'mean of both sides';

/** The figures of the response; of what the sides distort, the worse one is told. */
function responseFigures(
  response: ReturnType<typeof responseOf>,
  left: readonly unknown[],
  right: readonly unknown[],
): Measurement[] {
  const figures = sweepMeasurements(response.figures, where(left, right));
  return reachedLimits(figures, response.curve).map((m) =>
    m.quantity === 'thdSweep' ? { ...m, condition: m.condition.replace(MEAN_OF_SIDES, 'the worse side') } : m,
  );
}

function where(left: readonly unknown[], right: readonly unknown[]): string {
  if (left.length > 0 && right.length > 0) return `on an artificial ear, ${MEAN_OF_SIDES}`;
  return `on an artificial ear, ${left.length > 0 ? 'left' : 'right'} side alone`;
}

function responseOf(sides: readonly (readonly TakeResponse[])[]): {
  figures: SweepFigures;
  curve: RunCurves['response'];
} {
  const all = sides.flat();
  const { gateMs } = all[0];
  const { points, lowestValidHz } = ofBothSides(sides);
  // What one side distorts is heard: the worse one counts.
  const distortion = all.reduce((a, b) => ((b.distortion.thdDb ?? -Infinity) > (a.distortion.thdDb ?? -Infinity) ? b : a)).distortion; // prettier-ignore
  const findings = new Map(all.flatMap((r) => r.findings.map((f) => [f.text, f] as const)));
  return {
    figures: {
      gateMs,
      summary: summariseResponse({ points, lowestValidHz }),
      distortion,
      findings: [...findings.values()],
    },
    curve: { points, lowestValidHz, gateMs },
  };
}

function curveOf(left: readonly TakeResponse[], right: readonly TakeResponse[]): RunCurves['sides'] {
  const [l, r] = [meanResponse(left), meanResponse(right)];
  return { left: l.points, right: r.points, lowestValidHz: Math.max(l.lowestValidHz, r.lowestValidHz) };
}
