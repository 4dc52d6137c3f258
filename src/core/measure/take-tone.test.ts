import { describe, expect, it } from 'vitest';
import { memoryStream } from '../audio/memory-stream';
import type { SampleStream } from '../audio/sample-stream';
import { joined, lcgNoise, mixed, scaled, sine } from '../testing/signals';
import { readTone, readToneOf } from './take-tone';

const RATE = 48_000;
const SECONDS = 6;
const tone = (hz: number, db: number) => sine(hz, db, SECONDS, RATE);
const noise = (db: number, seed: number) => scaled(lcgNoise(SECONDS * RATE, 1, seed), db);
const bent = (samples: Float64Array, a2: number, a3: number) => samples.map((x) => x + a2 * x * x + a3 * x ** 3);
const read = (...channels: Float64Array[]) => {
  const found = readTone(channels, RATE);
  if (!found) throw new Error('too short');
  return found;
};

describe('distortion of a known polynomial, x + a₂x² + a₃x³', () => {
  // cos² and cos³ by the sums of angles: the fundamental becomes A + ¾a₃A³, the second ½a₂A², the third ¼a₃A³.
  it('THD and harmonics are those of the sums of angles', () => {
    const [a, a2, a3] = [10 ** (-1 / 20), 0.002, 0.001];
    const { distortion, thd } = read(bent(tone(997, -1), a2, a3));
    const fundamental = a + 0.75 * a3 * a ** 3;
    const [second, third] = [(a2 * a * a) / 2 / fundamental, (a3 * a ** 3) / 4 / fundamental];
    expect(distortion.harmonicsDb[0]).toBeCloseTo(20 * Math.log10(second), 2);
    expect(distortion.harmonicsDb[1]).toBeCloseTo(20 * Math.log10(third), 2);
    expect(thd.db).toBeCloseTo(20 * Math.log10(Math.hypot(second, third)), 2);
    expect(thd.u).toBeLessThan(0.01);
  });

  // Of A₁cos ω₁ + A₂cos ω₂: side bands f₂ ± f₁ of a₂A₁A₂, f₂ ± 2f₁ of ¾a₃A₁²A₂ each.
  it('SMPTE: side bands of 7 kHz beside 60 Hz four times as strong', () => {
    const [a1, a2] = [0.4, 0.1];
    const [k2, k3] = [0.004, 0.003];
    const both = mixed(tone(60, 20 * Math.log10(a1)), tone(7000, 20 * Math.log10(a2)));
    const { smpte } = read(bent(both, k2, k3));
    const carrier = a2 + 0.75 * k3 * a2 ** 3 + 1.5 * k3 * a1 * a1 * a2;
    const second = (2 * k2 * a1 * a2) / carrier;
    const third = (2 * 0.75 * k3 * a1 * a1 * a2) / carrier;
    expect(smpte?.hz[0]).toBeCloseTo(60, 0);
    expect(smpte?.hz[1]).toBeCloseTo(7000, 0);
    expect(Math.abs((smpte?.balanceDb ?? 0) - 20 * Math.log10(4))).toBeLessThan(0.02);
    expect(Math.abs((smpte?.db ?? 0) - 20 * Math.log10(Math.hypot(second, third)))).toBeLessThan(0.02);
  });

  // f₂ − f₁ of a₂A², 2f₁ − f₂ and 2f₂ − f₁ of ¾a₃A³ each.
  it('twin tone: difference frequencies of 18 and 19 kHz', () => {
    const a = 0.35;
    const [k2, k3] = [0.004, 0.003];
    const both = mixed(tone(18_000, 20 * Math.log10(a)), tone(19_000, 20 * Math.log10(a)));
    const { twinTone } = read(bent(both, k2, k3));
    const reference = 2 * (a + 0.75 * k3 * a ** 3 + 1.5 * k3 * a ** 3);
    // 2f₂ − f₁ lies at 20 kHz, the end of what is read: the lower one stands for both.
    const [second, third] = [(k2 * a * a) / reference, (2 * 0.75 * k3 * a ** 3) / reference];
    expect(twinTone?.hz[0]).toBeCloseTo(18_000, 0);
    expect(Math.abs((twinTone?.db ?? 0) - 20 * Math.log10(Math.hypot(second, third)))).toBeLessThan(0.02);
  });
});

describe('dynamic range', () => {
  it('is full scale re the noise behind the tone, unweighted: white noise of known power', () => {
    const { range, rangeA } = read(mixed(tone(997, -60), noise(-90, 3)));
    // Uniform noise of amplitude 1 has a mean square of 1/3; 19.98 of 24 kHz of it lie in the band; full scale is ½.
    const z = -10 * Math.log10((2 / 3) * 1e-9 * (19_980 / 24_000));
    expect(Math.abs(range.zDb - z)).toBeLessThan(0.1);
    expect(range.levelDbfs).toBeCloseTo(-60, 1);
    // Of white noise up to 20 kHz the A weighting leaves 1.9 to 2.1 dB less (IEC 61672-1, by summing the curve).
    expect(rangeA.db - range.zDb).toBeGreaterThan(1.8);
    expect(rangeA.db - range.zDb).toBeLessThan(2.2);
    expect(rangeA.u).toBeLessThan(0.2);
  });
});

describe('a take of tones', () => {
  it('tells the level in each channel at the frequency of the loudest', () => {
    const { channelsDbfs } = read(mixed(tone(1000, -80), noise(-110, 1)), tone(1000, -6));
    expect(channelsDbfs[0]).toBeCloseTo(-80, 1);
    expect(channelsDbfs[1]).toBeCloseTo(-6, 2);
  });

  it('knows a channel whose tone does not stand out of its noise', () => {
    const loud = tone(1000, -6);
    const inNoise = (...channels: Float64Array[]) => read(...channels).channelsInNoise;
    expect(inNoise(loud, noise(-60, 2))).toEqual([false, true]);
    // Noise of −90 dBFS puts some −120 dBFS where the tone is looked for.
    expect(inNoise(mixed(tone(1000, -100), noise(-90, 3)), loud)).toEqual([false, false]);
  });

  it('knows clipping from a tone that only touches full scale', () => {
    expect(read(tone(997, 0)).isClipped).toBe(false);
    expect(read(scaled(tone(997, 0), 1).map((x) => Math.max(-1, Math.min(1, x)))).isClipped).toBe(true);
  });

  it('that is too short says nothing; of less than three seconds it is not known how sure it is', () => {
    expect(readTone([sine(997, -1, 1)], RATE)).toBeNull();
    expect(readTone([sine(997, -1, 2)], RATE)?.thd.u).toBeNull();
  });

  it('is as sure as its halves are alike: each by the frames that lie in it alone', () => {
    const half = (db: number, seed: number) => mixed(sine(997, -1, 3, RATE), scaled(lcgNoise(3 * RATE, 1, seed), db));
    const { thdPlusNoise } = read(joined(half(-60, 1), half(-70, 2)));
    // Ten decibels apart.
    expect(Math.abs((thdPlusNoise.u ?? 0) - 5)).toBeLessThan(0.1);
    // Whichever comes first.
    expect(read(joined(half(-70, 1), half(-60, 2))).thdPlusNoise.db).toBeCloseTo(thdPlusNoise.db, 1);
  });

  it.each([1, 2])(
    'of %i channels says as it arrives what it says as a whole, whatever was read in between',
    async (count) => {
      const channels = Array.from({ length: count }, (_, c) => mixed(bent(tone(997, -3 - 10 * c), 0.002, 0.001), noise(-90, c + 1))); // prettier-ignore
      const whole = readTone(channels, RATE);
      const stream = memoryStream(channels, RATE);
      const inPieces: SampleStream = {
        ...stream,
        read(into) {
          // Another take uses the same plan between two blocks.
          readTone([noise(-20, 9)], RATE);
          return stream.read(into);
        },
      };
      expect(await readToneOf(inPieces)).toEqual(whole);
      // A reader that has to wait for its bytes.
      const later = memoryStream(channels, RATE);
      expect(await readToneOf({ ...later, read: async (into) => Promise.resolve(later.read(into)) })).toEqual(whole);
      expect(await readToneOf(memoryStream([sine(997, -1, 1)], RATE))).toBeNull();
    },
  );
});
