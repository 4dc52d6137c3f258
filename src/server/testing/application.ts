import { cpSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { inject, onTestFinished } from 'vitest';
import { encodeWav } from '#core/audio/wav-write';
import { lcgNoise, mixed, scaled, syllables } from '#core/testing/signals';
import type { RunDocumentInput } from '#contracts/run-document';
import { webFolder } from '../platform/package-root';
import { httpServer } from '../routes/server';
import { openApplication, type Application, type ApplicationOptions } from '../wiring';
import { databaseClone } from './database-clones';
import { rememberingPool } from './remembering-pool';

// A real database, a real folder, real clips: what the server's tests stand on.

/** A folder that is taken away after the test. */
export function temporaryFolder(): string {
  const folder = mkdtempSync(join(tmpdir(), 'sediment-test-'));
  onTestFinished(() => rmSync(folder, { recursive: true, force: true }));
  return folder;
}

/** A data folder as the first start leaves it. Making a database takes a process five seconds more. */
export function emptyArchive(): string {
  const folder = temporaryFolder();
  cpSync(inject('emptyArchive'), folder, { recursive: true });
  return folder;
}

/** An application over a clone of the migrated database. */
export async function testApplication(options: Partial<ApplicationOptions> = {}): Promise<Application> {
  const folder = options.folder ?? temporaryFolder();
  const database = await databaseClone(inject('databaseDump'));
  const application = await openApplication({
    folder,
    database,
    ...(options.workers === undefined ? { pool: rememberingPool() } : {}),
    now: () => new Date('2026-05-10T12:00:00Z'),
    report: (error) => console.error(error),
    ...options,
  });
  onTestFinished(() => application.close());
  return application;
}

/** The HTTP interface of an application on a free port; gives its address. */
export async function serve(application: Application): Promise<string> {
  const app = httpServer(application, { host: '127.0.0.1', webFolder, report: (error) => console.error(error) });
  const server = await new Promise<Server>((resolve) => {
    const listening = app.listen(0, '127.0.0.1', () => resolve(listening));
  });
  onTestFinished(() => {
    server.closeAllConnections();
    server.close();
  });
  return `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
}

const RATE = 16_000;
const SECONDS = 4;

const made = new Map<string, Uint8Array<ArrayBuffer>>();

/** A copy of what was made under this name, made once in a process. */
export function madeOnce(name: string, make: () => Uint8Array<ArrayBuffer>): Uint8Array<ArrayBuffer> {
  let bytes = made.get(name);
  if (!bytes) made.set(name, (bytes = make()));
  return bytes.slice();
}

/** A short take as WAV bytes: speech `speechDb` below full scale (null: none) in noise `noiseDb` below it. */
export function takeWav(speechDb: number | null, noiseDb: number, seed = 1): Uint8Array<ArrayBuffer> {
  return madeOnce(`take ${speechDb} ${noiseDb} ${seed}`, () => newTakeWav(speechDb, noiseDb, seed));
}

const newTakeWav = (speechDb: number | null, noiseDb: number, seed: number): Uint8Array<ArrayBuffer> =>
  encodeWav([takeSamples(speechDb, noiseDb, seed)], RATE, 'pcm24');

/** The samples of {@link takeWav}, at 16 kHz. */
export function takeSamples(speechDb: number | null, noiseDb: number, seed = 1): Float64Array {
  const noise = scaled(lcgNoise(SECONDS * RATE, 1, seed), noiseDb);
  const speech =
    speechDb === null
      ? noise.map(() => 0)
      : syllables(
          [
            [0.3, 1.6],
            [2, 3.2],
          ],
          SECONDS,
          speechDb,
          RATE,
          seed + 1,
        );
  return mixed(speech, noise);
}

/** A sound run document; parts of it can be replaced. */
export function runDocument(change: Partial<RunDocumentInput> = {}): RunDocumentInput {
  return {
    format: 'sediment-run/1',
    specimen: { maker: 'Oarlock', model: 'Purser', label: 'A', category: 'microphone' },
    date: '2026-05-02',
    protocol: 'desk-voice',
    protocolVersion: 1,
    source: 'bought',
    prices: [{ amount: 129, currency: 'EUR', kind: 'street', date: '2026-05-01' }],
    takes: [
      { step: 'speech', file: 'speech.wav', gainDb: 40, distanceM: 0.15, angleDeg: 0 },
      { step: 'silence', file: 'silence.wav', gainDb: 40 },
      { step: 'rear', file: 'rear.wav', gainDb: 40, distanceM: 0.15, angleDeg: 180 },
    ],
    points: [
      { criterion: 'features', value: 4, reason: 'all that is needed' },
      { criterion: 'build', value: 3.5 },
      { criterion: 'sound', value: 4 },
    ],
    ...change,
  };
}

/** Writes a run folder; further files replace or add to the three takes. */
export function writeRunFolder(
  folder: string,
  document: unknown = runDocument(),
  files: Readonly<Record<string, Uint8Array | string>> = {},
  rejection = 12,
): string {
  mkdirSync(folder, { recursive: true });
  const all: Record<string, Uint8Array | string> = {
    'speech.wav': takeWav(-14, -70, 1),
    'silence.wav': takeWav(null, -70, 5),
    'rear.wav': takeWav(-14 - rejection, -70, 9),
    ...files,
  };
  for (const [name, bytes] of Object.entries(all)) writeFileSync(join(folder, name), bytes);
  writeFileSync(join(folder, 'run.json'), typeof document === 'string' ? document : JSON.stringify(document));
  return folder;
}
