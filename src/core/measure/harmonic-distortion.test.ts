import { describe, expect, it } from 'vitest';
import { exponentialSweep } from '../dsp/exponential-sweep';
import { standardDeviation } from '../stats/moments';
import { colouredNoise } from '../testing/noisy-takes';
import { mixed } from '../testing/signals';
import { distortionMeasurement, harmonicDistortion } from './harmonic-distortion';
import { impulseResponse } from './impulse-response';

const RATE = 16_000;
const SWEEP = exponentialSweep({ lowHz: 40, highHz: 7000, seconds: 2 }, RATE);
const HZ = 500;

/** The sweep bent by x + a2·x², half a second of room around it, and white noise of that RMS beside it. */
function read(a2: number, noiseRms: number, seed = 1, gain = 1) {
  const bent = new Float64Array(SWEEP.length + RATE);
  SWEEP.forEach((x, i) => (bent[i + RATE / 2] = x + a2 * x * x));
  const noise = colouredNoise(bent.length / 48_000, noiseRms, null, `distortion ${seed}`);
  const recorded = mixed(bent, noise).map((x) => gain * x);
  return harmonicDistortion(impulseResponse(SWEEP, recorded, RATE), HZ);
}

/** Closed form of the square: the second harmonic is a2·A²/2. */
const second = (a2: number): number => 20 * Math.log10((a2 * SWEEP.reduce((m, x) => Math.max(m, x), 0)) / 2);

describe('distortion from a sweep beside noise', () => {
  it('is exact and sure where there is next to none', () => {
    const found = read(0.02, 0);
    expect(found.bound).toBe('exact');
    expect(found.thdDb).toBeCloseTo(second(0.02), 1);
    expect(found.uncertaintyDb).toBeLessThan(0.01);
    expect(found.noiseDb).toBeLessThan(second(0.02) - 40);
  });

  it('is re the fundamental: a gain changes nothing', () => {
    const [loud, soft] = [read(0.01, 0.0005), read(0.01, 0.0005, 1, 0.05)];
    expect(loud.orders.map((o) => o.order)).toEqual([2, 3, 4, 5]);
    for (const of of [(f: typeof loud) => f.thdDb, (f: typeof loud) => f.noiseDb, (f: typeof loud) => f.uncertaintyDb])
      expect(of(soft)).toBeCloseTo(of(loud) ?? NaN, 6);
  });

  // Twenty noises: their scatter is known to a sixth, the mean of what each says of itself better than that.
  it('scatters by what its ± says, and about the truth: the noise is taken off', () => {
    const found = Array.from({ length: 20 }, (_, seed) => read(0.004, 0.0005, seed + 1));
    expect(found.every((f) => f.bound === 'exact')).toBe(true);
    const errors = found.map((f) => (f.thdDb ?? NaN) - second(0.004));
    const said = found.reduce((sum, f) => sum + (f.uncertaintyDb ?? NaN), 0) / found.length;
    const scatter = standardDeviation(errors);
    expect(scatter).toBeGreaterThan(0.1);
    expect(said / scatter).toBeGreaterThan(0.6);
    expect(said / scatter).toBeLessThan(1.8);
    const mean = errors.reduce((sum, e) => sum + e, 0) / errors.length;
    expect(Math.abs(mean)).toBeLessThan((3 * scatter) / Math.sqrt(found.length));
  });

  it('is a limit where it stands less than 3 dB above the noise', () => {
    for (const seed of [1, 2, 3]) {
      const found = read(0, 0.01, seed);
      expect(found).toMatchObject({ bound: 'at-most', uncertaintyDb: null });
      // Nothing is taken off a limit: it is all that was read.
      const all = found.orders.reduce((sum, o) => sum + 10 ** ((o.db ?? -Infinity) / 10), 0);
      expect(found.thdDb).toBeCloseTo(10 * Math.log10(all), 9);
      expect((found.thdDb ?? 0) - (found.noiseDb ?? 0)).toBeLessThan(3);
    }
  });
});

describe('the figure of distortion', () => {
  it('is a limit with the noise that sets it, or a value with its ±', () => {
    const limit = distortionMeasurement(read(0, 0.01), 'swept');
    expect(limit).toMatchObject({ quantity: 'thdSweep', bound: 'at-most', uncertainty: null, condition: 'harmonics 2–5 at 500 Hz, swept' }); // prettier-ignore
    expect(limit.settings).toEqual({ noiseDb: read(0, 0.01).noiseDb });
    const exact = distortionMeasurement(read(0.02, 0.001), 'swept');
    expect(exact).toMatchObject({ bound: 'exact', uncertainty: read(0.02, 0.001).uncertaintyDb });
  });

  it('is none where the sweep ends below the second harmonic', () => {
    const none = harmonicDistortion(impulseResponse(SWEEP, mixed(SWEEP, new Float64Array(SWEEP.length + RATE)), RATE), 4000); // prettier-ignore
    expect(none).toMatchObject({ thdDb: null, noiseDb: null, bound: 'exact', uncertaintyDb: null });
    expect(none.orders.map((o) => o.db)).toEqual([null, null, null, null]);
    expect(distortionMeasurement(none, 'swept')).toMatchObject({ quantity: 'thdSweep', value: null, notMeasured: 'No harmonic lies within the sweep.' }); // prettier-ignore
  });
});
