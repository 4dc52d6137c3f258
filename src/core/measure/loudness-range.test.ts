import { expect, it } from 'vitest';
import { lufsToPower } from './integrated-loudness';
import { loudnessRange } from './loudness-range';

/** Steps of 100 ms: so many seconds at each loudness. */
const steps = (...parts: readonly (readonly [number, number])[]): number[] =>
  parts.flatMap(([seconds, lufs]) => new Array<number>(10 * seconds).fill(lufsToPower(lufs)));

it('reads what EBU Tech 3342 asks of its test signals 1 to 3: 10, 5 and 20 LU within 1 LU', () => {
  // Twenty seconds at each level (Tech 3342, table 1: sines at −20 and −30, −20 and −15, −40 and −20 dBFS; from memory).
  expect(Math.abs((loudnessRange(steps([20, -20], [20, -30])) ?? NaN) - 10)).toBeLessThan(1);
  expect(Math.abs((loudnessRange(steps([20, -20], [20, -15])) ?? NaN) - 5)).toBeLessThan(1);
  expect(Math.abs((loudnessRange(steps([20, -40], [20, -20])) ?? NaN) - 20)).toBeLessThan(1);
});

it('is the distance of percentiles of windows of 3 s, each the mean of its steps', () => {
  // A hundred windows that grow by steps: a ramp in power, so that each window’s mean is known.
  const ramp = Array.from({ length: 129 }, (_, i) => (i + 1) * 1e-4);
  const means = Array.from({ length: 100 }, (_, w) => 10 * Math.log10((w + 1 + 14.5) * 1e-4));
  const at = (p: number): number => {
    const place = p * 99;
    const low = Math.floor(place);
    return means[low] + (place - low) * (means[low + 1] - means[low]);
  };
  expect(loudnessRange(ramp)).toBeCloseTo(at(0.95) - at(0.1), 9);
});

it('leaves out what lies under −70 LUFS, or 20 LU under the mean of the rest', () => {
  const loud = steps([20, -20], [20, -30]);
  const plain = loudnessRange(loud) ?? NaN;
  // The windows across the edge are a few of many.
  for (const soft of [-75, -52]) expect(Math.abs((loudnessRange([...loud, ...steps([60, soft])]) ?? NaN) - plain)).toBeLessThan(1.5); // prettier-ignore
  expect(loudnessRange([...loud, ...steps([60, -38])])).toBeGreaterThan(plain + 5);
  expect(loudnessRange(steps([20, -71]))).toBeNull();
  expect(loudnessRange(steps([20, -69]))).toBeCloseTo(0, 9);
});

it('needs 3 s', () => {
  const three = steps([3, -20]);
  expect([loudnessRange(three.slice(1)), loudnessRange(three)]).toEqual([null, 0]);
});
