import { describe, expect, it } from 'vitest';
import { type SlotTake } from '#contracts/session-plan';
import { exchanged, proposed } from './files';
import { SPEECH, take } from '../../testing/session-in-small';
import type { MatchProposal } from '#contracts/session-plan';

describe('files from elsewhere', () => {
  const clip = { ...take(1, SPEECH, 'open').clip };
  const file = (name: string, step: string | null, taken: SlotTake | null = null) => ({
    name,
    clip: { ...clip, sha256: name },
    step,
    byHand: false,
    taken,
  });
  const proposal = (name: string, step: string | null): MatchProposal => ({
    name,
    clip: { ...clip, sha256: name },
    step,
    content: 'passage',
    reasons: [],
    doubts: [],
    certainty: 1,
    integratedLufs: -23,
  });

  it('keep the step that a person has set, and that of a take that was taken over', () => {
    const proposals = [proposal('a', 'silence'), proposal('b', 'silence')];
    expect(proposed(file('a', 'speech'), proposals).step).toBe('silence');
    expect(proposed({ ...file('a', 'speech'), byHand: true }, proposals).step).toBe('speech');
    expect(proposed(file('a', 'speech', take(1, SPEECH, 'kept')), proposals).step).toBe('speech');
    expect(proposed(file('c', 'speech'), proposals).step).toBe('speech');
  });

  it('exchange their steps, and are to be confirmed anew', () => {
    const files = [file('a', 'speech', take(1, SPEECH, 'kept')), file('b', 'rear'), file('c', 'silence')];
    expect(exchanged(files, files[0], files[1]).map((f) => [f.step, f.taken, f.byHand])).toEqual([
      ['rear', null, true],
      ['speech', null, true],
      ['silence', null, false],
    ]);
  });
});
