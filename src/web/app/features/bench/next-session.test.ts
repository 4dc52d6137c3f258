import { describe, expect, it } from 'vitest';
import { type DueUnit, type PlanRow } from '#contracts/session-plan';
import { dueSentence, nextSession } from './next-step';

describe('what the bench says of sessions', () => {
  const row = (status: PlanRow['status'], day: string): PlanRow => ({ id: day, status, day }) as unknown as PlanRow;

  it('shows the running session before the next one, and nothing of those that are over', () => {
    expect(nextSession([row('planned', '2026-06-02'), row('planned', '2026-06-01')])?.day).toBe('2026-06-01');
    expect(nextSession([row('planned', '2026-06-01'), row('running', '2026-07-01')])?.day).toBe('2026-07-01');
    expect(nextSession([row('done', '2026-06-01'), row('cancelled', '2026-06-01')])).toBeNull();
  });

  it('says when the rig itself is due', () => {
    const unit = (kind: string) => ({ name: 'Warden', reasons: [{ kind, text: '' }] }) as unknown as DueUnit;
    expect(dueSentence([])).toBe('');
    expect(dueSentence([unit('repair')])).toBe('1 unit is due for another test.');
    expect(dueSentence([unit('repair'), unit('control-due')])).toContain(
      '2 units are due for another test; the rig is due',
    );
  });
});
