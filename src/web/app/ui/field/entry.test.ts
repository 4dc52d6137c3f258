import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { readDay } from '#core/text/read-day';
import { Entry } from './entry';
import { Refusals } from './refusals';

const field = () => {
  const focused: string[] = [];
  const refusals = new Refusals();
  const state = { needed: '' };
  const entry = new Entry<string>(refusals, { focus: () => focused.push('field') }, () => ({
    read: (text) => readDay(text, '2026-03-01'),
    needed: state.needed,
  }));
  return { entry, refusals, focused, state };
};

describe('what is typed into a field', () => {
  beforeEach(() => vi.useFakeTimers());
  afterEach(() => vi.useRealTimers());

  it('is taken as it is meant', () => {
    const { entry, refusals } = field();
    expect(entry.take('2.5.2026')).toBe('2026-05-02');
    expect(entry.take('')).toBeNull();
    expect([entry.typed(), entry.refusal(), refusals.stop()]).toEqual([null, '', false]);
  });

  it('stays as it was typed where it is refused, says why, and keeps the page from saving', () => {
    const { entry, refusals, focused } = field();
    expect(entry.take('3/4/2026')).toBeUndefined();
    expect(entry.typed()).toBe('3/4/2026');
    expect(entry.refusal()).toMatch(/^“3\/4\/2026” is no day/);
    expect([refusals.stop(), focused]).toEqual([true, ['field']]);
  });

  it('is refused where it is empty and must not be', () => {
    const { entry, state, refusals } = field();
    state.needed = 'a day is needed here.';
    expect(entry.take('  ')).toBeUndefined();
    expect([entry.refusal(), refusals.stop()]).toEqual(['A day is needed here.', true]);
    state.needed = '';
    expect(entry.take('  ')).toBeNull();
  });

  it('is forgotten once it is put right; the words stay for the length of a press', () => {
    const { entry, refusals } = field();
    entry.take('soon');
    entry.take('today');
    expect([entry.typed(), refusals.stop()]).toEqual([null, false]);
    expect(entry.refusal()).not.toBe('');
    vi.advanceTimersByTime(500);
    expect(entry.refusal()).toBe('');
  });

  it('refused again meanwhile keeps its words', () => {
    const { entry } = field();
    entry.take('soon');
    entry.take('today');
    vi.advanceTimersByTime(200);
    entry.take('later');
    vi.advanceTimersByTime(5_000);
    expect(entry.refusal()).toContain('later');
  });

  it('gives way to a value from elsewhere, and goes with the field', () => {
    const { entry, refusals } = field();
    entry.take('soon');
    entry.accept();
    expect([entry.typed(), refusals.stop()]).toEqual([null, false]);
    entry.take('soon');
    entry.leave();
    expect(refusals.stop()).toBe(false);
  });
});
