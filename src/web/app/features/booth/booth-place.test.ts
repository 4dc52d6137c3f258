import { describe, expect, it } from 'vitest';
import { CLOSE, LATENCY, planWith, SILENCE, slot, SPEECH, take } from '../../testing/session-in-small';
import { placeAfterSlot, placeInSlot, startPlace, stepsOn } from './booth-place';

const kept = (id: number, step: typeof SPEECH) => take(id, step, 'kept');

describe('where somebody works', () => {
  it('begins where work goes on, and at the beginning where all is done', () => {
    const first = slot([kept(1, SPEECH)]);
    expect(startPlace(planWith(first))).toEqual({ slot: '1', step: 'silence' });
    const done = slot([], { runId: '5' });
    expect(startPlace(planWith(done, slot([], { id: '2', ordinal: 2 })))).toEqual({ slot: '2', step: 'speech' });
    expect(startPlace(planWith(done))).toEqual({ slot: '1', step: 'speech' });
  });

  it('enters a unit at its first step that is not kept', () => {
    const plan = planWith(slot([kept(1, SPEECH), kept(2, SILENCE)]));
    expect(placeInSlot(plan, '1')).toEqual({ slot: '1', step: 'close' });
    const table = [
      { step: 'latency', cells: [{ row: '48', column: '64', value: 5, source: 'typed' as const, clip: null }] },
    ];
    const all = slot([kept(1, SPEECH), kept(2, SILENCE), kept(3, CLOSE)], { tables: table });
    expect(placeInSlot(planWith(all), '1')).toEqual({ slot: '1', step: 'speech' });
    expect(placeInSlot(plan, '99')).toBeNull();
  });

  it('walks only the steps of the turn, and stays at both ends', () => {
    const plan = planWith(slot([], { id: '0', steps: [SILENCE.id] }), slot([], { steps: [SPEECH.id, LATENCY.id] }));
    const at = { slot: '1', step: SPEECH.id };
    expect(stepsOn(plan, at, 1)).toEqual({ slot: '1', step: 'latency' });
    expect(stepsOn(plan, at, -1)).toEqual(at);
    expect(stepsOn(plan, { slot: '1', step: 'latency' }, 1)).toEqual({ slot: '1', step: 'latency' });
    expect(stepsOn(plan, { slot: '1', step: 'latency' }, -1)).toEqual(at);
  });

  it('goes on after a unit with the next that is no run yet, never back', () => {
    const plan = planWith(
      slot([], { id: '1', ordinal: 1 }),
      slot([], { id: '2', ordinal: 2, runId: '8' }),
      slot([], { id: '3', ordinal: 3 }),
    );
    expect(placeAfterSlot(plan, '1')).toEqual({ slot: '3', step: 'speech' });
    expect(placeAfterSlot(plan, '3')).toBeNull();
    expect(placeAfterSlot(plan, '99')).toBeNull();
  });
});
