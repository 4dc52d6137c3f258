import type { PlanRow } from '#contracts/session-plan';

type Status = PlanRow['status'];

/** Where a session may go from where it is: what was ended by mistake goes on, what was called off can be held. */
const NEXT: Readonly<Record<Status, readonly Status[]>> = {
  planned: ['running', 'cancelled'],
  running: ['done', 'cancelled'],
  done: ['running'],
  cancelled: ['planned'],
};

/** Why a session cannot go that way; null where it can. */
export const statusRefusal = (before: Status, next: Status): string | null =>
  NEXT[before].includes(next) ? null : `A session that is ${before} cannot become ${next}.`;

/** Takes belong to the day on which they are made: a session that starts moves to that day, one that goes on stays. */
export const movesToToday = (before: Status, next: Status): boolean => before === 'planned' && next === 'running';
