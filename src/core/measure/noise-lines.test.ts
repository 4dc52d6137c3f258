import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { evenly } from '../testing/evenly';
import { joined, lcgNoise, mixed, scaled, sine, syllables, analyse } from '../testing/signals';
import { fullScaleDbSpl, selfNoise } from './self-noise';
import { silenceLines } from './silence-lines';
import { humMeasurement } from './hum';
import { interferenceMeasurement } from './interference';
import type { SilenceNoise } from './silence-noise';
import { dbfs } from '../units';

const RATE = 48_000;
const noise = (seconds: number, level: number, seed = 1): Float64Array =>
  lcgNoise(Math.round(seconds * RATE), 10 ** (level / 20), seed);
const withLines = (base: Float64Array, lines: readonly (readonly [hz: number, dbfs: number])[]): Float64Array =>
  lines.reduce((sum, [hz, level], i) => mixed(sum, sine(hz, level, base.length / RATE, RATE, 37 * i)), base);
const look = (signal: Float64Array, rate = RATE) => {
  const found = silenceLines([signal], rate);
  if (!found) throw new Error('too short');
  return found;
};

describe('hum', () => {
  const base = noise(4, -70);
  it.each([50, 60] as const)(
    'of %i Hz mains is told from the other by its harmonics, each line with its level',
    (mains) => {
      const lines = [
        [mains, -75],
        [2 * mains, -68],
        [3 * mains, -80],
        [6 * mains, -78],
      ] as const;
      const { hum } = look(withLines(base, lines));
      expect(hum.mainsHz).toBe(mains);
      expect(hum.lines.map((l) => Math.round(l.hz / mains))).toEqual([1, 2, 3, 6]);
      hum.lines.forEach((line, i) => expect(Math.abs(line.levelDbfs - lines[i][1])).toBeLessThan(0.5));
      const sum = 10 * Math.log10(lines.reduce((s, [, l]) => s + 10 ** (l / 10), 0));
      expect(Math.abs((hum.totalDbfs ?? 0) - sum)).toBeLessThan(0.3);
    },
  );
  it('is found where the mains wander a little', () => {
    expect(
      look(
        withLines(base, [
          [49.92, -75],
          [99.84, -75],
        ]),
      ).hum.mainsHz,
    ).toBe(50);
  });
  it('is not found in noise, and the figure is then an upper limit that a found line would exceed', () => {
    for (let seed = 1; seed <= 12; seed++) {
      const { hum } = look(noise(3, -60, seed));
      expect(hum.mainsHz).toBeNull();
    }
    const { hum } = look(base);
    expect(humMeasurement(hum)).toMatchObject({ bound: 'at-most', settings: { found: false } });
    expect(look(withLines(base, [[100, hum.limitDbfs + 3]])).hum.mainsHz).toBe(50);
    expect(hum.limitDbfs).toBeLessThan(-85);
  });
  it('300 Hz alone belongs to neither mains', () => {
    expect(look(withLines(base, [[300, -70]])).hum.mainsHz).toBeNull();
  });
});

describe('interference', () => {
  const base = noise(4, -80);
  it('lines 1 kHz apart are bus whine', () => {
    const found = look(
      withLines(
        base,
        [1, 2, 3, 4, 5].map((k) => [1000 * k, -85] as const),
      ),
    ).interference;
    expect(found.busWhine?.lines.map((l) => Math.round(l.hz))).toEqual([1000, 2000, 3000, 4000, 5000]);
    // 0.05 dB: the floor under five lines is taken off as its median.
    expect(Math.abs((found.busWhine?.totalDbfs ?? NaN) + 85 - 10 * Math.log10(5))).toBeLessThan(0.05);
    expect(found.radioBursts).toBeNull();
  });
  it('bursts of 0.58 ms, 216.7 a second, are a phone', () => {
    const bursts = base.map((x, i) => x + (((i * 216.6667) / RATE) % 1 < 0.125 ? 0.0004 : 0));
    const found = look(bursts).interference;
    expect(found.radioBursts?.spacingHz).toBeCloseTo(216.667, 2);
    expect(found.radioBursts?.lines.length).toBeGreaterThanOrEqual(4);
    expect(found.busWhine).toBeNull();
  });
  it('any other line is told with frequency and level', () => {
    const { interference, hum } = look(
      withLines(base, [
        [15_625, -90],
        [50, -70],
        [7321.4, -92],
      ]),
    );
    expect(hum.mainsHz).toBe(50);
    expect(interference.lines.map((l) => [l.hz, l.levelDbfs])).toEqual([
      [expect.closeTo(7321.4, 0), expect.closeTo(-92, 0)],
      [expect.closeTo(15_625, 0), expect.closeTo(-90, 0)],
    ]);
    expect(interferenceMeasurement(interference, dbfs(-100)).value).toBeCloseTo(
      10 * Math.log10(10 ** -9 + 10 ** -9.2),
      0,
    );
  });
  it('nothing is found in noise, whatever its seed, nor in noise with a hill in its spectrum', () => {
    for (let seed = 20; seed < 32; seed++) expect(look(noise(4, -50, seed)).interference.lines).toEqual([]);
  });
  it('a stretch under a third of a second is not looked at', () => {
    expect(silenceLines([noise(0.2, -50)], RATE)).toBeNull();
  });
});

describe('gain moves every reading by itself and finds the same lines', () => {
  const base = withLines(noise(3, -60), [
    [50, -60],
    [150, -64],
    [9000, -70],
  ]);
  const before = look(base);
  it('for any gain', () => {
    fc.assert(
      fc.property(evenly(-40, 20), (gain) => {
        const after = look(scaled(base, gain));
        expect(after.itu468Dbfs - before.itu468Dbfs).toBeCloseTo(gain, 6);
        expect((after.hum.totalDbfs ?? 0) - (before.hum.totalDbfs ?? 0)).toBeCloseTo(gain, 6);
        expect(after.interference.lines.map((l) => l.hz)).toEqual(
          before.interference.lines.map((l) => expect.closeTo(l.hz, 6) as number),
        );
      }),
      { numRuns: 5 },
    );
  });
});

// A clip as the whole analysis sees it: the close look reads the pause and nothing else.
describe('the close look at a pause', () => {
  it('finds the hum of the pause beneath the speech of the clip', async () => {
    const clip = withLines(
      mixed(
        syllables(
          [
            [0.3, 3],
            [6, 8],
          ],
          8.3,
          -10,
        ),
        noise(8.3, -75, 5),
      ),
      [
        [50, -70],
        [100, -72],
      ],
    );
    const { lines } = await analyse([clip]);
    expect(lines?.hum.mainsHz).toBe(50);
    expect(Math.abs((lines?.hum.totalDbfs ?? 0) - 10 * Math.log10(10 ** -7 + 10 ** -7.2))).toBeLessThan(0.5);
  });
  it('takes the whole of a steady clip that is too loud for silence: noise at full gain', async () => {
    const {
      segments,
      lines,
      noise: pause,
    } = await analyse([
      withLines(noise(4, -20), [
        [60, -28],
        [180, -30],
      ]),
    ]);
    expect([segments.silence, pause]).toEqual([[], null]);
    expect(lines?.hum.mainsHz).toBe(60);
  });
  it('of stereo takes the mean of the spectra, and the higher quasi-peak', async () => {
    const [l, r] = [noise(3, -60, 8), noise(3, -70, 9)];
    const [both, left] = [look(l.slice()).itu468Dbfs, silenceLines([l.slice(), r.slice()], RATE)?.itu468Dbfs];
    expect(left).toBe(both);
    await expect(analyse([joined(l), joined(r)])).resolves.toMatchObject({ lines: { itu468Dbfs: both } });
  });
});

describe('self-noise in dB SPL', () => {
  // 94 dB SPL on 10 mV/Pa is 10 mV = −37.78 dBu; with 40 dB of gain and +14 dBu at full scale, that is −11.78 dBFS.
  it('by sensitivity and gain, and by a calibration take, is one arithmetic', () => {
    const bySensitivity = fullScaleDbSpl(
      { kind: 'sensitivity', sensitivityMvPa: 10, fullScaleDbu: 14, uncertaintyDb: 1 },
      40,
    );
    expect(bySensitivity).toBeCloseTo(93.98 + 11.78, 2);
    const byCalibration = fullScaleDbSpl(
      { kind: 'calibration', toneDbfs: -31.78, toneDbSpl: 93.98, gainDb: 20, uncertaintyDb: 0.3 },
      40,
    );
    expect(byCalibration).toBeCloseTo(bySensitivity, 2);
  });
  it('reads the A-weighted pause on that scale', () => {
    const level = { levelDbfs: dbfs(-90), spread: null, uncertaintyDb: 0.4 };
    const take: SilenceNoise = {
      segment: { startS: 0, endS: 5 },
      pauses: 1,
      seconds: 5,
      highHz: 20_000,
      bound: 'exact',
      refused: null,
      z: level,
      a: level,
      thirdOctave: [],
      kMeanSquare: 0,
      findings: [],
    };
    const figure = selfNoise(take, 40, {
      kind: 'calibration',
      toneDbfs: -20,
      toneDbSpl: 94,
      gainDb: 40,
      uncertaintyDb: 0.3,
    });
    expect(figure.value).toBeCloseTo(24, 9);
    expect(figure.uncertainty).toBeCloseTo(0.5, 9);
    expect(selfNoise(take, 40, null).notMeasured).toMatch(/calibration/);
    expect(
      selfNoise(null, 40, { kind: 'calibration', toneDbfs: -20, toneDbSpl: 94, gainDb: 40, uncertaintyDb: 0 }).value,
    ).toBeNull();
  });
});
