import { describe, expect, it } from 'vitest';
import { added, moved, segmentRows, without } from './segment-list';
import type { Segments } from '#contracts/segments';

describe('segments of a take', () => {
  const segments: Segments = {
    speech: [{ startS: 1, endS: 2 }],
    silence: [{ startS: 3, endS: 5 }],
    events: [{ startS: 0.2, endS: 0.4 }],
  };
  it('are listed in the order of time', () => {
    expect(segmentRows(segments).map((r) => r.kind)).toEqual(['events', 'speech', 'silence']);
  });
  it('move within the clip, and never turn over', () => {
    const row = segmentRows(segments)[2];
    expect(moved(segments, row, 3.5, 9, 6).silence).toEqual([{ startS: 3.5, endS: 6 }]);
    expect(moved(segments, row, 4, 2, 6).silence).toEqual([{ startS: 4, endS: 4.05 }]);
    expect(moved(segments, row, -1, 2, 6)).toMatchObject({
      silence: [{ startS: 0, endS: 2 }],
      speech: segments.speech,
    });
  });
  it('are added where the cursor stands, and taken away', () => {
    expect(added(segments, 'speech', 0.1, 6).speech).toEqual([
      { startS: 0.1, endS: 1.1 },
      { startS: 1, endS: 2 },
    ]);
    expect(added(segments, 'events', 5.9, 6).events[1]).toEqual({ startS: 5.9, endS: 6 });
    expect(without(segments, segmentRows(segments)[0]).events).toEqual([]);
  });
});
