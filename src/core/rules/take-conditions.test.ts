import { describe, expect, it } from 'vitest';
import { conditionsOf, conditionWords, processingOf, takesIn, type ConditionedTake } from './take-conditions';

const take = (step: string, settings: ConditionedTake['settings'] = {}): ConditionedTake => ({ step, settings });
const words = (takes: readonly ConditionedTake[]): string[] => conditionsOf(takes).map(conditionWords);
const steps = (takes: readonly ConditionedTake[], i: number): string[] =>
  takesIn(takes, conditionsOf(takes)[i]).map((t) => `${t.step} ${t.settings['voice'] ?? ''}`.trim());

describe('the conditions of a run', () => {
  it('are one where nothing is named, or one name', () => {
    expect(words([take('speech'), take('silence')])).toEqual(['']);
    expect(words([take('speech', { voice: 'Ada' }), take('silence')])).toEqual(['voice Ada']);
  });

  it('are each voice; what names none counts with all', () => {
    const takes = [take('speech', { voice: 'Ada' }), take('speech', { voice: 'Bo' }), take('silence')];
    expect(words(takes)).toEqual(['voice Ada', 'voice Bo']);
    expect(steps(takes, 0)).toEqual(['speech Ada', 'silence']);
    expect(steps(takes, 1)).toEqual(['speech Bo', 'silence']);
  });

  it('take one that names nothing for one of its own, where the same step has another', () => {
    const takes = [take('speech'), take('rear'), take('speech', { voice: 'Bo' })];
    expect(words(takes)).toEqual(['', 'voice Bo']);
    expect(steps(takes, 0)).toEqual(['speech', 'rear']);
    expect(steps(takes, 1)).toEqual(['rear', 'speech Bo']);
  });

  it('cross voices with places: the silence of a place counts for all voices in it', () => {
    const takes = ['Ada', 'Bo'].flatMap((voice) => ['booth', 'hall'].map((place) => take('speech', { voice, place })));
    takes.push(take('silence', { place: 'booth' }), take('silence', { place: 'hall' }));
    expect(words(takes)).toEqual(['voice Ada, place booth', 'voice Ada, place hall', 'voice Bo, place booth', 'voice Bo, place hall']); // prettier-ignore
    expect(takesIn(takes, conditionsOf(takes)[3]).map((t) => t.settings)).toEqual([{ voice: 'Bo', place: 'hall' }, { place: 'hall' }]); // prettier-ignore
  });

  it('are one where they are written alike, and empty texts name nothing', () => {
    const takes = [
      take('speech', { voice: 'Ada ' }),
      take('speech', { voice: 'ada' }),
      take('silence', { voice: ' ' }),
    ];
    expect(words(takes)).toEqual(['voice Ada']);
    expect(takesIn(takes, conditionsOf(takes)[0])).toHaveLength(3);
  });
});

it('a take that was worked on says so in words', () => {
  expect(processingOf({ processing: ' high-pass at 80 Hz ' })).toBe('high-pass at 80 Hz');
  expect(processingOf({ processing: '  ' })).toBeNull();
  expect(processingOf({})).toBeNull();
});
