import { createHash } from 'node:crypto';
import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { describe, expect, it } from 'vitest';
import { encodeWav } from '#core/audio/wav-write';
import { takeWav, temporaryFolder, testApplication } from '../testing/application';

it('adopts a sound clip that was stored but never noted, and leaves an unsound one alone', async () => {
  const folder = temporaryFolder();
  const store = (bytes: Uint8Array): string => {
    const sha256 = createHash('sha256').update(bytes).digest('hex');
    mkdirSync(join(folder, 'clips', sha256.slice(0, 2)), { recursive: true });
    writeFileSync(join(folder, 'clips', sha256.slice(0, 2), `${sha256}.wav`), bytes);
    return sha256;
  };
  const sound = store(takeWav(-14, -70));
  const unsound = store(takeWav(-14, -70).slice(0, 20_000));
  const application = await testApplication({ folder });
  expect(await application.clips.find(sound)).toMatchObject({ sha256: sound, format: { durationS: 4 } });
  expect(await application.clips.find(unsound)).toBeNull();
  expect(await application.store.find(unsound)).not.toBeNull();
  expect(await application.ingest.recover()).toEqual({ swept: 0, adopted: 0 });
});

it('gives up looking at a file whose sender has gone, and keeps nothing of it', async () => {
  const application = await testApplication();
  const gone = new AbortController();
  const taking = application.ingest.ingest(Readable.from([Buffer.from(takeWav(-14, -70))]), 'late.wav', {
    keepPart: false,
    signal: gone.signal,
  });
  gone.abort();
  await expect(taking).rejects.toThrow();
  expect(readdirSync(join(application.status.dataFolder, 'incoming'))).toEqual([]);
  expect(readdirSync(join(application.status.dataFolder, 'clips'))).toEqual([]);
});

describe('a compressed file', () => {
  const fixture = (name: string): Buffer => readFileSync(join(import.meta.dirname, '../../worker/testing', name));
  const options = { keepPart: false };

  it('is kept as it came, beside the samples that are measured; twice is once', async () => {
    const app = await testApplication();
    const bytes = fixture('tone.mp3');
    const clip = await app.ingest.ingest(Readable.from([bytes]), 'tone.mp3', options);
    const sha256 = createHash('sha256').update(bytes).digest('hex');
    expect(clip).toMatchObject({ name: 'tone.mp3', format: { encoding: 'float32', durationS: 0.6 } });
    expect(clip.origin).toMatchObject({ sha256, bytes: bytes.length, codec: 'mp3', bitRateKbps: 64 });
    const original = join(app.status.dataFolder, 'originals', sha256.slice(0, 2), `${sha256}.mp3`);
    expect(readFileSync(original).equals(bytes)).toBe(true);
    expect(await app.ingest.ingest(Readable.from([bytes]), 'again.mp3', options)).toEqual(clip);
    expect(readdirSync(join(app.status.dataFolder, 'incoming'))).toEqual([]);
  });

  it('that only a browser decodes is refused for it, and taken in beside what the page has decoded', async () => {
    const app = await testApplication();
    const bytes = fixture('tone.m4a');
    const asIs = app.ingest.ingest(Readable.from([bytes]), 'tone.m4a', options);
    await expect(asIs).rejects.toMatchObject({ code: 'clip-for-page' });
    expect(readdirSync(join(app.status.dataFolder, 'incoming'))).toEqual([]);
    const wav = (seconds: number) => encodeWav([new Float32Array(48_000 * seconds).fill(0.1)], 48_000, 'float32');
    const send = (bytes: Uint8Array, name: string, decoded: string | null) => app.ingest.ingest(Readable.from([Buffer.from(bytes)]), name, { ...options, decoded }); // prettier-ignore
    const other = await send(wav(4), 'other.wav', null);
    await expect(send(bytes, 'tone.m4a', other.sha256)).rejects.toThrow('another sound');
    const decoded = await send(wav(0.6), 'tone.wav', null);
    const clip = await send(bytes, 'tone.m4a', decoded.sha256);
    expect(clip).toMatchObject({
      sha256: decoded.sha256,
      name: 'tone.m4a',
      origin: { codec: 'aac', name: 'tone.m4a' },
    });
    expect((await app.ingest.ingest(Readable.from([bytes]), 'tone.m4a', options)).sha256).toBe(decoded.sha256);
  });
});
