import { describe, expect, it } from 'vitest';
import { lcgNoise, scaled } from '../testing/signals';
import { quasiPeakMeasurement, silenceLines } from './silence-lines';

const RATE = 48_000;
const tone = (hz: number, db: number, seconds: number, phase = 0): Float64Array =>
  Float64Array.from({ length: seconds * RATE }, (_, i) => 10 ** (db / 20) * Math.sin((2 * Math.PI * hz * i) / RATE + phase)); // prettier-ignore
const reading = (...channels: Float64Array[]): number => silenceLines(channels, RATE)?.itu468Dbfs ?? NaN;

describe('a close look at a silent stretch', () => {
  it('a steady tone at 1 kHz reads its RMS, whatever moment it was cut out at', () => {
    // Quasi-peak, calibrated to the RMS of a sine (ITU-R BS.468-4); 0 dB at 1 kHz. Cut at its crest it would click.
    for (const phase of [0, Math.PI / 2]) expect(Math.abs(reading(tone(1000, -60, 2, phase)) + 60)).toBeLessThan(0.15);
  });

  it('an offset is no noise, and cutting it out no click', () => {
    const noise = scaled(lcgNoise(2 * RATE, 1, 5), -80);
    const plain = reading(noise.slice());
    expect(reading(noise.map((x) => x + 0.1))).toBeCloseTo(plain, 6);
  });

  it('reads the loudest channel; its spectrum is the mean of all', () => {
    const soft = (): Float64Array => tone(1000, -80, 2);
    expect(Math.abs(reading(soft(), tone(1000, -60, 2)) + 60)).toBeLessThan(0.15);
    const found = silenceLines([soft(), new Float64Array(2 * RATE)], RATE);
    // Half of the power of one channel.
    expect(Math.abs((found?.interference.totalDbfs ?? NaN) + 83.01)).toBeLessThan(0.1);
    expect(found?.interference.lines[0].hz).toBeCloseTo(1000, 0);
  });

  it('needs a third of a second, and takes frames of at most 1.4 s', () => {
    expect(silenceLines([new Float64Array(16_000)], RATE)).toBeNull();
    expect(silenceLines([tone(1000, -60, 0.35)], RATE)?.spectrum.binHz).toBeCloseTo(RATE / 16_384, 9);
    expect(silenceLines([tone(1000, -60, 3)], RATE)?.spectrum.binHz).toBeCloseTo(RATE / 65_536, 9);
  });

  it('says how weak a line between 1 and 10 kHz would have been missed', () => {
    const noise = (): Float64Array => scaled(lcgNoise(4 * RATE, 1, 6), -80);
    const limit = silenceLines([noise()], RATE)?.limitDbfs ?? NaN;
    const withTone = (db: number) => {
      const sound = noise();
      tone(3001.5, db, 4).forEach((x, i) => (sound[i] += x));
      return silenceLines([sound], RATE)?.interference.lines.some((l) => Math.abs(l.hz - 3001.5) < 2) ?? false;
    };
    expect([withTone(limit - 6), withTone(limit + 3)]).toEqual([false, true]);
  });

  it('is a figure, or the reason why there is none', () => {
    expect(quasiPeakMeasurement(null).notMeasured).toBe('The clip holds no silent part that is long enough.');
    expect(quasiPeakMeasurement(silenceLines([new Float64Array(RATE)], RATE)).notMeasured).toBe('The pause is digital silence.'); // prettier-ignore
    const found = silenceLines([tone(1000, -60, 2)], RATE);
    expect(quasiPeakMeasurement(found)).toMatchObject({ quantity: 'silenceItu468', value: found?.itu468Dbfs });
  });
});
