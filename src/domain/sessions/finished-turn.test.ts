import { describe, expect, it } from 'vitest';
import { turnRefusal, unanswered, type FinishedTake } from './finished-turn';

const take = (change: Partial<FinishedTake> = {}): FinishedTake => ({
  step: 'speech',
  attempt: 1,
  state: 'kept',
  gainDb: 40,
  dial: '',
  ...change,
});
const titleOf = (step: string): string => `Title of ${step}`;
const refusal = (takes: readonly FinishedTake[], withUndecided = false, cells: readonly unknown[] = []) =>
  turnRefusal(takes, [{ cells: cells as never }], withUndecided, titleOf);

describe('a turn becomes a run', () => {
  it('with what the device shows instead of decibels, if only that nobody knows', () => {
    expect(refusal([take({ gainDb: null, dial: '50 %' }), take({ gainDb: null, dial: 'unknown' })])).toBeNull();
    expect(refusal([take({ gainDb: null, dial: ' ' })])?.message).toMatch(/not noted/);
  });

  it('where something is kept, with its gain, whatever was put aside', () => {
    expect(refusal([take(), take({ attempt: 2, state: 'retaken', gainDb: null })])).toBeNull();
    expect(refusal([], false, [{}])).toBeNull();
  });

  it('not while somebody has to decide, unless those takes may stay beside it', () => {
    const takes = [take(), take({ step: 'rear', attempt: 3, state: 'open' })];
    expect(refusal(takes)).toMatchObject({
      code: 'takes-undecided',
      details: [{ field: 'rear', message: 'take 3 is neither kept nor put aside' }],
    });
    expect(refusal(takes, true)).toBeNull();
  });

  it('not of nothing: no take kept, no cell filled in', () => {
    expect(refusal([take({ state: 'retaken' })])?.message).toMatch(/No take of this unit is kept/);
    expect(refusal([take({ state: 'open' })], true)?.message).toMatch(/No take of this unit is kept/);
  });

  it('not without a gain: zero is one', () => {
    expect(refusal([take(), take({ step: 'rear', attempt: 2, gainDb: null })])?.message).toMatch(/"Title of rear", take 2, is not noted/); // prettier-ignore
    expect(refusal([take({ gainDb: 0 })])).toBeNull();
    // One that is not kept needs none.
    expect(refusal([take(), take({ state: 'open', gainDb: null })], true)).toBeNull();
  });
});

it('a finding of no use forbids keeping until it is overruled by name; one to look at does not', () => {
  const findings = [
    { check: 'clipping', weight: 'redo' },
    { check: 'hum', weight: 'look' },
  ];
  expect(unanswered(findings, []).map((f) => f.check)).toEqual(['clipping']);
  expect(unanswered(findings, [{ check: 'hum' }]).map((f) => f.check)).toEqual(['clipping']);
  expect(unanswered(findings, [{ check: 'clipping' }])).toEqual([]);
});
