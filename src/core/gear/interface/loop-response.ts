import { measured, notMeasured, type Measurement } from '../../measure/measurement';
import { mean } from '../../stats/moments';
import { lastTake, type AnalysedTake, type TakeResponse } from '../run/analysed-take';

/** Where the sweep of an interface is heard. */
export const LOOPED = 'looped';

/** Ends of hearing, and how far beside them a point may lie: a sweep's ends are faded. */
const ENDS = [
  [20, 24],
  [18_500, 20_000],
] as const;
const ONE_KILOHERTZ = [900, 1100] as const;

interface Level {
  readonly db: number;
  readonly u: number;
}

/**
 * What a looped sweep says of the ends of hearing at least gain, and what full gain takes away from them.
 *
 * @param takes - of the run: roles "sweep" and "sweep-full"
 */
export function loopResponse(takes: readonly AnalysedTake[]): Measurement[] {
  const least = lastTake(takes, 'sweep')?.response ?? null;
  const full = lastTake(takes, 'sweep-full');
  if (!least && !full) return [];
  const plain = (['level20', 'level20k'] as const).map((id, i) => {
    const end = least && endOf(least, i);
    return end
      ? measured(id, end.db, 're 1 kHz, least gain', { uncertainty: end.u })
      : notMeasured(id, 're 1 kHz, least gain', least ? NOT_COVERED : 'The run has no sweep at least gain.');
  });
  if (!full) return plain;
  const lost = (['fullGain20', 'fullGain20k'] as const).map((id, i) => {
    const condition = 'full gain re least gain, both re 1 kHz';
    const [x, y] = [full.response && endOf(full.response, i), least && endOf(least, i)];
    if (x && y) return measured(id, x.db - y.db, condition, { uncertainty: Math.hypot(x.u, y.u) });
    const reason = !least ? 'The run has no sweep at least gain.' : !full.response ? 'The take at full gain holds no sweep.' : NOT_COVERED; // prettier-ignore
    return notMeasured(id, condition, reason);
  });
  return [...plain, ...lost];
}

const NOT_COVERED = 'The sweep does not reach this end of hearing.';

/** Level at an end of hearing re 1 kHz; null where the sweep says nothing there. */
function endOf({ points, lowestValidHz }: TakeResponse, end: number): Level | null {
  const within = ([low, high]: readonly [number, number]): Level | null => {
    const inside = points.filter((p) => p.hz >= low && p.hz <= high && p.hz >= lowestValidHz);
    if (inside.length === 0) return null;
    return { db: mean(inside.map((p) => p.db)), u: Math.sqrt(mean(inside.map((p) => p.u ** 2))) };
  };
  const [there, middle] = [within(ENDS[end]), within(ONE_KILOHERTZ)];
  return there && middle ? { db: there.db - middle.db, u: Math.hypot(there.u, middle.u) } : null;
}
