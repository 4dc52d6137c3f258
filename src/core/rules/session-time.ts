/** How long one unit took at a past session, and for how many steps. */
export interface PastPace {
  readonly steps: number;
  readonly minutes: number;
}

/** Minutes per step where nothing is known; common practice, no source. */
const USUAL_MINUTES_PER_STEP = 2;
/** Plugging in the next unit. */
const CHANGE_MINUTES = 6;

/** An estimate with what it rests on. */
export interface SessionTime {
  readonly minutes: number;
  /** Sessions whose pace was used; 0: a rule of thumb. */
  readonly sessions: number;
}

/**
 * How long a session will take: steps at the median pace of past sessions, and the change from unit to unit.
 *
 * @param steps - steps of all units together, control takes included
 * @param units - times that a unit is plugged in
 * @param past - what earlier units took, changes included
 */
export function sessionTime(steps: number, units: number, past: readonly PastPace[]): SessionTime {
  const paces = past
    .filter((p) => p.steps > 0 && p.minutes > 0)
    .map((p) => Math.max(0.2, (p.minutes - CHANGE_MINUTES) / p.steps))
    .sort((a, b) => a - b);
  const middle = paces.length >> 1;
  const median = paces.length % 2 === 1 ? paces[middle] : (paces[middle - 1] + paces[middle]) / 2;
  const pace = paces.length === 0 ? USUAL_MINUTES_PER_STEP : median;
  return { minutes: Math.round(steps * pace + units * CHANGE_MINUTES), sessions: paces.length };
}
