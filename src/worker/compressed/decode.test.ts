import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { allocateBlock } from '#core/audio/sample-stream';
import { openClip } from '../open-clip';
import decodeClipTask from '../tasks/decode-clip';

// A sine of 997 Hz and 0.6 s, made and packed by ffmpeg 5.1 (Debian), bit-exact:
//   ffmpeg -f lavfi -i sine=frequency=997:sample_rate=48000:duration=0.6 -af volume=4dB -c:a pcm_s16le short.wav
//   ffmpeg -i short.wav -ac 1 -c:a libmp3lame -b:a 64k tone.mp3        (libvorbis 64k tone.ogg, libopus 48k tone.opus,
//   aac 48k tone.m4a); with a grey picture: -ac 2 -c:a libopus film.webm, -ac 1 -ar 8000 -c:a pcm_s24le film.mov
// What ffmpeg decodes of them (-f f32le, frames and the plain RMS of the middle half of the first channel, dB):
const BY_FFMPEG = [
  ['tone.mp3', { container: 'MP3', codec: 'mp3', bitRateKbps: 64 }, 48_000, 1, 28_800, -17.52],
  ['tone.opus', { container: 'Ogg', codec: 'opus' }, 48_000, 1, 28_800, -17.082],
  ['film.webm', { container: 'WebM', codec: 'opus' }, 48_000, 2, 28_800, -20.091],
  ['film.mov', { container: 'QuickTime File Format', codec: 'pcm-s24', bitRateKbps: 192 }, 8_000, 1, 4_800, -17.075],
] as const;

const folder = mkdtempSync(join(tmpdir(), 'sediment-decode-'));
const fixture = (name: string): string => join(import.meta.dirname, '../testing', name);

async function samplesOf(path: string): Promise<Float64Array> {
  const stream = openClip(path);
  const block = allocateBlock(stream.format.channels);
  const all: number[] = [];
  for (let n = await stream.read(block); n > 0; n = await stream.read(block)) all.push(...block[0].subarray(0, n));
  stream.close();
  return Float64Array.from(all);
}

const middleRms = (x: Float64Array): number => {
  const half = x.subarray(Math.floor(x.length / 4), Math.floor((3 * x.length) / 4));
  return 10 * Math.log10(half.reduce((sum, v) => sum + v * v, 0) / half.length);
};

describe('the sound of compressed files and films', () => {
  it.each(BY_FFMPEG)(
    '%s decodes to what ffmpeg makes of it',
    async (name, packed, sampleRateHz, channels, frames, rms) => {
      const into = join(folder, `${name}.wav`);
      const result = await decodeClipTask({ path: fixture(name), into });
      expect(result).toMatchObject({ kind: 'decoded', packed, format: { container: 'wav', sampleRateHz, channels } });
      const samples = await samplesOf(into);
      expect(Math.abs(samples.length - frames)).toBeLessThanOrEqual(48);
      expect(middleRms(samples)).toBeCloseTo(rms, 1);
    },
  );

  it('gives the page what has no decoder here, and says what it is', async () => {
    const result = await decodeClipTask({ path: fixture('tone.m4a'), into: join(folder, 'm4a.wav') });
    expect(result).toMatchObject({ kind: 'page', packed: { container: 'MP4', codec: 'aac' } });
    expect(await decodeClipTask({ path: fixture('tone.ogg'), into: join(folder, 'ogg.wav') })).toMatchObject({ kind: 'page', packed: { container: 'Ogg', codec: 'vorbis' } }); // prettier-ignore
    const known = await decodeClipTask({ path: fixture('tone.m4a'), into: null });
    expect(known).toMatchObject({ kind: 'known', channels: 1 });
    expect(known.kind === 'known' && known.durationS).toBeCloseTo(0.6, 1);
  });

  it('refuses words and a file that is cut off in its header, and leaves nothing behind', async () => {
    const words = join(folder, 'words.mp3');
    writeFileSync(words, 'This is a letter, and no sound at all.');
    const short = join(folder, 'short.ogg');
    writeFileSync(short, 'words');
    expect(await decodeClipTask({ path: short, into: null })).toMatchObject({ kind: 'refused', code: 'not-audio' });
    const into = join(folder, 'words.wav');
    expect(await decodeClipTask({ path: words, into })).toMatchObject({ kind: 'refused', code: 'not-audio' });
    const cut = join(folder, 'cut.m4a');
    writeFileSync(cut, readFileSync(fixture('tone.m4a')).subarray(0, 900));
    expect((await decodeClipTask({ path: cut, into })).kind).toBe('refused');
    expect(() => readFileSync(into)).toThrow(/ENOENT/);
  });
});
