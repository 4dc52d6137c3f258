import { describe, expect, it } from 'vitest';
import { itemsOfSetup, takesOfTest, takesRefusal, type TestTake } from './test-setup';

const take = (id: string, change: Partial<TestTake> = {}): TestTake => ({
  take_id: id,
  specimen_id: `unit ${id}`,
  step: 'speech',
  category: 'microphone',
  processing: null,
  ...change,
});
const [a, b, c] = ['1', '2', '3'].map((id) => take(id));
const pairs = { design: 'pairs', category: 'microphone', controls: true, yardstick: null } as const;
const roles = (...args: Parameters<typeof itemsOfSetup>) => itemsOfSetup(...args).map((i) => `${i.take.take_id} ${i.role}`); // prettier-ignore

describe('takes of a test', () => {
  it('are those that are compared, and the yardstick once', () => {
    expect(takesOfTest({ takes: ['1', '2'], yardstick: null })).toEqual(['1', '2']);
    expect(takesOfTest({ takes: ['1', '2'], yardstick: '3' })).toEqual(['1', '2', '3']);
    expect(takesOfTest({ takes: ['1', '2'], yardstick: '2' })).toEqual(['1', '2']);
  });

  it.each([
    ['different steps', [a, take('2', { step: 'silence' })], /one step/],
    ['another kind of gear', [a, take('2', { category: 'booster' })], /category microphone/],
    ['one unit twice', [a, take('2', { specimen_id: a.specimen_id })], /one and the same unit/],
  ])('of %s make no test', (_, takes, why) => {
    expect(takesRefusal(pairs, takes, false)).toMatch(why);
  });

  it('of different steps do where somebody performs: nothing is played', () => {
    expect(takesRefusal({ ...pairs, design: 'performer' }, [a, take('2', { step: 'silence' })], false)).toBeNull();
    expect(takesRefusal(pairs, [a, b], false)).toBeNull();
  });
});

describe('takes with and without something', () => {
  const [bare, fitted] = [take('1', { step: 'without' }), take('2', { step: 'with', specimen_id: 'unit 1' })];
  const abx = { design: 'abx', category: 'microphone' } as const;

  it('of one unit can be told apart by ABX, and by nothing that would rank them', () => {
    expect(takesRefusal(abx, [bare, fitted], true)).toBeNull();
    expect(takesRefusal(pairs, [bare, fitted], true)).toMatch(/ABX/);
    expect(takesRefusal(abx, [bare, fitted], false)).toMatch(/each other’s pair/);
    expect(takesRefusal({ ...abx, category: 'booster' }, [bare, fitted], true)).toMatch(/category booster/);
  });
});

describe('a take that was worked on', () => {
  const worked = take('3', { specimen_id: a.specimen_id, processing: 'low-cut at 80 Hz' });
  const abx = { design: 'abx', category: 'microphone' } as const;

  it('is never ranked, and can be told apart from its own raw take', () => {
    expect(takesRefusal(pairs, [b, worked], false)).toMatch(/low-cut at 80 Hz/);
    expect(takesRefusal(abx, [a, worked], false)).toBeNull();
    expect(takesRefusal({ ...abx, category: 'booster' }, [a, worked], false)).toMatch(/category booster/);
    expect(takesRefusal(abx, [b, worked], false)).toBeNull();
    expect(takesRefusal(pairs, [a, take('4', { specimen_id: a.specimen_id })], false)).toMatch(/one and the same unit/);
  });
});

describe('items of a test', () => {
  it('of pairs are the units in their order, the yardstick, and a worse copy of the first', () => {
    expect(roles({ ...pairs, yardstick: '3' }, [a, b, c], [b, a, c])).toEqual(['2 unit', '1 unit', '3 yardstick', '2 known-worse']); // prettier-ignore
    expect(roles({ ...pairs, controls: false }, [a, b], [a, b])).toEqual(['1 unit', '2 unit']);
  });

  it('of ratings have a reference and two anchors made of the first chosen, whatever the order', () => {
    expect(roles({ ...pairs, design: 'ratings' }, [a, b], [b, a])).toEqual(['2 unit', '1 reference', '1 anchor-low', '1 anchor-mid']); // prettier-ignore
  });

  it('of other designs are the takes alone', () => {
    expect(roles({ ...pairs, design: 'abx' }, [a, b], [a, b])).toEqual(['1 unit', '2 unit']);
    expect(roles({ ...pairs, design: 'performer' }, [a, b], [a, b])).toEqual(['1 unit', '2 unit']);
  });
});
