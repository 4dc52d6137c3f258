import { describe, expect, it } from 'vitest';
import type { PowerSpectrum } from '../dsp/welch';
import { dbfs } from '../units';
import { hum, humMeasurement, strongest } from './hum';
import { interference, interferenceMeasurement } from './interference';
import { leastAboveFloorDb, tonalLines, type TonalLine } from './tonal-lines';

const line = (hz: number, levelDbfs = -80): TonalLine => ({
  hz,
  levelDbfs: dbfs(levelDbfs),
  aboveFloorDb: 20 as never,
});
/** Nothing but a floor, of so many frames that its median is its mean. */
const floorOf = (power: number, binHz = 1, bins = 24_000): PowerSpectrum => ({
  powers: new Float64Array(bins).fill(power),
  binHz,
  frames: 1e9,
});
const FLOOR = floorOf(1e-14);
const sum = (...levels: number[]): number => 10 * Math.log10(levels.reduce((s, l) => s + 10 ** (l / 10), 0));

describe('hum among lines', () => {
  it('adds up mains and harmonics to the fifteenth', () => {
    const lines = [line(50, -70), line(100, -80), line(150, -80), line(750, -90), line(800, -60), line(1000, -60)];
    const found = hum(lines, FLOOR);
    expect(found.mainsHz).toBe(50);
    expect(found.lines.map((l) => l.hz)).toEqual([50, 100, 150, 750]);
    expect(found.totalDbfs).toBeCloseTo(sum(-70, -80, -80, -90), 9);
  });

  it('is of the mains whose own lines hold more power; lines of both decide nothing', () => {
    expect(hum([line(50, -80), line(60, -79)], FLOOR).mainsHz).toBe(60);
    expect(hum([line(50, -78), line(60, -79)], FLOOR).mainsHz).toBe(50);
    expect(hum([line(120, -80), line(300, -40)], FLOOR)).toMatchObject({ mainsHz: 60, lines: [{ hz: 120 }, { hz: 300 }] }); // prettier-ignore
    expect(hum([line(300, -40), line(600, -40)], FLOOR).mainsHz).toBeNull();
  });

  it('asks for one of the first three harmonics', () => {
    expect(hum([line(200), line(250), line(350)], FLOOR).mainsHz).toBeNull();
    expect(hum([line(150), line(250), line(350)], FLOOR)).toMatchObject({ mainsHz: 50, lines: { length: 3 } });
    expect(hum([line(180), line(420)], FLOOR)).toMatchObject({ mainsHz: 60, lines: { length: 2 } });
  });

  it('follows mains that wander by one part in two hundred, or as far as bins can tell', () => {
    expect(hum([line(149.3)], floorOf(1e-14, 0.1, 24_000)).mainsHz).toBe(50);
    expect(hum([line(149.2)], floorOf(1e-14, 0.1, 24_000)).mainsHz).toBeNull();
    expect(hum([line(50.74)], FLOOR).mainsHz, 'three quarters of a bin').toBe(50);
    expect(hum([line(50.76)], FLOOR).mainsHz).toBeNull();
  });

  it('says how weak a line would have been missed: a sine whose highest bin, two thirds of it, just stands out', () => {
    const least = leastAboveFloorDb(FLOOR.frames, FLOOR.powers.length);
    const expected = 10 * Math.log10(2 * 1.5 * 1e-14) + least;
    expect(hum([], FLOOR).limitDbfs).toBeCloseTo(expected, 6);
    // The worst of the places where hum would stand.
    const uneven = floorOf(1e-14);
    uneven.powers.fill(1e-12, 70, 180);
    expect(hum([], uneven).limitDbfs).toBeCloseTo(expected + 20, 6);
  });

  it('is a figure, a limit, or the reason why there is neither', () => {
    expect(humMeasurement(hum([line(60, -70), line(120, -65)], FLOOR))).toMatchObject({
      bound: 'exact',
      settings: { mainsHz: 60, lines: 2, strongestHz: 120 },
    });
    const limit = humMeasurement(hum([], FLOOR));
    expect(limit).toMatchObject({ bound: 'at-most', settings: { found: false } });
    expect(limit.value).toBeCloseTo(hum([], FLOOR).limitDbfs, 9);
    expect(humMeasurement(hum([], floorOf(0))).notMeasured).toBe('The silent part is digital silence.');
    expect(humMeasurement(null).notMeasured).toBe('The clip holds no silent part that is long enough.');
    expect(strongest([line(1, -80), line(2, -70), line(3, -75)]).hz).toBe(2);
  });
});

describe('lines that are no hum', () => {
  const none = hum([], FLOOR);

  it('leaves the hum out, and adds up the rest', () => {
    const lines = [line(50, -60), line(100, -60), line(333, -80), line(5000, -80)];
    const found = interference(lines, hum(lines, FLOOR), 1);
    expect(found.lines.map((l) => l.hz)).toEqual([333, 5000]);
    expect(found.totalDbfs).toBeCloseTo(sum(-80, -80), 9);
    expect(interference(lines.slice(0, 2), hum(lines, FLOOR), 1)).toMatchObject({ totalDbfs: null, lines: [] });
  });

  it('tells the whine of a bus by three lines a kilohertz apart, up to 20 kHz', () => {
    const [one, two, three] = [line(1000, -70), line(2000, -80), line(20_000, -80)];
    expect(interference([one, two], none, 1).busWhine).toBeNull();
    expect(interference([one, two, line(21_000)], none, 1).busWhine).toBeNull();
    const found = interference([one, line(1500), two, three], none, 1).busWhine;
    expect(found).toMatchObject({ spacingHz: 1000, lines: [{ hz: 1000 }, { hz: 2000 }, { hz: 20_000 }] });
    expect(found?.totalDbfs).toBeCloseTo(sum(-70, -80, -80), 9);
    expect(interference([one, line(2003), three], none, 1).busWhine, 'clocks are quartz').toBeNull();
    expect(interference([one, line(2001.9), three], none, 1).busWhine?.lines.length).toBe(3);
  });

  it('tells the bursts of a telephone by four lines 216.7 Hz apart, up to the sixteenth', () => {
    const burst = (n: number): TonalLine => line((650 / 3) * n);
    expect(interference([1, 2, 3].map(burst), none, 1).radioBursts).toBeNull();
    expect(interference([1, 2, 3, 17].map(burst), none, 1).radioBursts).toBeNull();
    expect(interference([1, 2, 3, 16].map(burst), none, 1).radioBursts?.lines.length).toBe(4);
    // 13,000 Hz is line 13 of a bus and line 60 of a telephone; 2,600 Hz is the twelfth of bursts alone.
    const both = [1000, 2000, 3000].map((hz) => line(hz));
    expect(interference([...both, ...[1, 2, 3, 12].map(burst)], none, 1)).toMatchObject({
      busWhine: { lines: { length: 3 } },
      radioBursts: { lines: { length: 4 } },
    });
  });

  it('is a figure, a limit, or the reason why there is neither', () => {
    const lines = [line(1000, -70), line(2000, -60), line(3000, -80)];
    const found = interferenceMeasurement(interference(lines, none, 1), dbfs(-120));
    expect(found).toMatchObject({ bound: 'exact', settings: { lines: 3, strongestHz: 2000, busWhine: true, radioBursts: false } }); // prettier-ignore
    expect(found.value).toBeCloseTo(sum(-70, -60, -80), 9);
    const nothing = interference([], none, 1);
    expect(interferenceMeasurement(nothing, dbfs(-120))).toMatchObject({ value: -120, bound: 'at-most' });
    expect(interferenceMeasurement(nothing, null).notMeasured).toBe('The silent part is digital silence.');
    expect(interferenceMeasurement(nothing, dbfs(-Infinity)).notMeasured).toBe('The silent part is digital silence.');
    expect(interferenceMeasurement(null, null).notMeasured).toBe('The clip holds no silent part that is long enough.');
  });
});

describe('lines of a spectrum', () => {
  /** A sine that stands on a bin, under a Hann window: two thirds of its power in that bin, a sixth on either side. */
  const withSine = (spectrum: PowerSpectrum, bin: number, power: number): PowerSpectrum => {
    const powers = spectrum.powers.slice();
    powers[bin] += (power * 2) / 3;
    powers[bin - 1] += power / 6;
    powers[bin + 1] += power / 6;
    return { ...spectrum, powers };
  };

  it('reads a sine with the floor taken off, and how far its bin stands out', () => {
    const [found, ...rest] = tonalLines(withSine(FLOOR, 440, 5e-9), 20, 20_000);
    expect(rest).toEqual([]);
    expect(found.hz).toBeCloseTo(440, 9);
    expect(found.levelDbfs).toBeCloseTo(10 * Math.log10(2 * 5e-9), 9);
    expect(found.aboveFloorDb).toBeCloseTo(10 * Math.log10(((5e-9 * 2) / 3 + 1e-14) / 1e-14), 6);
  });

  it('asks for 10 dB where frames are many, and looks between its limits alone', () => {
    const at = (bin: number, aboveDb: number, low = 20, high = 20_000) =>
      tonalLines(withSine(FLOOR, bin, 1.5 * 1e-14 * (10 ** (aboveDb / 10) - 1)), low, high).length;
    expect([at(440, 9.9), at(440, 10.1)]).toEqual([0, 1]);
    expect([at(19, 30), at(20, 30), at(20_000, 30), at(20_001, 30)]).toEqual([0, 1, 1, 0]);
  });

  it('a hill of noise is no line: a sine falls by 7 dB and more within three bins', () => {
    const hill = FLOOR.powers.slice();
    [-3, -2, -1, 0, 1, 2, 3].forEach((d) => (hill[1000 + d] = 1e-12 * 10 ** (-(d ** 2) * 0.05)));
    expect(tonalLines({ ...FLOOR, powers: hill }, 20, 20_000)).toEqual([]);
    [-3, -2, -1, 0, 1, 2, 3].forEach((d) => (hill[1000 + d] = 1e-12 * 10 ** (-(d ** 2) * 0.09)));
    expect(tonalLines({ ...FLOOR, powers: hill }, 20, 20_000).length).toBe(1);
  });

  it('asks for more where frames are few, as noise alone makes peaks', () => {
    // One frame: exponentially distributed powers pass ln(100·bins) once in a hundred spectra (and the bound is above).
    const one = leastAboveFloorDb(1, 1000);
    expect(one).toBeGreaterThan(10 * Math.log10(Math.log(100 * 1000)));
    expect(one).toBeLessThan(10 * Math.log10(Math.log(100 * 1000)) + 1.5);
    // M·(x − 1 − ln x) = ln(100·bins), checked by putting the answer in.
    const x = 10 ** (leastAboveFloorDb(2, 1000) / 10);
    expect(1.5 * (x - 1 - Math.log(x))).toBeCloseTo(Math.log(1e5), 6);
    expect(leastAboveFloorDb(1e6, 1000)).toBe(10);
    // The median of one frame's powers lies ln 2 below their mean.
    const single = { ...FLOOR, frames: 1 };
    const [found] = tonalLines(withSine(single, 440, 1e-10), 20, 20_000);
    expect(found.aboveFloorDb).toBeCloseTo(10 * Math.log10(((1e-10 * 2) / 3 + 1e-14) / (1e-14 / Math.LN2)), 6);
  });

  /** Under a Hann window a sine between two bins stands in five; its amplitude at a distance of x bins (Harris 1978). */
  const hannPower = (x: number): number => {
    if (Math.abs(x) < 1e-9) return 1;
    if (Math.abs(Math.abs(x) - 1) < 1e-9) return 0.25;
    return (Math.sin(Math.PI * x) / (Math.PI * x) / (1 - x * x)) ** 2;
  };
  const sineAt = (spectrum: PowerSpectrum, hz: number, power: number): PowerSpectrum => {
    const powers = spectrum.powers.slice();
    const bin = hz / spectrum.binHz;
    for (let k = Math.ceil(bin - 3); k <= bin + 3; k++) powers[k] += power * (2 / 3) * hannPower(k - bin);
    return { ...spectrum, powers };
  };

  it.each([
    [441.3, 1],
    [440.6, 1],
    [100.35, 0.5],
    [51.2, 0.5],
    [15_000.2, 0.7],
  ])('finds a sine at %f Hz between bins of %f Hz, to a twentieth of a bin and to 0.1 dB', (hz, binHz) => {
    const [found, ...rest] = tonalLines(sineAt(floorOf(1e-14, binHz, 40_000), hz, 5e-9), 20, 20_000);
    expect(rest).toEqual([]);
    expect(Math.abs(found.hz - hz)).toBeLessThan(0.05 * binHz);
    expect(Math.abs(found.levelDbfs + 80)).toBeLessThan(0.1);
  });

  it('takes the floor from the median around, so that lines beside it, and a step, do not raise it', () => {
    const crowded = [425, 433, 447, 455].reduce((s, hz) => sineAt(s, hz, 1e-8), FLOOR);
    const found = tonalLines(sineAt(crowded, 440, 1e-12), 20, 20_000).find((l) => Math.round(l.hz) === 440);
    expect(found?.levelDbfs).toBeCloseTo(10 * Math.log10(2e-12), 1);
    expect(found?.aboveFloorDb).toBeCloseTo(10 * Math.log10(((1e-12 * 2) / 3 + 1e-14) / 1e-14), 1);
    // Forty bins to either side, but for the nearest three: raised from there on, it is another floor.
    const raised = (from: number, to: number) => {
      const powers = FLOOR.powers.slice();
      for (const side of [1, -1]) for (let d = from; d <= to; d++) powers[1000 + side * d] = 1e-12;
      return tonalLines(sineAt({ ...FLOOR, powers }, 1000, 1e-7), 990, 1010)[0].aboveFloorDb;
    };
    const plain = 10 * Math.log10((1e-7 * 2) / 3 / 1e-14);
    expect(raised(1, 3)).toBeCloseTo(plain, 3);
    expect(raised(4, 21)).toBeCloseTo(plain, 3);
    expect(raised(4, 23)).toBeCloseTo(plain - 20, 1);
    expect(raised(22, 41)).toBeCloseTo(plain - 20, 1);
    expect(raised(41, 80)).toBeCloseTo(plain, 3);
  });

  it('at the ends of the spectrum takes what floor there is', () => {
    const low = tonalLines(sineAt(FLOOR, 10, 5e-9), 5, 20)[0];
    expect([Math.round(low.hz), Math.round(low.aboveFloorDb)]).toEqual([10, 55]);
    const short = floorOf(1e-14, 1, 1000);
    expect(tonalLines(sineAt(short, 990, 5e-9), 20, 20_000).map((l) => Math.round(l.hz))).toEqual([990]);
    expect(tonalLines(sineAt(short, 998, 5e-9), 20, 20_000)).toEqual([]);
  });

  it('two bins that are equally high are one line; a flank, or a wall on one side, is none', () => {
    const powers = FLOOR.powers.slice();
    [1e-13, 1e-9, 1e-9, 1e-13].forEach((p, i) => (powers[500 + i] = p));
    expect(tonalLines({ ...FLOOR, powers }, 20, 20_000).length).toBe(1);
    // Higher two bins further on either side: that one is the line.
    for (const side of [2, -2]) {
      const twin = FLOOR.powers.slice();
      twin[500] = 1e-10;
      twin[500 + side] = 1e-9;
      expect(tonalLines({ ...FLOOR, powers: twin }, 20, 20_000).map((l) => Math.round(l.hz)), `${side}`).toEqual([500 + side]); // prettier-ignore
      const wall = FLOOR.powers.slice();
      wall[500] = 1e-10;
      for (let d = 3; d < 60; d++) wall[500 + Math.sign(side) * d] = 2.1e-11;
      expect(tonalLines({ ...FLOOR, powers: wall }, 480, 520)).toEqual([]);
    }
  });
});
