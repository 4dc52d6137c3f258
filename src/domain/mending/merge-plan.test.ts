import { describe, expect, it } from 'vitest';
import { mergedAnswers, runsCountedTwice, type ComparedRun } from './merge-plan';

describe('answers of a unit that is another one', () => {
  it('name the other one, in the same place of an order, whether they count or not', () => {
    const answers = [
      { id: '1', specimens: ['2', '7'], counts: true },
      { id: '2', specimens: ['9', '3', '7'], counts: true },
      { id: '3', specimens: ['7', '3'], counts: false },
    ];
    expect(mergedAnswers(answers, '7', '4')).toEqual({
      renamed: [
        { id: '1', index: 1 },
        { id: '2', index: 2 },
        { id: '3', index: 0 },
      ],
      dropped: [],
    });
  });

  it('say nothing where they held the two against each other; what did not count is not dropped', () => {
    const answers = [
      { id: '1', specimens: ['7', '4'], counts: true },
      { id: '2', specimens: ['4', '9', '7'], counts: true },
      { id: '3', specimens: ['4', '7'], counts: false },
    ];
    expect(mergedAnswers(answers, '7', '4').dropped).toEqual(['1', '2']);
  });
});

describe('runs that both units have', () => {
  const run = (id: string, specimenId: string, change: Partial<ComparedRun> = {}): ComparedRun => ({
    id,
    specimenId,
    day: '2026-04-01',
    protocolVersionId: '3',
    purpose: 'unit',
    takes: ['speech a1', 'silence b2'],
    ...change,
  });

  it('count once, whatever the order of their takes; those of the unit that goes stop counting', () => {
    const runs = [run('1', '4'), run('2', '7', { takes: ['silence b2', 'speech a1'] })];
    expect(runsCountedTwice(runs, '7')).toEqual(['2']);
    expect(runsCountedTwice(runs, '4')).toEqual(['1']);
  });

  it('are two where a clip, the day, the version or the purpose differs, and where one unit has both', () => {
    const others = [
      run('2', '7', { takes: ['speech a1'] }),
      run('3', '7', { takes: ['speech a1', 'rear b2'] }),
      run('4', '7', { day: '2026-04-02' }),
      run('5', '7', { protocolVersionId: '2' }),
      run('6', '7', { purpose: 'closing' }),
    ];
    expect(runsCountedTwice([run('1', '4'), ...others], '7')).toEqual([]);
    expect(runsCountedTwice([run('1', '7'), run('2', '7')], '7')).toEqual([]);
  });
});
