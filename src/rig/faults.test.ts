import { describe, expect, it } from 'vitest';
import { BENCH_FAULTS, type BenchFault } from '#contracts/bench';
import { analyse, lcgNoise, scaled, sine } from '#core/testing/signals';
import { BENCH_INTERFACES, BENCH_MICROPHONES, BENCH_ROOMS, BENCH_TALKERS, partOf } from './bench-parts';
import { addFaults, FAULT_NAMES } from './faults';

const RATE = 48_000;
const withFault = (sound: Float64Array, ...faults: BenchFault[]): Float64Array => {
  const samples = sound.slice();
  addFaults(samples, faults, RATE, 'test');
  return samples;
};
const quiet = scaled(lcgNoise(6 * RATE, 1), -80);

describe('faults of the simulated bench', () => {
  it('have names, and leave a take alone where none is asked for', () => {
    expect(Object.keys(FAULT_NAMES).sort()).toEqual([...BENCH_FAULTS].sort());
    expect(withFault(quiet)).toEqual(quiet);
  });

  it('hum is found as hum of 50 Hz', async () => {
    const { lines } = await analyse([withFault(quiet, 'hum')]);
    expect(lines?.hum.mainsHz).toBe(50);
  });

  it('telephone bursts come 217 times a second (26 frames in 120 ms, 3GPP TS 45.002)', async () => {
    const sound = withFault(quiet, 'radio');
    const rises = sound.reduce((n, x, i) => (i > 0 && sound[i - 1] < 0.005 && x >= 0.005 ? n + 1 : n), 0);
    // In six seconds one burst more or less is 0.17.
    expect(Math.abs(rises / 6 - 216.67)).toBeLessThan(0.2);
    expect((await analyse([sound])).lines?.interference.radioBursts).not.toBeNull();
  });

  it('a cable gap is 60 ms of nothing in the middle, found as a drop-out', async () => {
    const sound = withFault(sine(440, -12, 4), 'gap');
    const zeros = sound.subarray(2 * RATE, 2 * RATE + 0.06 * RATE);
    expect(zeros.every((x) => x === 0)).toBe(true);
    expect((await analyse([sound])).dropOuts.count).toBe(1);
  });

  it.each([
    [100, 0],
    [15_000, 1.5],
  ])('drift lifts %i Hz by %d dB', async (hz, db) => {
    const level = async (x: Float64Array): Promise<number> => (await analyse([x])).level.rmsDbfs;
    const sound = sine(hz, -20, 1);
    expect(Math.abs((await level(withFault(sound, 'drift'))) - (await level(sound)) - db)).toBeLessThan(0.2);
  });

  it('too much gain clips, and a car stays low', async () => {
    expect((await analyse([withFault(sine(440, -6, 1), 'clip')])).level.clippedRuns).toBeGreaterThan(100);
    const { thirdOctave } = await analyse([withFault(quiet, 'car')]);
    const at = (hz: number): number => thirdOctave.find((b) => b.centreHz === hz)?.levelDbfs ?? -200;
    expect(at(50) - at(1000)).toBeGreaterThan(20);
  });
});

describe('parts of the simulated bench', () => {
  it('have names of their own, and a part that is not there is refused with what is', () => {
    for (const shelf of [BENCH_TALKERS, BENCH_ROOMS, BENCH_MICROPHONES, BENCH_INTERFACES]) {
      expect(new Set(shelf.map((p) => p.id)).size).toBe(shelf.length);
    }
    expect(partOf(BENCH_ROOMS, 'loft').t60).toBeGreaterThan(0.2);
    expect(() => partOf(BENCH_ROOMS, 'attic')).toThrow(/loft, crate, hall, quay/);
  });
});
