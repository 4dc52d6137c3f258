import { createHash } from 'node:crypto';
import { mkdirSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { expect, it } from 'vitest';
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
