import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { seededBits, uniform } from '../stats/random';
import { decoded } from '../testing/decoded';
import { BYTES_PER_SAMPLE, type SampleEncoding } from './audio-format';
import { SampleDecoder } from './sample-decoder';
import { encodeSamples } from './sample-encoder';

/** How a DataView reads each of them; the scales are the definition of full scale. */
const PLAIN: Readonly<Record<SampleEncoding, (view: DataView, at: number) => number>> = {
  pcm16: (view, at) => view.getInt16(at, true) / 2 ** 15,
  pcm24: (view, at) => ((view.getInt8(at + 2) << 16) | view.getUint16(at, true)) / 2 ** 23,
  pcm32: (view, at) => view.getInt32(at, true) / 2 ** 31,
  float32: (view, at) => view.getFloat32(at, true),
  float64: (view, at) => view.getFloat64(at, true),
};
const ENCODINGS = Object.keys(PLAIN) as SampleEncoding[];

describe('samples of a file', () => {
  it.each(ENCODINGS.flatMap((encoding) => [1, 2, 3, 8].map((channels) => [encoding, channels] as const)))(
    '%s of %i channels are what a plain reading gives, at any length and from any frame',
    (encoding, channels) => {
      const bits = seededBits(`${encoding} of ${channels}`);
      const width = BYTES_PER_SAMPLE[encoding];
      const capacity = 70;
      const bytes = Uint8Array.from({ length: capacity * channels * width }, () => 256 * uniform(bits));
      const view = new DataView(bytes.buffer);
      const decoder = new SampleDecoder(encoding, channels, capacity, 40);
      decoder.bytes.set(bytes);
      for (const [from, frames] of [
        [0, 1],
        [0, 3],
        [1, 4],
        [7, 5],
        [30, 40],
        [69, 1],
      ] as const) {
        // prettier-ignore
        const into = Array.from({ length: channels }, () => new Float64Array(frames + 1).fill(9));
        decoder.decode(from, frames, into);
        const plain = into.map((_, c) =>
          Float64Array.from({ length: frames + 1 }, (__, i) =>
            i === frames ? 9 : PLAIN[encoding](view, width * ((from + i) * channels + c)),
          ),
        );
        // What stands behind the frames that were asked for stays.
        expect(into).toEqual(plain);
      }
    },
  );

  it('are exact at both ends of the range', () => {
    const ends = { pcm16: [0, 128, 255, 127], pcm24: [0, 0, 128, 255, 255, 127], pcm32: [0, 0, 0, 128, 255, 255, 255, 127] }; // prettier-ignore
    expect([...decoded('pcm16', Uint8Array.from(ends.pcm16))[0]]).toEqual([-1, 1 - 2 ** -15]);
    expect([...decoded('pcm24', Uint8Array.from(ends.pcm24))[0]]).toEqual([-1, 1 - 2 ** -23]);
    expect([...decoded('pcm32', Uint8Array.from(ends.pcm32))[0]]).toEqual([-1, 1 - 2 ** -31]);
  });

  it.each([
    ['pcm16', 15],
    ['pcm24', 23],
  ] as const)('survive a round trip exactly on the grid of %s', (encoding, bits) => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: -(2 ** bits), max: 2 ** bits - 1 }), { minLength: 1, maxLength: 50 }),
        (values) => {
          const samples = Float64Array.from(values, (v) => v / 2 ** bits);
          expect(decoded(encoding, encodeSamples(encoding, [samples], 0, samples.length))[0]).toEqual(samples);
        },
      ),
    );
  });

  it('that do not fit are limited, and rounded to nearest with ties away from zero', () => {
    const samples = [1.5, -1.5, 1.5 / 2 ** 15, -1.5 / 2 ** 15];
    const back = decoded('pcm16', encodeSamples('pcm16', [samples], 0, 4))[0];
    expect([...back]).toEqual([32767 / 32768, -1, 2 / 32768, -2 / 32768]);
  });
});
