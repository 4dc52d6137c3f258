import type { FrequencyResponse, ResponsePoint } from '../../measure/frequency-response';
import { mean } from '../../stats/moments';

/**
 * Mean of several responses in decibels, point by point, where all of them say something: seatings of one side, or both
 * sides. Decibels and not powers: a seating that leaks lowers the mean as much as one that seals raises it.
 *
 * @param responses - one or more, from one sweep and one gate
 * @returns points in rising order; their uncertainty is that of the noise alone
 */
export function meanResponse(responses: readonly FrequencyResponse[]): FrequencyResponse {
  const [first, ...others] = responses;
  const byHz = others.map((r) => new Map(r.points.map((p) => [p.hz.toFixed(2), p])));
  const points = first.points.flatMap((p) => {
    const all = [p, ...byHz.map((points) => points.get(p.hz.toFixed(2)))].filter((x): x is ResponsePoint => !!x);
    return all.length < responses.length
      ? []
      : [{ hz: p.hz, db: mean(all.map((x) => x.db)), u: Math.hypot(...all.map((x) => x.u)) / all.length }];
  });
  return { points, lowestValidHz: Math.max(...responses.map((r) => r.lowestValidHz)) };
}
