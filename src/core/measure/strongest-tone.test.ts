import { describe, expect, it } from 'vitest';
import { lcgNoise, mixed, sine } from '../testing/signals';
import { strongestTone } from './strongest-tone';

const RATE = 16_000;
const at = (hz: number, db: number): Float64Array => sine(hz, db, 1, RATE);

describe('the strongest tone', () => {
  it.each([
    [1000, 0],
    [250.3, -20],
    [93.75, -60],
    [7000, -6],
    [30, -12],
  ])('of %d Hz at %d dBFS is that one', (hz, db) => {
    const found = strongestTone(at(hz, db), RATE);
    // A Hann window spreads a sine over five bins that hold all but a thousandth of its power (0.004 dB).
    expect(found?.dbfs).toBeCloseTo(db, 1);
    expect(Math.abs((found?.hz ?? 0) - hz)).toBeLessThan(0.5);
  });

  it('is found in noise and beside a weaker one, its level that of itself alone', () => {
    const found = strongestTone(mixed(mixed(at(1000, -20), at(3000, -26)), lcgNoise(RATE, 0.01, 3)), RATE);
    expect(found?.hz).toBeCloseTo(1000, 0);
    expect(found?.dbfs).toBeCloseTo(-20, 1);
  });

  it('is none where no tone holds half of the power', () => {
    expect(strongestTone(lcgNoise(RATE, 0.5, 4), RATE)).toBeNull();
    const equal = mixed(mixed(at(500, -20), at(1500, -20)), at(4000, -20));
    expect(strongestTone(equal, RATE)).toBeNull();
    expect(strongestTone(mixed(equal, at(500, -12)), RATE)?.hz).toBeCloseTo(500, 0);
  });

  it('is none in silence, in what is too short, and below 20 Hz', () => {
    expect(strongestTone(new Float64Array(RATE), RATE)).toBeNull();
    expect(strongestTone(at(1000, 0).subarray(0, RATE / 8), RATE)).toBeNull();
    // What leaks upwards from a rumble is no tone; it hides one that is weaker than it.
    expect(strongestTone(mixed(at(4, 0), at(1000, -32)), RATE)?.hz).toBeCloseTo(1000, 0);
    expect(strongestTone(mixed(at(4, 0), at(1000, -40)), RATE)).toBeNull();
  });
});
