import { describe, expect, it } from 'vitest';
import { SPEECH, take } from '../../testing/session-in-small';
import { isOverruled, keepMove, keeping, retaking } from './take-decision';
import { spokenVerdict, verdictLook } from './verdict-words';

const finding = (check: 'clipped' | 'hum' | 'event', weight: 'redo' | 'look') => ({
  check,
  weight,
  what: `It is ${check}.`,
  next: 'Do it again.',
});
const doubtful = take(1, SPEECH, 'open', {
  verdict: 'redo',
  findings: [finding('clipped', 'redo'), finding('hum', 'redo'), finding('event', 'look')],
});

describe('keeping a take', () => {
  it('asks for reasons only against a finding that says redo, and a kept one goes on', () => {
    expect(keepMove(doubtful)).toBe('ask-reasons');
    expect(keepMove(take(1, SPEECH, 'open', { findings: [finding('event', 'look')] }))).toBe('keep');
    expect(keepMove(take(1, SPEECH, 'open'))).toBe('keep');
    expect(keepMove({ ...doubtful, state: 'kept' })).toBe('go-on');
    expect(keepMove({ ...doubtful, state: 'retaken' })).toBe('ask-reasons');
  });

  it('wants a reason for each redo, not for a look, and blanks are none', () => {
    expect(isOverruled(doubtful, { clipped: 'On purpose.' })).toBe(false);
    expect(isOverruled(doubtful, { clipped: 'On purpose.', hum: '  ' })).toBe(false);
    expect(isOverruled(doubtful, { clipped: 'On purpose.', hum: 'It is the lamp.' })).toBe(true);
  });

  it('sends the reasons that were given, and of its checks alone', () => {
    expect(keeping(doubtful, { hum: ' It is the lamp. ', event: '', level: 'Elsewhere.' }, '')).toEqual({
      state: 'kept',
      overruled: [{ check: 'hum', reason: 'It is the lamp.' }],
      note: '',
    });
  });

  it('adds what was typed to what is noted, once', () => {
    const noted = { ...doubtful, note: 'new cable' };
    expect(keeping(noted, {}, '').note).toBe('new cable');
    expect(keeping(noted, {}, ' door open ').note).toBe('new cable; door open');
    expect(keeping(noted, {}, 'new cable').note).toBe('new cable');
    expect(keeping(doubtful, {}, 'door open').note).toBe('door open');
  });

  it('is put aside with what was noted and overruled; what is typed by then is about the next one', () => {
    const overruled = [{ check: 'hum' as const, reason: 'lamp' }];
    expect(retaking({ overruled, note: 'new cable' })).toEqual({ state: 'retaken', overruled, note: 'new cable' });
  });
});

describe('a verdict', () => {
  it('is a word with a colour and a sign; what was decided stands before what was advised', () => {
    expect(verdictLook(doubtful)).toMatchObject({ word: 'Redo', tone: 'redo', icon: 'pi pi-replay' });
    expect(verdictLook({ ...doubtful, state: 'kept' })).toMatchObject({ word: 'Kept', tone: 'kept' });
    expect(verdictLook({ ...doubtful, state: 'retaken' })).toMatchObject({ word: 'Redo' });
    expect(verdictLook(take(1, SPEECH, 'open', { verdict: 'look' }))).toMatchObject({ word: 'Have a look' });
  });

  it('is spoken with all that was found', () => {
    expect(spokenVerdict(doubtful)).toBe('Redo. It is clipped. It is hum. It is event.');
    expect(spokenVerdict(take(1, SPEECH, 'open'))).toBe('Keep.');
  });
});
