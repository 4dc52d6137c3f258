import { signal } from '@angular/core';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { of, throwError } from 'rxjs';
import { takeSettingsSchema, type NewSlotTake, type SlotTake } from '#contracts/session-plan';
import type { Listening } from '../../audio/recorder';
import { take as takeOf, SPEECH } from '../../testing/session-in-small';
import { COUNT_FROM, TakeMachine, type TakeOrder } from './take-machine';

const LISTENING: Listening = {
  device: { id: 'in', label: 'Input 1' },
  sampleRateHz: 48_000,
  channels: 1,
  settings: { autoGainControl: false },
  warnings: [],
};

/** An input and a server that do what they are told, and note it. */
function desk() {
  const log: string[] = [];
  const handed: NewSlotTake[] = [];
  const judged: [string, SlotTake][] = [];
  let recordings = 0;
  let playedOut: () => void = () => undefined;
  const state = { refused: null as string | null, isJudging: true, canBegin: true };
  const listening = signal<Listening | null>(LISTENING);
  const input = {
    listening,
    begin: (id: string) => {
      if (!state.canBegin) return Promise.reject(new Error('The worker is gone.'));
      log.push(`begin ${id}`);
      return Promise.resolve();
    },
    end: () => {
      log.push('end');
      return Promise.resolve({ frames: 96_000, levels: null, refused: state.refused });
    },
    prepareBench: () => Promise.resolve(() => new Promise<void>((done) => (playedOut = done))),
  };
  const server = {
    startRecording: (r: { slot: string | null; step: string | null; device: string }) => {
      log.push(`open ${r.slot}/${r.step} on ${r.device}`);
      return of({ id: `rec-${++recordings}` });
    },
    finishRecording: (id: string, frames: number | null) => {
      log.push(`finish ${id} at ${frames}`);
      return of({ clip: { sha256: `clip of ${id}` } });
    },
    addTake: (slot: string, take: NewSlotTake) => {
      if (!state.isJudging) return throwError(() => new Error('The server is away.'));
      handed.push(take);
      log.push(`judge ${slot}/${take.step}`);
      return of(takeOf(handed.length, SPEECH, 'open'));
    },
  };
  // The machine needs of both only what is here.
  const machine = new TakeMachine(
    input,
    server as unknown as ConstructorParameters<typeof TakeMachine>[1],
    (slot, take) => judged.push([slot, take]),
  );
  return { machine, log, handed, judged, state, listening, playedOut: () => playedOut() };
}

let noted = { settings: takeSettingsSchema.parse({ gainDb: 30 }), note: 'first' };
const order = (change: Partial<TakeOrder> = {}): TakeOrder => ({
  slot: '7',
  step: 'speech',
  bench: null,
  noted: () => noted,
  ...change,
});
const settle = () => vi.advanceTimersByTimeAsync(0);

describe('making a take', () => {
  beforeEach(() => {
    vi.useFakeTimers();
    noted = { settings: takeSettingsSchema.parse({ gainDb: 30 }), note: 'first' };
  });
  afterEach(() => vi.useRealTimers());

  it('opens a recording, records, and hands the clip in with what is noted when it ends', async () => {
    const { machine, log, handed, judged } = desk();
    machine.begin(order(), false);
    await settle();
    expect([machine.phase(), machine.current()]).toEqual(['recording', 'rec-1']);
    noted = { settings: takeSettingsSchema.parse({ gainDb: 42 }), note: 'put right' };
    await machine.end();
    expect(log).toEqual(['open 7/speech on Input 1', 'begin rec-1', 'end', 'finish rec-1 at 96000', 'judge 7/speech']);
    expect(handed).toMatchObject([{ clip: 'clip of rec-1', note: 'put right', settings: { gainDb: 42 } }]);
    expect(judged).toMatchObject([['7', { id: '1' }]]);
    expect([machine.phase(), machine.current(), machine.problem()]).toEqual(['idle', null, null]);
  });

  it('counts in from three, and begins once', async () => {
    const { machine, log } = desk();
    machine.begin(order(), true);
    expect([machine.phase(), machine.count()]).toEqual(['counting', COUNT_FROM]);
    await vi.advanceTimersByTimeAsync(2_900);
    expect([machine.phase(), machine.count(), log.length]).toEqual(['counting', 1, 0]);
    await vi.advanceTimersByTimeAsync(100);
    expect(machine.phase()).toBe('recording');
    await vi.advanceTimersByTimeAsync(10_000);
    expect(log.filter((l) => l.startsWith('open'))).toHaveLength(1);
  });

  it('stops counting without a take', async () => {
    const { machine, log } = desk();
    machine.begin(order(), true);
    await vi.advanceTimersByTimeAsync(1_500);
    await machine.end();
    await vi.advanceTimersByTimeAsync(10_000);
    expect([machine.phase(), log]).toEqual(['idle', []]);
  });

  it('makes one take at a time, however often it is begun and ended', async () => {
    const { machine, log } = desk();
    machine.begin(order(), false);
    machine.begin(order({ step: 'silence' }), false);
    await settle();
    machine.begin(order({ step: 'silence' }), false);
    await Promise.all([machine.end(), machine.end(), machine.end()]);
    expect(log.filter((l) => l.startsWith('open'))).toEqual(['open 7/speech on Input 1']);
    expect(log.filter((l) => l.startsWith('judge'))).toHaveLength(1);
  });

  it('ends by itself when the bench has played to its end', async () => {
    const { machine, judged, playedOut } = desk();
    machine.begin(order({ bench: {} as TakeOrder['bench'] }), false);
    await settle();
    playedOut();
    await settle();
    expect([machine.phase(), judged.length]).toEqual(['idle', 1]);
  });

  it('does not end the next take when the bench of a stopped one falls silent', async () => {
    const { machine, playedOut } = desk();
    machine.begin(order({ bench: {} as TakeOrder['bench'] }), false);
    await settle();
    const firstPlayedOut = playedOut;
    await machine.end();
    machine.begin(order(), false);
    await settle();
    firstPlayedOut();
    await settle();
    expect([machine.phase(), machine.current()]).toEqual(['recording', 'rec-2']);
  });

  it('says what the input refused, and is ready again', async () => {
    const { machine, state, judged } = desk();
    machine.begin(order(), false);
    await settle();
    state.refused = 'Chunk 3 was refused.';
    await machine.end();
    expect([machine.phase(), machine.current(), machine.problem()?.message]).toEqual([
      'idle',
      null,
      'Chunk 3 was refused.',
    ]);
    expect(judged).toEqual([]);
    state.refused = null;
    machine.begin(order(), false);
    expect(machine.problem()).toBeNull();
  });

  it('is idle again where recording cannot begin', async () => {
    const { machine, state } = desk();
    state.canBegin = false;
    machine.begin(order(), false);
    await settle();
    expect([machine.phase(), machine.current(), machine.problem()?.message]).toEqual([
      'idle',
      null,
      'The worker is gone.',
    ]);
  });

  it('keeps a clip that could not be judged, and hands it in again as it was noted', async () => {
    const { machine, state, handed, judged, log } = desk();
    machine.begin(order(), false);
    await settle();
    state.isJudging = false;
    await machine.end();
    expect([machine.phase(), machine.unjudged()?.clip, machine.problem()?.message]).toEqual([
      'idle',
      'clip of rec-1',
      'The server is away.',
    ]);
    await machine.again();
    expect(machine.unjudged()?.clip).toBe('clip of rec-1');
    state.isJudging = true;
    await machine.again();
    expect([machine.unjudged(), machine.problem(), handed.length, judged.length]).toEqual([null, null, 1, 1]);
    // Nothing waits any more.
    await machine.again();
    expect(log.filter((l) => l.startsWith('judge'))).toHaveLength(1);
  });

  it('makes a take of what a crash has left, whole as it arrived', async () => {
    const { machine, log, judged } = desk();
    await machine.takeOver(order({ slot: '9', step: 'silence' }), 'rec-old');
    expect(log).toEqual(['finish rec-old at null', 'judge 9/silence']);
    expect([machine.phase(), judged.length]).toEqual(['idle', 1]);
    machine.begin(order(), false);
    await settle();
    await machine.takeOver(order(), 'rec-older');
    expect(log).not.toContain('finish rec-older at null');
  });

  it('does not begin once the input has gone or the page is left', async () => {
    const { machine, log, listening } = desk();
    machine.begin(order(), true);
    machine.leave();
    await vi.advanceTimersByTimeAsync(10_000);
    expect(log).toEqual([]);
    const other = desk();
    other.machine.begin(order(), true);
    other.listening.set(null);
    await vi.advanceTimersByTimeAsync(10_000);
    expect([other.machine.phase(), other.log]).toEqual(['idle', []]);
    expect(listening()).not.toBeNull();
  });
});
