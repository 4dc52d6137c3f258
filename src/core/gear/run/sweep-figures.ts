import type { Measurement } from '../../measure/measurement';
import { patternOfLevels, polarLevels, polarMeasurements } from '../../measure/polar-pattern';
import { sweepMeasurements } from '../../measure/response-report';
import type { AnalysedTake, RunCurves, TakeResponse } from './analysed-take';

/**
 * Figures and curves of the sweeps of a run: the response in front, and what the turned ones say of the pattern.
 *
 * @param takes - of the run
 * @param where - the one in front was heard, in words
 */
export function sweepFigures(
  takes: readonly AnalysedTake[],
  where = '0°',
): {
  measurements: Measurement[];
  response: RunCurves['response'];
  polar: RunCurves['polar'];
} {
  const byAngle = new Map<number, TakeResponse>();
  for (const take of takes) if (take.role === 'sweep' && take.response) byAngle.set(take.angleDeg ?? 0, take.response);
  const front = byAngle.get(0);
  if (!front) return { measurements: [], response: null, polar: null };
  const { points, lowestValidHz, gateMs } = front;
  const turned = [...byAngle].flatMap(([angleDeg, r]) => (angleDeg === 0 ? [] : [{ angleDeg, points: r.points }]));
  const levels = turned.length === 0 ? null : polarLevels(points, turned);
  return {
    measurements: [...sweepMeasurements(front, where), ...(levels ? polarMeasurements(levels) : [])],
    response: { points, lowestValidHz, gateMs },
    polar: levels && {
      levels,
      pattern: patternOfLevels(levels),
    },
  };
}
