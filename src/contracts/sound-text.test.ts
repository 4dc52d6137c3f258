import { expect, it } from 'vitest';
import { unsoundText } from './sound-text';

it('finds what could not be stored and read again, at any depth', () => {
  expect(unsoundText({ a: ['fine', { b: 'ü 𝄞 — ok' }], n: 1, t: true, nothing: null })).toBeNull();
  expect(unsoundText({ a: [{ b: 'x\u0000' }] })).toEqual({
    field: 'a.0.b',
    message: 'must not hold the character NUL',
  });
  for (const half of ['\ud834', 'x\udd1e', '\udd1e\ud834'])
    expect(unsoundText({ text: half })).toMatchObject({
      field: 'text',
      message: expect.stringMatching(/surrogate/) as string,
    });
  expect(unsoundText({ a: { 'x\u0000': 1 } })).toMatchObject({ field: 'a' });
  expect(unsoundText('\u0000')).toMatchObject({ field: null });
  expect(unsoundText(new Uint8Array(30_000))).toBeNull();
});

it('refuses more values than anybody sends, without looking at each', () => {
  expect(unsoundText({ a: new Array(20_000).fill(0) })).toMatchObject({ message: 'holds more than 20000 values' });
  expect(unsoundText({ a: new Array(3_000_000).fill(0) })).toMatchObject({ field: 'a', message: expect.stringMatching(/3000000 entries/) as string }); // prettier-ignore
  expect(unsoundText({ a: new Array(19_000).fill(0) })).toBeNull();
});
