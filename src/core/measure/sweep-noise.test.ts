import { describe, expect, it } from 'vitest';
import type { ImpulseResponse } from './impulse-response';
import { quietPlaces } from './sweep-noise';

const RATE = 1000;
/** A sweep of 20 Hz to 20 kHz: an octave takes its length over log2(1000). */
const response = (seconds: number, recordedS: number, peakS = 0.5, lengthS = 16): ImpulseResponse =>
  ({
    sweep: { lowHz: 20, highHz: 20_000, seconds },
    sampleRate: RATE,
    peak: peakS * RATE,
    recordedS,
    samples: { length: lengthS * RATE },
  }) as ImpulseResponse;

describe('where a response to a sweep holds noise alone', () => {
  it('high frequencies have it before the eighth harmonic, three octaves early, with room for the stretch', () => {
    const octaveS = 3 / Math.log2(1000);
    const found = quietPlaces(response(3, 5), 0.2);
    expect(found.high).toBe(500 - Math.round((3 * octaveS + 0.1) * RATE));
    // From where the sweep has gone on for a stretch longer than that.
    expect(found.splitHz).toBeCloseTo(20 * 2 ** ((3 * octaveS + 0.3) / octaveS), 6);
  });

  it('low frequencies have it late, as far as the recording goes on behind what passes at the split', () => {
    const splitS = (9 / Math.log2(1000)) + 0.3; // prettier-ignore
    // 5 s recorded, the direct sound at 0.5 s: 4.5 s less the split, less a stretch.
    expect(quietPlaces(response(3, 5), 0.2).low).toBe(500 + Math.round((4.5 - splitS - 0.2) * RATE));
    // Little is left: then six tenths of it.
    expect(quietPlaces(response(3, 2.1), 0.2).low).toBe(500 + Math.round(0.6 * (1.6 - splitS) * RATE));
    // Never further than half of the response, which is a circle.
    expect(quietPlaces(response(3, 50, 0.5, 8), 0.2).low).toBe(500 + 3800);
  });

  it('of a short sweep, no earlier than seven tenths of it', () => {
    const found = quietPlaces(response(0.5, 2), 0.2);
    expect(found.high).toBe(500 - Math.round((1.5 / Math.log2(1000) + 0.1) * RATE));
    expect(found.splitHz).toBeCloseTo(20 * 1000 ** 0.7, 3);
    const shortest = quietPlaces(response(0.2, 2), 0.2);
    expect(shortest.high).toBe(500 - 140);
  });
});
