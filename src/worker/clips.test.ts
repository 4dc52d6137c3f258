import { createHash } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, truncateSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { allocateBlock } from '#core/audio/sample-stream';
import { encodeWav } from '#core/audio/wav-write';
import analyseClipTask from './analyse-clip';
import inspectClipTask from './inspect-clip';
import { openClip } from './open-clip';
import salvageClipTask from './salvage-clip';

const folder = mkdtempSync(join(tmpdir(), 'sediment-worker-'));
afterAll(() => rmSync(folder, { recursive: true }));
const FLAC = join(import.meta.dirname, '../../demo/speech/low.flac');

async function samplesOf(path: string): Promise<Float64Array> {
  const stream = await openClip(path);
  const block = allocateBlock(stream.format.channels);
  const all: number[] = [];
  for (let n = await stream.read(block); n > 0; n = await stream.read(block)) all.push(...block[0].subarray(0, n));
  stream.close();
  return Float64Array.from(all);
}

describe('FLAC', () => {
  // The second one was made with ffmpeg -f lavfi -i "sine=997:r=44100:d=0.3" -ac 1 -c:a flac -sample_fmt s16: its last
  // frame is shorter than the others, and nothing follows it.
  it.each([FLAC, join(import.meta.dirname, 'testing/short-last-frame.flac')])(
    'decodes to 16-bit samples exactly: STREAMINFO’s own MD5 of the samples agrees (RFC 9639, 8.2): %s',
    async (path) => {
      const samples = await samplesOf(path);
      const integers = new Int16Array(samples.length);
      samples.forEach((x, i) => (integers[i] = x * 32768));
      const md5 = readFileSync(path).subarray(26, 42).toString('hex');
      expect(createHash('md5').update(new Uint8Array(integers.buffer)).digest('hex')).toBe(md5);
      expect(await inspectClipTask({ path, keepPart: false })).toMatchObject({ ok: true });
    },
  );

  it('cut off in the middle is refused, and says how much is there', async () => {
    const path = join(folder, 'cut.flac');
    writeFileSync(path, readFileSync(FLAC));
    for (const size of [400_000, 200_000, 60_000]) {
      truncateSync(path, size);
      const verdict = await inspectClipTask({ path, keepPart: false });
      expect(verdict).toMatchObject({
        ok: false,
        code: 'truncated',
        message: expect.stringMatching(/promises 15\.55 s/) as string,
      });
    }
  });

  it('with damage inside is refused', async () => {
    const bytes = readFileSync(FLAC);
    bytes.fill(0x55, 100_000, 130_000);
    const path = join(folder, 'damaged.flac');
    writeFileSync(path, bytes);
    expect(await inspectClipTask({ path, keepPart: false })).toMatchObject({ ok: false });
  });
});

describe('tasks', () => {
  it('go by contents, not by the name', async () => {
    const path = join(folder, 'really-flac.wav');
    writeFileSync(path, readFileSync(FLAC));
    expect(await inspectClipTask({ path, keepPart: false })).toMatchObject({ ok: true, format: { container: 'flac' } });
  });

  it('tell progress and give plain numbers back', async () => {
    const told: unknown[] = [];
    const { summary, waveform, stepPowers } = await analyseClipTask({
      path: FLAC,
      progress: { postMessage: (m) => told.push(m) },
    });
    expect(told.length).toBeGreaterThan(0);
    expect(JSON.parse(JSON.stringify(summary))).toEqual(summary);
    expect(waveform.length).toBeGreaterThan(1000);
    expect(stepPowers.length).toBe(Math.floor(10 * summary.format.durationS));
  });

  it('salvage what is there of a truncated file', () => {
    const path = join(folder, 'cut.wav');
    const into = join(folder, 'whole.wav');
    const whole = encodeWav([Float64Array.from({ length: 9001 }, (_, i) => Math.sin(i) / 3)], 8_000, 'pcm24');
    writeFileSync(path, whole.subarray(0, 44 + 3 * 5001 + 2));
    salvageClipTask({ path, into });
    const expected = encodeWav([Float64Array.from({ length: 5001 }, (_, i) => Math.sin(i) / 3)], 8_000, 'pcm24');
    expect(new Uint8Array(readFileSync(into))).toEqual(expected);
  });
});
