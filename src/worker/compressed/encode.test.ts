import { mkdtempSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { encodeWav } from '#core/audio/wav-write';
import { readChannels } from '../read-clip';
import decodeClipTask from '../tasks/decode-clip';
import publishClip from '../tasks/publish-clip';

const RATE = 44_100;
const folder = mkdtempSync(join(tmpdir(), 'sediment-encode-'));
/** A tone that begins after a tenth of a second, so that a shift is seen. */
const tone = Float64Array.from({ length: RATE }, (_, i) =>
  i < RATE / 10 ? 0 : 0.25 * Math.sin((2 * Math.PI * 997 * i) / RATE),
);
const source = join(folder, 'tone.wav');
writeFileSync(source, encodeWav([tone, tone.map((x) => x / 2)], RATE, 'float32'));

const rmsDb = (x: Float64Array): number => 10 * Math.log10(x.reduce((s, v) => s + v * v, 0) / x.length);
const firstLoud = (x: Float64Array): number => x.findIndex((v) => Math.abs(v) > 0.02);

describe('copies of clips that are handed out', () => {
  it('FLAC holds the samples with the gain, to one step of 16 bits and its dither, and the same bytes each time', async () => {
    const into = join(folder, 'a.flac');
    await publishClip({ path: source, into, gainDb: -6, format: { codec: 'flac' } });
    // Read by our own reader, which is checked against files of the reference encoder.
    const { channels, format } = await readChannels(into);
    expect(format).toMatchObject({ sampleRate: RATE, channels: 2, frames: RATE, encoding: 'flac16' });
    const gain = 10 ** (-6 / 20);
    const worst = channels[0].reduce((most, x, i) => Math.max(most, Math.abs(x - gain * tone[i])), 0);
    expect(worst).toBeLessThan(1.5 / 2 ** 15);
    expect(worst).toBeGreaterThan(0.5 / 2 ** 15);
    const again = join(folder, 'b.flac');
    await publishClip({ path: source, into: again, gainDb: -6, format: { codec: 'flac' } });
    expect(readFileSync(again).equals(readFileSync(into))).toBe(true);
  });

  it('does not wrap around where the gain drives it over full scale', async () => {
    const into = join(folder, 'loud.flac');
    await publishClip({ path: source, into, gainDb: 20, format: { codec: 'flac' } });
    const { channels } = await readChannels(into);
    expect(Math.max(...channels[0])).toBeGreaterThan(0.9999);
    // Where the tone is over full scale, so is the copy, on the same side.
    const flipped = channels[0].filter((x, i) => Math.abs(tone[i]) > 0.15 && Math.sign(x) !== Math.sign(tone[i]));
    expect(flipped).toHaveLength(0);
  });

  it.each([24, 96])(
    'Opus of %i kbit/s comes back at its level and its time, and is as small as was asked',
    async (kbps) => {
      const into = join(folder, `${kbps}.opus`);
      await publishClip({ path: source, into, gainDb: 0, format: { codec: 'opus', kbps } });
      const wav = join(folder, `${kbps}.wav`);
      // Decoded by another package than the one that encoded it.
      expect(await decodeClipTask({ path: into, into: wav })).toMatchObject({ kind: 'decoded', packed: { container: 'Ogg', codec: 'opus' } }); // prettier-ignore
      const { channels, format } = await readChannels(wav);
      expect(format).toMatchObject({ sampleRate: 48_000, channels: 2 });
      expect(Math.abs(firstLoud(channels[0]) / 48_000 - firstLoud(tone) / RATE)).toBeLessThan(0.002);
      const middle = (x: Float64Array) => x.subarray(Math.floor(x.length / 2), Math.floor(0.9 * x.length));
      expect(rmsDb(middle(channels[0]))).toBeCloseTo(rmsDb(middle(tone)), 0);
      expect(rmsDb(middle(channels[1]))).toBeCloseTo(rmsDb(middle(tone)) - 6.02, 0);
      expect(statSync(into).size * 8).toBeLessThan(1.3 * kbps * 1000 + 4000);
    },
  );
});
