import { expect, it } from 'vitest';
import { bytesOf, doublesFrom, floatsFrom } from './numbers-from-bytes';

/** The bytes somewhere in the middle of a larger store, as drivers with a pool give them, at an odd place. */
function pooled(bytes: Uint8Array): Buffer {
  const store = Buffer.alloc(4096, 0x7f);
  store.set(bytes, 1001);
  return store.subarray(1001, 1001 + bytes.length);
}

it('numbers come back from a window of a pooled buffer, and from nothing else of it', () => {
  const values = Float64Array.of(-70.25, 0, Math.PI);
  expect(doublesFrom(pooled(bytesOf(values)))).toEqual(values);
  const floats = Float32Array.of(-1, 0.5, 1);
  expect(floatsFrom(pooled(bytesOf(floats)))).toEqual(floats);
  expect(doublesFrom(new Uint8Array())).toEqual(new Float64Array());
});

it('are a copy: what is done to them does not reach the driver', () => {
  const kept = pooled(bytesOf(Float64Array.of(1)));
  doublesFrom(kept)[0] = 2;
  expect(doublesFrom(kept)).toEqual(Float64Array.of(1));
});

it('of part of an array only that part is kept', () => {
  expect(doublesFrom(bytesOf(Float64Array.of(1, 2, 3, 4).subarray(1, 3)))).toEqual(Float64Array.of(2, 3));
});
