import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bytesInMemory, type ByteSource } from './byte-source';
import { decodeSamples, encodeSamples } from './sample-codec';
import { allocateBlock, BLOCK_FRAMES } from './sample-stream';
import { openWav } from './wav-stream';
import { encodeWav, wavHeader } from './wav-write';

function readAll(source: ByteSource): Float64Array[] {
  const stream = openWav(source);
  const block = allocateBlock(stream.format.channels);
  const all = block.map((): number[] => []);
  for (let n = stream.read(block) as number; n > 0; n = stream.read(block) as number) {
    block.forEach((samples, c) => all[c].push(...samples.subarray(0, n)));
  }
  return all.map((a) => Float64Array.from(a));
}

describe('openWav', () => {
  it('gives back what was written, over several blocks and channels', () => {
    const frames = 2 * BLOCK_FRAMES + 17;
    const left = Float64Array.from({ length: frames }, (_, i) => Math.round(3000 * Math.sin(i / 9)) / 2 ** 15 + 0);
    const right = left.map((x) => 0.25 - x / 2);
    const [l, r] = readAll(bytesInMemory(encodeWav([left, right], 48_000, 'pcm24')));
    expect(l).toEqual(left);
    expect(r).toEqual(right);
  });

  it('never asks for more than eight blocks at a time', () => {
    const inner = bytesInMemory(encodeWav([new Float64Array(20 * BLOCK_FRAMES)], 48_000, 'pcm16'));
    let largest = 0;
    readAll({
      size: inner.size,
      read: (into, at) => ((largest = Math.max(largest, into.length)), inner.read(into, at)),
    });
    expect(largest).toBe(8 * 2 * BLOCK_FRAMES);
  });

  it.each([NaN, Infinity, -Infinity])('refuses a sample that is %s, with channel and time', (bad) => {
    const samples = new Float64Array(20_000);
    samples[12_000] = bad;
    const bytes = encodeWav([new Float64Array(20_000), samples], 48_000, 'float32');
    expect(() => readAll(bytesInMemory(bytes))).toThrow(/Channel 2.*0\.2500 s/);
  });

  it('notices when the file becomes shorter while it is read', () => {
    const bytes = encodeWav([new Float64Array(1000)], 48_000, 'pcm16');
    const shrunk = {
      size: bytes.length,
      read: (into: Uint8Array, at: number) => bytesInMemory(bytes.subarray(0, 500)).read(into, at),
    };
    expect(() => readAll(shrunk)).toThrow(/shorter/);
  });
});

describe('samples', () => {
  it.each([
    ['pcm16', 15],
    ['pcm24', 23],
  ] as const)('%s survives a round trip exactly on its grid', (encoding, bits) => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: -(2 ** bits), max: 2 ** bits - 1 }), { minLength: 1, maxLength: 50 }),
        (values) => {
          const samples = Float64Array.from(values, (v) => v / 2 ** bits);
          const back = new Float64Array(samples.length);
          decodeSamples(encoding, encodeSamples(encoding, [samples], 0, samples.length), [back], samples.length);
          expect(back).toEqual(samples);
        },
      ),
    );
  });

  it('decodes 24-bit mono by whole words as it does byte by byte, at any length', () => {
    for (const frames of [1, 3, 4, 5, 8, 1023]) {
      const bytes = Uint8Array.from({ length: 3 * frames }, (_, i) => (i * 89 + 13) % 256);
      const [fast, plain] = [new Float64Array(frames), new Float64Array(frames)];
      decodeSamples('pcm24', bytes, [fast], frames);
      const shifted = new Uint8Array(3 * frames + 1);
      shifted.set(bytes, 1);
      decodeSamples('pcm24', shifted.subarray(1), [plain], frames);
      expect(fast).toEqual(plain);
    }
  });

  it('limits what does not fit, and rounds to nearest with ties away from zero', () => {
    const back = new Float64Array(4);
    const samples = [1.5, -1.5, 1.5 / 2 ** 15, -1.5 / 2 ** 15];
    decodeSamples('pcm16', encodeSamples('pcm16', [samples], 0, 4), [back], 4);
    expect([...back]).toEqual([32767 / 32768, -1, 2 / 32768, -2 / 32768]);
  });

  it('decodes 32-bit integers and 64-bit floats', () => {
    const bytes = new Uint8Array(16);
    const view = new DataView(bytes.buffer);
    view.setInt32(0, -(2 ** 31), true);
    view.setInt32(4, 2 ** 30, true);
    const out = new Float64Array(2);
    decodeSamples('pcm32', bytes, [out], 2);
    expect([...out]).toEqual([-1, 0.5]);
    view.setFloat64(0, 0.1, true);
    view.setFloat64(8, -2.5, true);
    decodeSamples('float64', bytes, [out], 2);
    expect([...out]).toEqual([0.1, -2.5]);
  });
});

describe('wavHeader', () => {
  it('turns to RF64 beyond 4 GiB', () => {
    const header = wavHeader({ encoding: 'float32', sampleRate: 192_000, channels: 8, frames: 2e8 });
    const view = new DataView(header.buffer);
    expect(String.fromCharCode(...header.subarray(0, 4))).toBe('RF64');
    expect(view.getBigUint64(28, true)).toBe(BigInt(2e8 * 32));
    const opened = openWav({
      size: header.length + 2e8 * 32,
      read: (into, at) => bytesInMemory(header).read(into, at),
    });
    expect(opened.format).toMatchObject({ container: 'rf64', frames: 2e8, channels: 8 });
  });

  it('closes an odd number of data bytes with a zero', () => {
    expect(encodeWav([new Float64Array(1)], 48_000, 'pcm24').length).toBe(44 + 3 + 1);
  });
});
