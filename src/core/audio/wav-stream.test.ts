import { describe, expect, it } from 'vitest';
import { bytesInMemory, type ByteSource } from './byte-source';
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
