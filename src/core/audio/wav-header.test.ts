import { describe, expect, it } from 'vitest';
import { AudioFileError } from './audio-file-error';
import { bytesInMemory } from './byte-source';
import { readWavHeader, repairedHeader } from './wav-header';
import { encodeWav } from './wav-write';

const ascii = (text: string): number[] => Array.from({ length: text.length }, (_, i) => text.charCodeAt(i));
const u16 = (v: number): number[] => [v & 255, (v >> 8) & 255];
const u32 = (v: number): number[] => [v & 255, (v >>> 8) & 255, (v >>> 16) & 255, (v >>> 24) & 255];
const chunk = (id: string, body: readonly number[], pad = true): number[] => [
  ...ascii(id),
  ...u32(body.length),
  ...body,
  ...(pad && body.length % 2 ? [0] : []),
];
const fmt = (tag: number, channels: number, rate: number, bits: number): number[] => {
  const frame = (channels * bits) / 8;
  return [...u16(tag), ...u16(channels), ...u32(rate), ...u32(rate * frame), ...u16(frame), ...u16(bits)];
};
const riff = (...chunks: readonly (readonly number[])[]): Uint8Array => {
  const body = chunks.flat();
  return Uint8Array.from([...ascii('RIFF'), ...u32(4 + body.length), ...ascii('WAVE'), ...body]);
};
const read = (bytes: Uint8Array, keepPart = false) => readWavHeader(bytesInMemory(bytes), { keepPart });
const refusal = (bytes: Uint8Array): AudioFileError => {
  try {
    read(bytes);
  } catch (error) {
    if (error instanceof AudioFileError) return error;
    throw error;
  }
  throw new Error('was not refused');
};

describe('readWavHeader', () => {
  it('reads a plain file', () => {
    const { format, dataStart } = read(encodeWav([new Float64Array(100)], 44_100, 'pcm16'));
    expect(format).toEqual({
      container: 'wav',
      encoding: 'pcm16',
      sampleRate: 44_100,
      channels: 1,
      channelMask: null,
      frames: 100,
    });
    expect(dataStart).toBe(44);
  });

  it.each([
    [1, 16, 'pcm16'],
    [1, 24, 'pcm24'],
    [1, 32, 'pcm32'],
    [3, 32, 'float32'],
    [3, 64, 'float64'],
  ])('knows format tag %i with %i bits as %s', (tag, bits, encoding) => {
    expect(
      read(riff(chunk('fmt ', fmt(tag, 2, 96_000, bits)), chunk('data', new Array(bits).fill(0)))).format.encoding,
    ).toBe(encoding);
  });

  it('takes chunks in any order, with an odd one padded or not', () => {
    const odd = (pad: boolean) =>
      riff(
        chunk('LIST', [1, 2, 3], pad),
        chunk('data', [1, 2, 3, 4]),
        chunk('junk', [9], pad),
        chunk('fmt ', fmt(1, 1, 48_000, 16)),
      );
    for (const pad of [true, false]) {
      const header = read(odd(pad));
      expect(header.format.frames).toBe(2);
      expect(odd(pad)[header.dataStart]).toBe(1);
    }
  });

  it('reads WAVE_FORMAT_EXTENSIBLE with its channel mask', () => {
    const guid = [...u16(1), 0, 0, 0, 0, 0x10, 0, 0x80, 0, 0, 0xaa, 0, 0x38, 0x9b, 0x71];
    const body = [...fmt(0xfffe, 6, 48_000, 24), ...u16(22), ...u16(24), ...u32(0x3f), ...guid];
    const { format } = read(riff(chunk('fmt ', body), chunk('data', new Array(18).fill(0))));
    expect(format).toMatchObject({ encoding: 'pcm24', channels: 6, channelMask: 0x3f, frames: 1 });
    const foreign = body.slice();
    foreign[30] = 1;
    expect(refusal(riff(chunk('fmt ', foreign), chunk('data', [0, 0, 0]))).code).toBe('unsupported-encoding');
  });

  it('reads the 64-bit sizes of RF64 (EBU Tech 3306) and BW64 (ITU-R BS.2088)', () => {
    for (const [magic, container] of [
      ['RF64', 'rf64'],
      ['BW64', 'bw64'],
    ] as const) {
      const ds64 = chunk('ds64', [...u32(100), ...u32(0), ...u32(8), ...u32(0), ...u32(4), ...u32(0), ...u32(0)]);
      const bytes = Uint8Array.from([
        ...ascii(magic),
        ...u32(0xffffffff),
        ...ascii('WAVE'),
        ...ds64,
        ...chunk('fmt ', fmt(1, 1, 48_000, 16)),
        ...ascii('data'),
        ...u32(0xffffffff),
        1,
        0,
        2,
        0,
        3,
        0,
        4,
        0,
        ...chunk('bext', [1, 1, 1, 1]),
      ]);
      expect(read(bytes).format).toMatchObject({ container, frames: 4 });
    }
  });

  it.each([
    ['an empty file', new Uint8Array(), 'not-audio', /empty/],
    ['text', Uint8Array.from(ascii('Dear diary, today I recorded nothing.')), 'not-audio', /not a WAV/],
    ['a file without data', riff(chunk('fmt ', fmt(1, 1, 48_000, 16))), 'no-audio', /no audio/],
    ['a file without samples', riff(chunk('fmt ', fmt(1, 1, 48_000, 16)), chunk('data', [])), 'no-audio', /no samples/],
    ['a file without format', riff(chunk('data', [0, 0])), 'malformed', /fmt/],
    ['eight bits', riff(chunk('fmt ', fmt(1, 1, 48_000, 8)), chunk('data', [0, 0])), 'unsupported-encoding', /8 bits/],
    [
      'a rate of 4 kHz',
      riff(chunk('fmt ', fmt(1, 1, 4_000, 16)), chunk('data', [0, 0])),
      'unsupported-rate',
      /4000 Hz/,
    ],
    [
      'a rate of 384 kHz',
      riff(chunk('fmt ', fmt(1, 1, 384_000, 16)), chunk('data', [0, 0])),
      'unsupported-rate',
      /384000/,
    ],
    [
      'nine channels',
      riff(chunk('fmt ', fmt(1, 9, 48_000, 16)), chunk('data', new Array(18).fill(0))),
      'unsupported-channels',
      /9 channels/,
    ],
  ] as const)('refuses %s', (_, bytes, code, message) => {
    const error = refusal(bytes);
    expect(error.code).toBe(code);
    expect(error.message).toMatch(message);
  });

  it('refuses a format chunk that contradicts itself', () => {
    const wrong = fmt(1, 2, 48_000, 16);
    wrong[12] = 6;
    expect(refusal(riff(chunk('fmt ', wrong), chunk('data', [0, 0, 0, 0]))).code).toBe('malformed');
  });

  it('says how much of a truncated file is there, and keeps that part on demand', () => {
    const whole = encodeWav([new Float64Array(48_000)], 48_000, 'pcm16');
    const cut = whole.subarray(0, 44 + 2 * 12_000 + 1);
    const error = refusal(cut);
    expect(error.code).toBe('truncated');
    expect(error.truncation).toEqual({ claimedFrames: 48_000, presentFrames: 12_000, sampleRate: 48_000 });
    expect(error.message).toMatch(/promises 1\.00 s.*0\.25 s/);
    expect(read(cut, true).format.frames).toBe(12_000);
  });

  it('reads no more chunks than any recorder writes', () => {
    const sound = [...chunk('fmt ', fmt(1, 1, 48_000, 16)), ...chunk('data', new Array<number>(8).fill(0))];
    const empty = (count: number): number[] => Array.from({ length: count }, () => chunk('junk', [])).flat();
    expect(read(riff(empty(900), sound)).format.frames).toBe(4);
    expect(refusal(riff(empty(1100), sound))).toMatchObject({ code: 'malformed', message: expect.stringMatching(/more than 1000 chunks/) as string }); // prettier-ignore
  });

  it('says that a chunk of 64-bit sizes is too short, not that hours are missing', () => {
    const short = chunk('ds64', [...u32(100), ...u32(0), ...u32(8), ...u32(0), ...u32(4), ...u32(0)]);
    const file = riff(short, chunk('fmt ', fmt(1, 1, 48_000, 16)), chunk('data', [0, 0]));
    file.set(ascii('RF64'));
    expect(refusal(file)).toMatchObject({ message: expect.stringMatching(/"ds64" chunk is too short: 24 bytes/) as string }); // prettier-ignore
  });

  it('treats a header that was never finished as truncated', () => {
    for (const size of [0, 0xffffffff]) {
      const bytes = encodeWav([new Float64Array(4_800)], 48_000, 'pcm16');
      new DataView(bytes.buffer).setUint32(40, size, true);
      expect(refusal(bytes).truncation).toMatchObject({ claimedFrames: null, presentFrames: 4_800 });
    }
  });

  it('repairs a header: the part that is there becomes a sound file', () => {
    const whole = encodeWav([Float64Array.from({ length: 1000 }, (_, i) => i / 2000)], 48_000, 'pcm24');
    const cut = whole.subarray(0, 44 + 3 * 400);
    const source = bytesInMemory(cut);
    const header = readWavHeader(source, { keepPart: true });
    const repaired = Uint8Array.from([...repairedHeader(source, header), ...cut.subarray(header.dataStart)]);
    expect(read(repaired)).toMatchObject({ format: { frames: 400, encoding: 'pcm24' }, truncatedFrom: null });
  });
});
