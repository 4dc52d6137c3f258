import { describe, expect, it } from 'vitest';
import { LATENCY, SPEECH } from '../../testing/session-in-small';
import { hindrance } from './ready-to-record';
import { takeClock } from './take-clock';

const OPEN = { runId: null };
const fine = () => false;

describe('before a take', () => {
  it('nothing hinders once an input is open and a gain is noted, 0 included', () => {
    expect(hindrance(OPEN, SPEECH, true, fine, { gainDb: 0, dial: '' })).toBeNull();
    expect(hindrance(OPEN, SPEECH, true, fine, { gainDb: null, dial: 'unknown' })).toBeNull();
  });

  it('says what comes first', () => {
    expect(hindrance({ runId: '3' }, SPEECH, true, fine, { gainDb: 30, dial: '' })).toBe('nothing-to-record');
    expect(hindrance(OPEN, LATENCY, true, fine, { gainDb: 30, dial: '' })).toBe('nothing-to-record');
    expect(hindrance(OPEN, SPEECH, false, () => true, { gainDb: null, dial: '' })).toBe('no-input');
    expect(hindrance(OPEN, SPEECH, true, () => true, { gainDb: null, dial: '' })).toBe('refused-field');
    expect(hindrance(OPEN, SPEECH, true, fine, { gainDb: null, dial: '' })).toBe('no-gain');
  });

  it('looks at the fields only where it comes to that: looking brings them into view', () => {
    let looked = 0;
    const refused = () => ++looked > 0;
    hindrance(OPEN, LATENCY, true, refused, { gainDb: 30, dial: '' });
    hindrance(OPEN, SPEECH, false, refused, { gainDb: 30, dial: '' });
    expect(looked).toBe(0);
  });
});

describe('the clock of a take', () => {
  it('says what is still to go, and when it is long enough', () => {
    const length = { least: 10, most: 20 };
    expect(takeClock(0, length)).toBe('0:00 · 10 s to go');
    expect(takeClock(9.2, length)).toBe('0:09 · 1 s to go');
    expect(takeClock(10, length)).toBe('0:10');
    expect(takeClock(20, length)).toBe('0:20');
    expect(takeClock(20.1, length)).toBe('0:20 · long enough');
    expect(takeClock(75, null)).toBe('1:15');
  });
});
