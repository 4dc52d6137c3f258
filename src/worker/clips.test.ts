import { createHash } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, truncateSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { allocateBlock } from '#core/audio/sample-stream';
import { encodeWav } from '#core/audio/wav-write';
import analyseClipTask from './tasks/analyse-clip';
import inspectClipTask from './tasks/inspect-clip';
import { openClip } from './open-clip';
import salvageClipTask from './tasks/salvage-clip';

const folder = mkdtempSync(join(tmpdir(), 'sediment-worker-'));
afterAll(() => rmSync(folder, { recursive: true }));
const FLAC = join(import.meta.dirname, '../../demo/speech/low.flac');

async function samplesOf(path: string): Promise<Float64Array> {
  const stream = openClip(path);
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

  // Made by flac 1.4.2 (Debian) from noise of sox: -8; --lax -b 4000 -l 32; eight channels with -0; silence with -5.
  // It writes the MD5 of the samples it was given; reading to the end holds ours against it. Among them are constant,
  // fixed and linear predictors, mid/side and wasted bits.
  const files = ['stereo-24-linear', 'stereo-24-order-32', 'eight-16-fixed', 'silence-24'];
  it.each(files)('decodes what the reference encoder makes: %s', async (name) => {
    const path = join(import.meta.dirname, 'testing', `${name}.flac`);
    expect(await inspectClipTask({ path, keepPart: false })).toMatchObject({ ok: true });
    const bytes = readFileSync(path);
    bytes[30] ^= 1;
    const other = join(folder, 'other-md5.flac');
    writeFileSync(other, bytes);
    expect(await inspectClipTask({ path: other, keepPart: false })).toMatchObject({
      ok: false,
      message: expect.stringMatching(/MD5 does not fit/) as string,
    });
  });

  it('finds any changed bit, and says where', async () => {
    const good = readFileSync(join(import.meta.dirname, 'testing', 'stereo-24-linear.flac'));
    const path = join(folder, 'changed.flac');
    for (let at = 200; at < good.length; at += 1777) {
      const bytes = Buffer.from(good);
      bytes[at] ^= 1 << (at % 8);
      writeFileSync(path, bytes);
      const verdict = await inspectClipTask({ path, keepPart: false });
      expect(verdict).toMatchObject({
        ok: false,
        message: expect.stringMatching(
          at < good.length - 9000 ? /damaged at 0\.\d\d s/ : /damaged|too early/,
        ) as string,
      });
    }
  });

  it('is refused in words where there is next to nothing of it, or far too much in it', async () => {
    const refused = async (bytes: Uint8Array) => {
      const path = join(folder, 'odd.flac');
      writeFileSync(path, bytes);
      return inspectClipTask({ path, keepPart: false });
    };
    expect(await refused(Buffer.from('fLaC'))).toMatchObject({ message: expect.stringMatching(/ends within its header, after 4 bytes/) as string }); // prettier-ignore
    const silence = readFileSync(join(import.meta.dirname, 'testing', 'silence-24.flac'));
    // STREAMINFO promises 2³⁵ samples.
    silence[21] |= 0x08;
    expect(await refused(silence)).toMatchObject({ code: 'too-long', message: expect.stringMatching(/that is silence/) as string }); // prettier-ignore
  });

  it('cut off in the middle is refused, and says how much is there', async () => {
    const path = join(folder, 'cut.flac');
    writeFileSync(path, readFileSync(FLAC));
    for (const size of [400_000, 200_000, 60_000]) {
      truncateSync(path, size);
      const verdict = await inspectClipTask({ path, keepPart: false });
      expect(verdict).toMatchObject({
        ok: false,
        code: 'truncated',
        message: expect.stringMatching(/promises 15\.55 s, and \d+\.\d\d s are there/) as string,
      });
    }
  });

  it('with damage inside is refused', async () => {
    const bytes = readFileSync(FLAC);
    bytes.fill(0x55, 100_000, 130_000);
    const path = join(folder, 'damaged.flac');
    writeFileSync(path, bytes);
    expect(await inspectClipTask({ path, keepPart: false })).toMatchObject({
      ok: false,
      message: expect.stringMatching(/is damaged at \d+\.\d\d s/) as string,
    });
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
