import { describe, expect, it } from 'vitest';
import type { AudioFormat } from '../audio/audio-format';
import { frameLength } from '../dsp/band-power-frames';
import { sibilantFrameLength } from '../dsp/sibilant-frames';
import { clipStretches, samplesBefore } from './clip-stretches';

const HOUR_S = 3600;
const clip = (seconds: number, sampleRate: number, channels = 1) => ({
  format: { container: 'wav', encoding: 'pcm24', sampleRate, channels, channelMask: null, frames: seconds * sampleRate } as AudioFormat, // prettier-ignore
  seek: () => undefined,
});

describe('the stretches of a clip', () => {
  it.each([16_000, 22_050, 32_000, 44_100, 48_000, 88_200, 96_000, 176_400, 192_000])(
    'at %i Hz follow each other without a hole, and begin where frames begin',
    (rate) => {
      const stretches = clipStretches(clip(HOUR_S, rate));
      expect(stretches.length).toBeGreaterThan(30);
      expect(stretches[0].from).toBe(0);
      expect(stretches.at(-1)?.to).toBe(Infinity);
      for (const [i, { from, to }] of stretches.entries()) {
        if (i > 0) expect(from).toBe(stretches[i - 1].to);
        // Whole frames of 20 ms, of spectra at half their length, and pairs of frames of consonants.
        expect((from * 50) % rate).toBe(0);
        expect(from % (frameLength(rate) / 2)).toBe(0);
        expect(from % (2 * sibilantFrameLength(rate))).toBe(0);
        if (to !== Infinity) expect((to - from) / rate).toBeGreaterThan(40);
        if (to !== Infinity) expect((to - from) / rate).toBeLessThan(90);
        if (from > 0) expect(from).toBeGreaterThanOrEqual(samplesBefore(rate));
      }
    },
  );

  it('are one of a short clip: some ten minutes of one channel, five of two', () => {
    expect(clipStretches(clip(600, 48_000))).toEqual([{ from: 0, to: Infinity }]);
    expect(clipStretches(clip(630, 48_000)).length).toBe(11);
    expect(clipStretches(clip(300, 48_000, 2))).toHaveLength(1);
    expect(clipStretches(clip(320, 48_000, 2)).length).toBeGreaterThan(1);
  });

  it('are one where no frames meet, or the clip can only be read from its beginning', () => {
    expect(clipStretches(clip(HOUR_S, 44_101))).toHaveLength(1);
    expect(clipStretches({ format: clip(HOUR_S, 48_000).format })).toHaveLength(1);
  });

  it('do not hold a rest of nothing', () => {
    const [{ to }] = clipStretches(clip(HOUR_S, 48_000));
    const { format, seek } = clip(HOUR_S, 48_000);
    const whole = clipStretches({ format: { ...format, frames: 20 * to }, seek });
    expect(whole).toHaveLength(20);
    expect(whole[19]).toEqual({ from: 19 * to, to: Infinity });
  });

  it('are preceded by a second at least, in whole blocks', () => {
    for (const rate of [8000, 44_100, 192_000]) {
      expect(samplesBefore(rate) / rate).toBeGreaterThanOrEqual(1);
      expect(samplesBefore(rate) % 8192).toBe(0);
    }
  });
});
