import { type ChangePoint } from '../../measure/tonal-change';
import type { TakePair } from './take-pair';

/** Points of sweeps that the noise makes less sure say nothing. */
const LARGEST_POINT_U_DB = 1;

/** The response with the part re that without it, where both say something. */
export function sweepPoints({ fitted, without }: TakePair): ChangePoint[] {
  const [x, y] = [fitted.response, without.response];
  if (!x || !y) return [];
  const lowest = Math.max(x.lowestValidHz, y.lowestValidHz);
  const bare = new Map(y.points.map((p) => [p.hz.toFixed(2), p]));
  return x.points.flatMap((p) => {
    const other = bare.get(p.hz.toFixed(2));
    const u = other ? Math.hypot(p.u, other.u) : Infinity;
    return other && p.hz >= lowest && u <= LARGEST_POINT_U_DB && Number.isFinite(p.db - other.db)
      ? [{ hz: p.hz, db: p.db - other.db, u }]
      : [];
  });
}
