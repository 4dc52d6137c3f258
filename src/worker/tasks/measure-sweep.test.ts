import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, it, onTestFinished } from 'vitest';
import { encodeWav } from '#core/audio/wav-write';
import { holdsSweep } from '#core/dsp/exponential-sweep';
import { sine } from '#core/testing/signals';
import measureSweep from './measure-sweep';

it('a recording at a rate that cannot hold the sweep is told so, with the rate that can', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'sediment-sweep-'));
  onTestFinished(() => rmSync(folder, { recursive: true }));
  const path = join(folder, 'low.wav');
  writeFileSync(path, encodeWav([sine(1000, -20, 2, 16_000)], 16_000, 'pcm24'));
  const sweep = { lowHz: 20, highHz: 20_000, seconds: 1, levelDbfs: -6, gateMs: 4 };
  await expect(measureSweep({ path, sweep, withImpulse: false })).rejects.toMatchObject({
    code: 'unmeasurable',
    message: 'The sweep goes up to 20 kHz, and a recording at 16 kHz holds no more than 8 kHz; record it at 40 kHz or more.', // prettier-ignore
  });
  expect([holdsSweep(sweep, 40_000), holdsSweep(sweep, 39_999)]).toEqual([true, false]);
});
