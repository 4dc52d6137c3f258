import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { MessageChannel } from 'node:worker_threads';
import { afterAll, expect, it } from 'vitest';
import { encodeWav } from '#core/audio/wav-write';
import { lcgNoise } from '#core/testing/signals';
import type { HelperMessage } from '../helper';
import { noneTaken } from '../taken-count';
import readStretches from './read-stretches';

const RATE = 8000;
const folder = mkdtempSync(join(tmpdir(), 'sediment-stretches-'));
afterAll(() => rmSync(folder, { recursive: true }));

/** What it tells until it has no more, and how many stretches were taken. */
async function help(longFrom?: number) {
  const path = join(folder, 'take.wav');
  writeFileSync(path, encodeWav([lcgNoise(70 * RATE, 0.1)], RATE, 'pcm24'));
  const { port1, port2 } = new MessageChannel();
  const taken = noneTaken();
  const told: HelperMessage[] = [];
  port1.on('message', (message: HelperMessage) => {
    told.push(message);
    if (message === null) port1.close();
  });
  await readStretches({ path, to: port2, taken, longFrom });
  return { taken: taken[0], places: told.map((m) => m && 'place' in m && m.place) };
}

it('brings the stretches of a clip, says that there are no more, and goes when it is not asked', async () => {
  expect(await help(1)).toEqual({ taken: 3, places: [0, 1, null] });
});

it('leaves a clip that is a single stretch to the one that was asked', async () => {
  expect(await help()).toEqual({ taken: 0, places: [null] });
});
