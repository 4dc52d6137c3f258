import type { FrequencyResponse } from '../../measure/frequency-response';
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
import { sideMeasurements } from './sides';
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
  const means = sides.map(meanResponse);
  const response = sides.length === 0 ? null : responseOf(sides.flat(), meanResponse(means));
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
      sides: curveOf(means),
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
  if (unread.length === 0) return [];
  const reasons = unread.map(({ name, count }) =>
    count === 1
      ? `The take of the ${name} side does not hold the sweep.`
      : `None of the ${count} takes of the ${name} side holds the sweep.`,
  );
  const hasResponse = takes.some((t) => t.response);
  const ids = hasResponse ? (['sideLevel'] as const) : (['responseDeviation', 'sideLevel'] as const);
  return ids.map((id) => notMeasured(id, ON_THE_EAR, `${reasons.join(' ')} Is it the right file?`));
}

/** Where the sweep of headphones is heard. */
export const ON_THE_EAR = 'on an artificial ear';
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
  if (left.length > 0 && right.length > 0) return `${ON_THE_EAR}, ${MEAN_OF_SIDES}`;
  return `${ON_THE_EAR}, ${left.length > 0 ? 'left' : 'right'} side alone`;
}

function responseOf(
  seatings: readonly TakeResponse[],
  { points, lowestValidHz }: FrequencyResponse,
): { figures: SweepFigures; curve: RunCurves['response'] } {
  const { gateMs } = seatings[0];
  // What one side distorts is heard: the worse one counts.
  const distortion = seatings.reduce((a, b) => ((b.distortion.thdDb ?? -Infinity) > (a.distortion.thdDb ?? -Infinity) ? b : a)).distortion; // prettier-ignore
  const findings = new Map(seatings.flatMap((r) => r.findings.map((f) => [f.text, f] as const)));
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

/** Null where one side alone was measured. */
const curveOf = ([left, right]: readonly (FrequencyResponse | undefined)[]): RunCurves['sides'] =>
  left && right
    ? {
        left: left.points,
        right: right.points,
        lowestValidHz: Math.max(left.lowestValidHz, right.lowestValidHz),
      }
    : null;
