import { describe, expect, it } from 'vitest';
import { numberText, readNumber } from '#core/text/read-number';
import { edgeSheets, moved, segmentRows } from './segment-list';

describe('edges of a segment that are typed', () => {
  const { start, end } = edgeSheets({ startS: 3, endS: 5 }, 16.0213);

  it('lie within the clip and on their side of each other', () => {
    expect(readNumber('0', start)).toEqual({ isUnderstood: true, value: 0 });
    expect(readNumber('4.95', start)).toEqual({ isUnderstood: true, value: 4.95 });
    expect(readNumber('3.05', end)).toEqual({ isUnderstood: true, value: 3.05 });
    expect(readNumber('16.021 s', end)).toEqual({ isUnderstood: true, value: 16.021 });
  });

  it('take the end of the clip as they show it', () => {
    const clip = 16.0217;
    const sheet = edgeSheets({ startS: 3, endS: clip }, clip).end;
    for (const shown of [numberText(clip, sheet), '16.022'])
      expect(readNumber(shown, sheet), shown).toMatchObject({ isUnderstood: true });
    const segments = { speech: [{ startS: 3, endS: 10 }], silence: [], events: [] };
    const [row] = segmentRows(segments);
    expect(moved(segments, row, 3, 16.022, clip).speech).toEqual([{ startS: 3, endS: clip }]);
  });

  it('are refused elsewhere, rather than moved', () => {
    for (const [text, sheet] of [
      ['-1', start],
      ['4.96', start],
      ['3.04', end],
      ['17', end],
    ] as const)
      expect(readNumber(text, sheet), text).toMatchObject({ isUnderstood: false });
    expect(readNumber('17', end)).toMatchObject({ why: expect.stringContaining('16.022 s') as string });
  });
});
