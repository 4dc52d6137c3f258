import { describe, expect, it } from 'vitest';
import { cutRecording } from './recording-cuts';

type Stretch = readonly [number, number];
const frame = (s: number): number => Math.round(s * 50);

/** Frames of 20 ms: loud within the stretches, quiet elsewhere. */
function powers(seconds: number, sounds: readonly Stretch[], quietDb = -60): Float64Array {
  const made = new Float64Array(frame(seconds)).fill(10 ** (quietDb / 10));
  for (const [from, to] of sounds) made.fill(1e-2, frame(from), frame(to));
  return made;
}
const marks = (seconds: number, tones: readonly Stretch[]): Uint8Array => {
  const made = new Uint8Array(frame(seconds));
  for (const [from, to] of tones) made.fill(1, frame(from), frame(to));
  return made;
};
const pieces = (...args: Parameters<typeof cutRecording>) =>
  cutRecording(...args).map((p) => [p.startS, p.endS].map((s) => Number(s.toFixed(2))));

describe('a long recording cut at its silences', () => {
  it('parts takes at two seconds of quiet, and keeps 0.4 s of it', () => {
    const sounds = [[1, 4], [6, 9], [10.98, 13]] as const; // prettier-ignore
    expect(pieces(powers(14, sounds), null, 'silences')).toEqual([[0.6, 4.4], [5.6, 13.4]]); // prettier-ignore
    expect(pieces(powers(9.2, [[0.2, 4], [6.2, 9]]), null, 'silences')).toEqual([[0, 4.4], [5.8, 9.2]]); // prettier-ignore
  });

  it('takes half a second for a take, and less for a knock', () => {
    const sounds = [[1, 1.5], [4, 4.48], [7, 10]] as const; // prettier-ignore
    expect(pieces(powers(11, sounds), null, 'silences')).toEqual([[0.6, 1.9], [6.6, 10.4]]); // prettier-ignore
  });

  it('finds nothing where loud and quiet differ by less than 9 dB', () => {
    const sounds = [[1, 4], [7, 10]] as const; // prettier-ignore
    expect(pieces(powers(11, sounds, -28.9), null, 'silences')).toEqual([]);
    expect(pieces(powers(11, sounds, -29.1), null, 'silences').length).toBe(2);
    expect(pieces(new Float64Array(), null, 'silences')).toEqual([]);
  });

  it('takes what lies a third of the way up from quiet to loud for sound', () => {
    // From −60 to −20 dB: at −46 dB.
    const soft = (db: number) => {
      const made = powers(20, [[1, 4], [12, 16]]); // prettier-ignore
      made.fill(10 ** (db / 10), frame(7), frame(9));
      return pieces(made, null, 'silences').length;
    };
    expect([soft(-47), soft(-45)]).toEqual([2, 3]);
  });

  it('a pause as long as the silent step is a take of its own, before, between or behind the others', () => {
    const sounds = [[9, 12], [18, 21]] as const; // prettier-ignore
    const found = (silenceS: number | null) => pieces(powers(27, sounds), null, 'silences', silenceS);
    expect(found(null)).toEqual([[8.6, 12.4], [17.6, 21.4]]); // prettier-ignore
    expect(found(5.3)).toEqual([[0, 8.6], [8.6, 12.4], [17.6, 21.4], [21.4, 27]]); // prettier-ignore
    expect(found(5.2)).toEqual([[0, 8.6], [8.6, 12.4], [12.4, 17.6], [17.6, 21.4], [21.4, 27]]); // prettier-ignore
    expect(pieces(powers(10, [[1, 1.2]]), null, 'silences', 2), 'without a take there is none').toEqual([]);
  });
});

describe('cut at marker tones', () => {
  const sounds = powers(20, [[0, 20]]);
  const pair = (from: number): Stretch[] => [[from, from + 0.2], [from + 0.4, from + 0.6]]; // prettier-ignore

  it('a take stands between two pairs of tones, quiet included', () => {
    const tones = marks(20, [...pair(1), ...pair(8), ...pair(15)]);
    expect(pieces(sounds, tones, 'tones')).toEqual([[1.7, 7.9], [8.7, 14.9], [15.7, 20]]); // prettier-ignore
    expect(pieces(sounds, null, 'tones')).toEqual([]);
  });

  it('one tone alone, too short, too long or too far from its fellow is no marker', () => {
    const first = pair(1);
    expect(pieces(sounds, marks(20, [...first, [8, 8.2]]), 'tones')).toEqual([[1.7, 20]]);
    expect(pieces(sounds, marks(20, [...first, [8, 8.1], [8.3, 8.5]]), 'tones')).toEqual([[1.7, 20]]);
    expect(pieces(sounds, marks(20, [...first, [8, 8.12], [8.3, 8.42]]), 'tones').length).toBe(2);
    expect(pieces(sounds, marks(20, [...first, [8, 8.42], [8.6, 8.8]]), 'tones')).toEqual([[1.7, 20]]);
    expect(pieces(sounds, marks(20, [...first, [8, 8.4], [8.6, 8.8]]), 'tones').length).toBe(2);
    expect(pieces(sounds, marks(20, [...first, [8, 8.2], [8.72, 8.92]]), 'tones')).toEqual([[1.7, 20]]);
    expect(pieces(sounds, marks(20, [...first, [8, 8.2], [8.7, 8.9]]), 'tones').length).toBe(2);
    // Three in a row are a pair and one that is left.
    expect(pieces(sounds, marks(20, [...first, [8, 8.2], [8.4, 8.6], [8.8, 9]]), 'tones')).toEqual([[1.7, 7.9], [8.7, 20]]); // prettier-ignore
  });

  it('what is shorter than half a second between two markers is no take', () => {
    expect(pieces(sounds, marks(20, [...pair(1), ...pair(2.3), ...pair(5)]), 'tones')).toEqual([[1.7, 2.2], [3, 4.9], [5.7, 20]]); // prettier-ignore
    expect(pieces(sounds, marks(20, [...pair(1), ...pair(2.28), ...pair(5)]), 'tones')).toEqual([[2.98, 4.9], [5.7, 20]]); // prettier-ignore
  });
});

describe('cut at announcements', () => {
  it('a take is what stands between a short one and the next; what comes before the first is left out', () => {
    const sounds = [[1, 4], [6, 7.5], [9, 13], [14, 15], [17, 17.5], [19, 23]] as const; // prettier-ignore
    // Announced at 6, 14 and 17 s; 0.4 s of quiet is left beside each, and no take is that short.
    expect(pieces(powers(25, sounds), null, 'announcements')).toEqual([[7.5, 14], [15, 17], [17.5, 25]]); // prettier-ignore
  });

  it('is at most 2.2 s long, with 0.8 s of quiet around it', () => {
    const found = (to: number) => pieces(powers(20, [[5, to], [9, 13]]), null, 'announcements'); // prettier-ignore
    expect(found(7.2)).toEqual([[7.2, 20]]);
    expect(found(7.22)).toEqual([]);
    // Less quiet makes one sound of two.
    expect(pieces(powers(20, [[5, 6], [6.78, 8.5], [10, 14]]), null, 'announcements')).toEqual([]); // prettier-ignore
    expect(pieces(powers(20, [[5, 6], [6.8, 8.5], [10, 14]]), null, 'announcements')).toEqual([[8.5, 20]]); // prettier-ignore
  });
});
