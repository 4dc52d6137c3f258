import { describe, expect, it } from 'vitest';
import type { Run, SpecimenSheet } from '#contracts/specimen';
import { sinceGiven } from './points-age';

const run = (date: string, purpose: Run['purpose'] = 'unit') => ({ date, purpose }) as Run;
const event = (kind: 'repair' | 'firmware' | 'note', day: string) => ({ kind, day, note: '', sum: null });
const since = (runs: Run[], events: SpecimenSheet['events'] = []) => sinceGiven('2025-05-01', { runs, events });

describe('points and what they speak of', () => {
  it('are as new as a test of their day, a control take, and a note', () => {
    expect(since([run('2025-05-01'), run('2026-01-01', 'closing')], [event('note', '2026-01-01'), event('repair', '2025-05-01')])).toBe(''); // prettier-ignore
  });
  it('are older than a later test, a repair, new firmware: of each the newest is named', () => {
    expect(since([run('2025-06-01'), run('2025-08-01')])).toBe('older than what they speak of: tested again on 2025-08-01'); // prettier-ignore
    expect(
      since([], [event('repair', '2025-06-01'), event('repair', '2025-07-01'), event('firmware', '2025-06-02')]),
    ).toBe('older than what they speak of: repaired on 2025-07-01, new firmware on 2025-06-02');
  });
});
