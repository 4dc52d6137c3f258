import { describe, expect, it } from 'vitest';
import { startingSettings } from '../booth/take-defaults';
import { keptCount, ruledGain, stepState, takeOfStep, whereToGoOn } from './session-progress';
import { SPEECH, SILENCE, CLOSE, LATENCY, take, slot, planWith } from '../../testing/session-in-small';

describe('how far a session is', () => {
  it('counts the kept take of a step before any newer one that is open', () => {
    const s = slot([take(1, SPEECH, 'kept'), take(2, SPEECH, 'open'), take(3, SILENCE, 'retaken')]);
    expect(takeOfStep(s, 'speech')?.id).toBe('1');
    expect([stepState(s, SPEECH), stepState(s, SILENCE), stepState(s, LATENCY)]).toEqual(['kept', 'empty', 'empty']);
    expect(keptCount(planWith(s), s)).toBe(1);
    expect(stepState(slot([take(1, SPEECH, 'open', { verdict: 'redo' })]), SPEECH)).toBe('redo');
    const filled = slot([], {
      tables: [{ step: 'latency', cells: [{ row: '48', column: '64', value: 5, source: 'typed', clip: null }] }],
    });
    expect(stepState(filled, LATENCY)).toBe('kept');
  });

  it('goes on at the first step that is not kept, of the first unit that is no run yet', () => {
    const done = slot([], { id: 'a', runId: '9' });
    const open = slot([take(1, SPEECH, 'kept')], { id: 'b' });
    expect(whereToGoOn(planWith(done, open))).toMatchObject({ slot: { id: 'b' }, step: { id: 'silence' } });
    expect(whereToGoOn(planWith(done))).toBeNull();
  });

  it('knows the gain that a rule gives today; below 0 dB it has to be read off', () => {
    const s = slot([take(1, SPEECH, 'kept')]);
    const ruled = [ruledGain(s, SILENCE), ruledGain(s, CLOSE), ruledGain(s, SPEECH), ruledGain(slot([]), SILENCE)];
    expect(ruled.map((gain) => gain?.gainDb)).toEqual([36, null, undefined, undefined]);
  });

  it('takes a place of the dial over where nothing is turned, and knows none where it is', () => {
    const spoken = take(1, SPEECH, 'kept');
    const s = slot([{ ...spoken, settings: { ...spoken.settings, gainDb: null, dial: '50 %' } }]);
    expect(ruledGain(s, SILENCE)).toEqual({ gainDb: null, dial: '50 %' });
    expect(ruledGain(s, CLOSE)).toBeNull();
    expect(startingSettings(s, SILENCE)).toMatchObject({ gainDb: null, dial: '50 %' });
    expect(ruledGain(s, { ...SPEECH, gain: { rule: 'dial', position: '7' } })).toEqual({ gainDb: null, dial: '7' });
    // How much the most is has to be read off: figures that are tied to volts need it.
    expect(ruledGain(s, { ...SPEECH, gain: { rule: 'maximum' } })).toBeNull();
  });
});
