import { expect, it } from 'vitest';
import { PLAN_STATUS } from '#contracts/session-plan';
import { movesToToday, statusRefusal } from './session-status';

const ways = (isTaken: (a: (typeof PLAN_STATUS)[number], b: (typeof PLAN_STATUS)[number]) => boolean): string[] =>
  PLAN_STATUS.flatMap((a) => PLAN_STATUS.filter((b) => isTaken(a, b)).map((b) => `${a} > ${b}`));

it('start, end, are called off; what was ended or called off by mistake comes back', () => {
  expect(ways((a, b) => statusRefusal(a, b) === null)).toEqual([
    'planned > running',
    'planned > cancelled',
    'running > done',
    'running > cancelled',
    'done > running',
    'cancelled > planned',
  ]);
  expect(statusRefusal('done', 'planned')).toBe('A session that is done cannot become planned.');
});

it('move to the day on which they start, and stay there when they go on', () => {
  expect(ways(movesToToday)).toEqual(['planned > running']);
});
