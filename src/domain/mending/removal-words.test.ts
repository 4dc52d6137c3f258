import { describe, expect, it } from 'vitest';
import { removalLines, type RemovalCounts } from './removal-words';

const NONE: RemovalCounts = {
  runs: 0, takes: 0, attempts: 0, clips: 0, sharedClips: 0, figures: 0, tables: 0, prices: 0, points: 0, sheetEntries: 0,
  events: 0, relations: 0, reviews: 0, photographs: 0, corrections: 0, answers: 0, words: 0, parts: 0, tests: [], testsWithoutClip: [],
}; // prettier-ignore
const COPIES = 'copies that were made elsewhere: exports, backups, published files';

describe('what deleting names', () => {
  it('is the unit alone where nothing hangs on it', () => {
    expect(removalLines('unit', NONE)).toEqual({ goes: ['the unit itself'], stays: [COPIES] });
  });

  it('is one line for everything that hangs on it, one and many told apart', () => {
    const { goes, stays } = removalLines('unit', {
      ...NONE,
      runs: 2,
      takes: 1,
      clips: 1,
      sharedClips: 3,
      answers: 12,
      prices: 1,
      tests: ['Spring'],
    });
    expect(goes).toEqual([
      'the unit itself',
      '2 runs',
      'one take',
      'one clip: its file, waveform, segments and picture',
      'one price',
      '12 answers of listeners',
      'the listening test “Spring”, with its sittings and results',
    ]);
    expect(stays).toEqual(['3 clips that something else uses', 'answers of those tests about other units', COPIES]);
  });

  it('of a take is not its run', () => {
    const { goes, stays } = removalLines('take', {
      ...NONE, runs: 1, takes: 1, figures: 7, clips: 1, testsWithoutClip: ['Spring'] }); // prettier-ignore
    expect(goes).toEqual([
      'one take',
      'one clip: its file, waveform, segments and picture',
      'the clip of the listening test “Spring”',
    ]);
    expect(stays).toContain('the other takes of the run; its figures are made anew without this one');
    expect(stays).toContain('answers that were given in those tests');
  });
});
