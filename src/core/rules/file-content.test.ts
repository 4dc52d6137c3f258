import { describe, expect, it } from 'vitest';
import type { BandLevel } from '../measure/third-octave-spectrum';
import { contentFit, contentOf, type HeardContent } from './file-content';

const CENTRES = [50, 63, 80, 100, 125, 160, 200, 250, 315, 400, 500, 630, 800, 1000, 1250, 1600, 2000, 2500, 3150, 4000, 5000, 6300, 8000, 10_000, 12_500, 16_000]; // prettier-ignore
const bands = (levelOf: (hz: number) => number | null): BandLevel[] =>
  CENTRES.map((centreHz) => ({ centreHz, nominalHz: centreHz, levelDbfs: levelOf(centreHz) }) as unknown as BandLevel);
/** As of speech: 6 dB an octave down from 500 Hz, and little below 100 Hz. */
const speechLike = (hz: number): number => -30 - (hz > 500 ? 6 * Math.log2(hz / 500) : 0) - (hz < 100 ? 20 : 0);
const take = (change: Partial<HeardContent>): HeardContent => ({
  ...{ speechS: 0, integratedLufs: -25, sweepLikeness: 0, thirdOctave: bands(speechLike) },
  ...change,
});
const content = (change: Partial<HeardContent>) => contentOf(take(change));

describe('what a recording seems to hold', () => {
  it('speech of nine seconds is a reading, of half a second a line, and less is some other sound', () => {
    expect([9, 8.9, 0.5, 0.4].map((speechS) => content({ speechS }))).toEqual(['passage', 'line', 'line', 'sound']);
  });

  it('is silence below −48 LUFS where nobody speaks, and with a little less noise than −40 too', () => {
    expect(content({ integratedLufs: null, speechS: 20 })).toBe('silence');
    expect([-48.1, -47.9, -40.1, -40].map((integratedLufs) => content({ integratedLufs }))).toEqual(['silence', 'silence', 'silence', 'sound']); // prettier-ignore
    // A quiet reader is no silence; a breath is.
    expect(content({ integratedLufs: -55, speechS: 12 })).toBe('passage');
    expect(content({ integratedLufs: -55, speechS: 0.5 })).toBe('line');
    expect(content({ integratedLufs: -55, speechS: 0.4 })).toBe('silence');
  });

  it('is a tone where one band stands 18 dB above the fourth strongest', () => {
    const tone = (by: number) => bands((hz) => (hz === 1000 ? -40 + by : -40));
    expect(content({ thirdOctave: tone(18.1) })).toBe('tone');
    expect(content({ thirdOctave: tone(17.9) })).toBe('sound');
    // It leaks into its neighbours.
    const leaking = bands((hz) => (hz === 1000 ? -10 : hz === 800 || hz === 1250 ? -20 : -50));
    expect(content({ thirdOctave: leaking })).toBe('tone');
    // What lies outside 80 Hz to 10 kHz is hum or hiss, and bands that were not measured are nothing.
    expect(content({ thirdOctave: bands((hz) => (hz < 80 || hz > 10_000 ? 0 : -40)) })).toBe('sound');
    const atTheEdge = (at: number) => content({ thirdOctave: bands((hz) => (hz === at ? -10 : -40)) });
    expect([80, 10_000, 63, 12_500].map(atTheEdge)).toEqual(['tone', 'tone', 'sound', 'sound']);
    expect(content({ thirdOctave: bands((hz) => (hz === 1000 ? null : -40)) })).toBe('sound');
    // Four bands alone say nothing of a fourth.
    const few = (count: number) => bands((hz) => (hz === 1000 ? -10 : -50)).filter((b) => b.centreHz >= 1000).slice(0, count); // prettier-ignore
    expect([4, 5].map((count) => content({ thirdOctave: few(count) }))).toEqual(['sound', 'tone']);
  });

  it('is a sweep where it is like the one that is played, whatever its spectrum', () => {
    expect([0.12, 0.11].map((sweepLikeness) => content({ sweepLikeness, speechS: 12 }))).toEqual(['sweep', 'passage']);
  });

  it('where nobody compared it with the sweep, its even spectrum tells', () => {
    const even = { sweepLikeness: null, thirdOctave: bands(() => -35), speechS: 12 };
    expect(content(even)).toBe('sweep');
    expect(content({ ...even, sweepLikeness: 0 })).toBe('passage');
    // A spread of 7.5 dB: half the bands 8 dB above, half below.
    const uneven = (by: number) => bands((hz) => (CENTRES.indexOf(hz) % 2 === 0 ? -35 + by : -35 - by));
    expect([7.4, 7.6].map((by) => content({ ...even, thirdOctave: uneven(by) }))).toEqual(['sweep', 'passage']);
    // Noise of a street is even as well, but low: 4 to 10 kHz lies more than 10 dB under 250 Hz to 1 kHz.
    const low = (by: number) => bands((hz) => (hz >= 4000 && hz <= 10_000 ? -35 - by : -35));
    const share = 10 * Math.log10(5 / 7);
    expect([9.9 + share, 10.1 + share].map((by) => content({ ...even, thirdOctave: low(by) }))).toEqual(['sweep', 'passage']); // prettier-ignore
    // Both edges of both ranges count, and what was not measured does not.
    const only = (measured: readonly number[]) => bands((hz) => (measured.includes(hz) ? -35 : hz > 1000 && hz < 4000 ? -36 : null)); // prettier-ignore
    expect(content({ ...even, thirdOctave: only([100, 125, 160, 200, 250, 4000, 5000, 6300, 8000]) })).toBe('sweep');
    expect(content({ ...even, thirdOctave: only([100, 125, 160, 200, 250, 1000, 315, 10_000]) })).toBe('sweep');
    const dozen = (count: number) => bands((hz) => (hz >= 250 ? -35 : null)).filter((b) => b.levelDbfs !== null).slice(0, count); // prettier-ignore
    expect([12, 14].map((count) => content({ ...even, thirdOctave: dozen(count) }))).toEqual(['passage', 'sweep']);
  });
});

describe('how well it fits what a step plays', () => {
  it.each([
    ['text', ['passage'], ['line']],
    ['phrase', ['line'], ['passage']],
    ['sung', ['line', 'passage'], []],
    ['silence', ['silence'], []],
    ['sweep', ['sweep'], []],
    ['tone', ['tone'], []],
    ['noise', ['sweep', 'sound'], []],
    ['knocks', ['sound', 'line'], []],
    ['walk', ['line', 'passage', 'sound'], []],
    ['wind', ['sound'], []],
    ['recording', ['sound', 'line', 'passage'], []],
  ] as const)('a step that plays %s', (plays, fitting, nearly) => {
    const all = ['silence', 'tone', 'sweep', 'passage', 'line', 'sound'] as const;
    for (const kind of all) {
      const expected = (fitting as readonly string[]).includes(kind) ? 1 : (nearly as readonly string[]).includes(kind) ? -0.3 : -1; // prettier-ignore
      expect(contentFit(kind, plays), kind).toBe(expected);
    }
  });

  it('says nothing of what it does not know', () => {
    expect(contentFit('sound', 'fireworks')).toBe(0);
  });
});
