import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { of, throwError } from 'rxjs';
import type { Recording } from '#contracts/recording';
import { LeftRecordings, LOOK_AGAIN_MS } from './left-recordings';

const recording = (id: string, isActive: boolean): Recording => ({
  id,
  slot: '1',
  step: 'speech',
  sampleRateHz: 48_000,
  channels: 1,
  device: 'Input 1',
  settings: {},
  startedAt: '2026-03-01T10:00:00Z',
  frames: 48_000,
  durationS: 1,
  gaps: 0,
  isActive,
});

describe('recordings that were left', () => {
  beforeEach(() => vi.useFakeTimers());
  afterEach(() => vi.useRealTimers());

  it('are those that nobody goes on with; those that still run are looked for again until they do not', async () => {
    let answer = [recording('own', true), recording('left', false), recording('closing', true)];
    let asked = 0;
    const left = new LeftRecordings({ recordings: () => (asked++, of(answer)) }, () => 'own');
    await left.look();
    expect(left.all().map((r) => r.id)).toEqual(['left']);
    answer = [recording('own', true), recording('left', false), recording('closing', false)];
    await vi.advanceTimersByTimeAsync(LOOK_AGAIN_MS);
    expect(left.all().map((r) => r.id)).toEqual(['left', 'closing']);
    await vi.advanceTimersByTimeAsync(10 * LOOK_AGAIN_MS);
    expect(asked).toBe(2);
    left.forget(answer[1]);
    expect(left.all().map((r) => r.id)).toEqual(['closing']);
  });

  it('are none where the server does not answer, and nobody looks once the page is left', async () => {
    let asked = 0;
    const away = new LeftRecordings({ recordings: () => throwError(() => new Error('away')) }, () => null);
    await away.look();
    expect(away.all()).toEqual([]);
    const left = new LeftRecordings({ recordings: () => (asked++, of([recording('a', true)])) }, () => null);
    await left.look();
    left.leave();
    await vi.advanceTimersByTimeAsync(10 * LOOK_AGAIN_MS);
    expect([asked, left.all()]).toEqual([1, []]);
    // A page that was left while it was looking hears nothing any more.
    const late = new LeftRecordings(
      { recordings: () => of([recording('a', false), recording('b', true)]) },
      () => null,
    );
    const looking = late.look();
    late.leave();
    await looking;
    expect([late.all(), vi.getTimerCount()]).toEqual([[], 0]);
  });
});
