import { expect, it } from 'vitest';
import { radioEvents } from './radio-events';

/** Steps of 100 ms at a level, with some of them louder. */
const take = (seconds: number, loud: Readonly<Record<number, number>> = {}): Float64Array =>
  Float64Array.from({ length: 10 * seconds }, (_, i) => 1e-7 * 10 ** ((loud[i] ?? 0) / 10));

it('bursts are counted per minute, with the scatter of their number', () => {
  // Two bursts in ten seconds, one of them three steps long: 12 a minute.
  const found = radioEvents(take(10, { 20: 9, 21: 12, 22: 8, 70: 20 }));
  expect(found).toMatchObject({ count: 2, perMinute: 12 });
  expect(found?.loudestDb).toBeCloseTo(20, 9);
  expect(found?.u).toBeCloseTo(Math.SQRT2 * 6, 9);
});

it('what is no louder than 6 dB above the quiet part is none, and none is not known better than to one', () => {
  expect(radioEvents(take(10, { 20: 5.9 }))).toEqual({ count: 0, perMinute: 0, u: 6, loudestDb: null });
  expect(radioEvents(take(10, { 20: 6.1 }))?.count).toBe(1);
});

it('three steps apart they are one, further apart two', () => {
  expect(radioEvents(take(10, { 20: 10, 23: 10 }))?.count).toBe(1);
  expect(radioEvents(take(10, { 20: 10, 24: 10 }))?.count).toBe(2);
});

it('finds the quiet part where most of the take is disturbed', () => {
  const most = Object.fromEntries(Array.from({ length: 80 }, (_, i) => [i, 15]));
  expect(radioEvents(take(10, most))?.count).toBe(1);
});

it('says nothing of five seconds less, or of digital silence', () => {
  expect(radioEvents(take(4))).toBeNull();
  expect(radioEvents(take(5))).not.toBeNull();
  expect(radioEvents(new Float64Array(100))).toBeNull();
});
