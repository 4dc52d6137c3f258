import { describe, expect, it } from 'vitest';
import {
  keptAfterChoosing,
  takeThatCounts,
  takeToShow,
  undecidedTakes,
  type NotedStepTake,
  type StepTake,
} from './step-takes';

const take = (
  attempt: number,
  state: StepTake['state'],
  step = 'speech',
  settings: NotedStepTake['settings'] = {},
): NotedStepTake => ({
  id: `${step}-${attempt}`,
  step,
  attempt,
  state,
  settings,
});

describe('takes of a step', () => {
  it('show a newer one that waits for a decision, though an earlier one is kept and still counts', () => {
    const takes = [take(1, 'kept'), take(2, 'open'), take(1, 'open', 'silence')];
    expect(takeToShow(takes, 'speech', null)?.id).toBe('speech-2');
    expect(takeThatCounts(takes, 'speech')?.id).toBe('speech-1');
  });

  it('show the one that was picked, whatever became of it, and forget a pick of another step', () => {
    const takes = [take(1, 'retaken'), take(2, 'kept'), take(1, 'open', 'silence')];
    expect(takeToShow(takes, 'speech', 'speech-1')?.id).toBe('speech-1');
    expect(takeToShow(takes, 'silence', 'speech-1')?.id).toBe('silence-1');
  });

  it('show and count none where all were put aside', () => {
    expect(takeToShow([take(1, 'retaken')], 'speech', null)).toBeNull();
    expect(takeThatCounts([take(1, 'retaken')], 'speech')).toBeNull();
  });

  it('keep the chosen one, also when a later one was kept', () => {
    const takes = [take(1, 'retaken'), take(2, 'kept')];
    expect([...keptAfterChoosing(takes, 'speech-1', 1)]).toEqual(['speech-1']);
  });

  it('keep as many as the step repeats: the chosen one and the latest of the others', () => {
    const takes = [take(1, 'kept'), take(2, 'kept'), take(3, 'kept'), take(4, 'open')];
    expect([...keptAfterChoosing(takes, 'speech-1', 3)].sort()).toEqual(['speech-1', 'speech-2', 'speech-3']);
    expect([...keptAfterChoosing(takes, 'speech-4', 2)].sort()).toEqual(['speech-3', 'speech-4']);
  });

  it('keep another voice beside the chosen one, and replace one whose voice nobody had named', () => {
    const of = (attempt: number, voice: string | null, state: StepTake['state'] = 'kept') => take(attempt, state, 'speech', { voice }); // prettier-ignore
    expect([...keptAfterChoosing([of(1, 'Ada'), of(2, 'Bo', 'open')], 'speech-2', 1)].sort()).toEqual(['speech-1', 'speech-2']); // prettier-ignore
    expect([...keptAfterChoosing([of(1, 'Ada'), of(2, 'ada ', 'open')], 'speech-2', 1)]).toEqual(['speech-2']);
    expect([...keptAfterChoosing([of(1, null), of(2, 'Bo', 'open')], 'speech-2', 1)]).toEqual(['speech-2']);
    const third = [of(1, 'Ada'), of(2, 'Bo'), of(3, 'Ada', 'open')];
    expect([...keptAfterChoosing(third, 'speech-3', 1)].sort()).toEqual(['speech-2', 'speech-3']);
  });

  it('tell which wait for a decision', () => {
    expect(undecidedTakes([take(1, 'open'), take(2, 'kept'), take(3, 'retaken')]).map((t) => t.attempt)).toEqual([1]);
  });
});
