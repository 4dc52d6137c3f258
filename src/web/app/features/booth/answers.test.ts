import { describe, expect, it } from 'vitest';
import { withAnswers } from './answers';
import { SPEECH, take, slot } from '../../testing/session-in-small';

describe('answers of the server', () => {
  it('stand before the plan is fetched anew, and give way to what was fetched later', () => {
    const stale = slot([take(1, SPEECH, 'open', { verdict: 'redo' })]);
    const answered = withAnswers(stale, [{ slot: '1', take: take(2, SPEECH, 'open') }]);
    expect(answered.takes.map((t) => [t.id, t.state])).toEqual([
      ['1', 'retaken'],
      ['2', 'open'],
    ]);
    const fetched = slot([take(1, SPEECH, 'retaken'), take(2, SPEECH, 'kept')]);
    expect(withAnswers(fetched, [{ slot: '1', take: take(2, SPEECH, 'open') }])).toEqual(fetched);
    expect(withAnswers(stale, [{ slot: 'other', take: take(3, SPEECH, 'open') }])).toBe(stale);
  });
});
