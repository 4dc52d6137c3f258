import { describe, expect, it } from 'vitest';
import { passageLikeness } from './passage-likeness';

/** Steps of 100 ms by their levels in dB. */
const powers = (levels: readonly number[]): Float64Array => Float64Array.from(levels, (l) => 10 ** (l / 10));
/** A hundred and twenty steps as loud as each other, with dips of 20 dB. */
const withDips = (...at: number[]): Float64Array =>
  powers(Array.from({ length: 120 }, (_, i) => (at.some((a) => Math.abs(i - a) <= 3) ? -30 : -10)));

describe('how alike two readings are', () => {
  it('the same course is the same, whatever its level', () => {
    const course = withDips(30, 70);
    expect(passageLikeness(course, course)).toBeCloseTo(1, 12);
    expect(passageLikeness(course, course.map((p) => p / 50))).toBeCloseTo(1, 9); // prettier-ignore
  });

  it('one may run ahead by a sixtieth of all, and no further', () => {
    expect(passageLikeness(withDips(60), withDips(62))).toBeCloseTo(1, 9);
    expect(passageLikeness(withDips(62), withDips(60))).toBeCloseTo(1, 9);
    expect(passageLikeness(withDips(60), withDips(64))).toBeLessThan(0.8);
    expect(passageLikeness(withDips(60), withDips(80))).toBeLessThan(0.1);
  });

  it('is trimmed to what is loud, and brought to equal length', () => {
    const course = withDips(30, 70);
    const padded = Float64Array.from([...powers(new Array<number>(40).fill(-60)), ...course, ...powers(new Array<number>(25).fill(-60))]); // prettier-ignore
    expect(passageLikeness(padded, course)).toBeCloseTo(1, 9);
    const twice = Float64Array.from([...course].flatMap((p) => [p, p]));
    expect(passageLikeness(twice, course)).toBeGreaterThan(0.97);
  });

  it('nothing more than 30 dB below the loudest step counts', () => {
    const deep = (db: number) => powers(Array.from({ length: 120 }, (_, i) => (i >= 50 && i < 70 ? db : -10)));
    expect(passageLikeness(deep(-41), deep(-90))).toBeCloseTo(1, 9);
    // The rest wanders a little, or there would be nothing to compare.
    expect(passageLikeness(withDips(30), powers(Array.from({ length: 120 }, (_, i) => -10 - (i % 2))))).toBeLessThan(0.5); // prettier-ignore
  });

  it('says nothing of silence, of a click, or of what never changes', () => {
    const course = withDips(30);
    expect(passageLikeness(new Float64Array(120), course)).toBeNull();
    expect(passageLikeness(course, powers(new Array<number>(120).fill(-71)))).toBeNull();
    const click = powers(Array.from({ length: 120 }, (_, i) => (i === 60 || i === 61 ? -10 : -60)));
    expect(passageLikeness(course, click)).toBeNull();
    expect(passageLikeness(course, powers(new Array<number>(120).fill(-10)))).toBeNull();
    expect(passageLikeness(new Float64Array(), course)).toBeNull();
  });
});
