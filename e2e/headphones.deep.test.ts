import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { exponentialSweep } from '#core/dsp/exponential-sweep';
import { encodeWav } from '#core/audio/wav-write';
import { lcgNoise, scaled } from '#core/testing/signals';
import { renderSeating } from '#rig/headphones';
import { protocolSchema } from '#contracts/protocol';
import ear from '../src/server/seed/protocol-headphones-2.json' with { type: 'json' };
import { seriousFindings } from './axe';
import { filesIn, stage } from './support';

// Headphones on an artificial ear, from files to what the page says of both sides.

const RATE = 48_000;
const { sweep } = protocolSchema.parse(ear);
const played = sweep ? exponentialSweep(sweep, RATE, sweep.levelDbfs) : new Float64Array(0);
const headphones = { levelDbfs: -8, lowHz: 20, highHz: 20_000, bells: [], right: { levelDb: -2 }, sealDb: 3 };
const seating = (side: 'left' | 'right', n: number): Uint8Array =>
  encodeWav([renderSeating({ sampleRate: RATE, durationS: 4.2, side, headphones, played, seed: `${side}${n}` })], RATE, 'pcm24'); // prettier-ignore
const outside = (db: number, seed: number): Uint8Array => encodeWav([scaled(lcgNoise(7 * RATE, 1, seed), db)], RATE, 'pcm24'); // prettier-ignore

describe('headphones', () => {
  const { open, folder } = stage();

  it('are matched by name and by content, seated again and again, and show both sides', async () => {
    const { page, errors } = await open('/new-run');
    await page.setInputFiles(
      'input[aria-label="Choose files"]',
      filesIn(join(folder(), 'ear'), {
        ...Object.fromEntries([1, 2, 3].map((n) => [`left-${n}.wav`, seating('left', n)])),
        ...Object.fromEntries([1, 2].map((n) => [`right-${n}.wav`, seating('right', n)])),
        'bare.wav': outside(-20, 1),
        'worn.wav': outside(-36, 2),
      }),
    );
    // An open list of choices shuts when the page moves under it: all files are there first.
    await expect.poll(() => page.getByRole('row').filter({ hasText: 'stored, ' }).count(), { timeout: 60_000 }).toBe(7);
    await page.getByLabel('Kind', { exact: true }).click();
    await page.getByRole('option', { name: 'Headphones' }).click();
    const row = (name: string) => page.getByRole('row').filter({ hasText: name });
    await row('left-3.wav').getByText('one of 3 repeats').waitFor();
    // What they hold takes no repeat away.
    await page.getByRole('button', { name: 'Match by what they hold' }).click();
    await row('left-1.wav').getByText('it holds a sweep').waitFor();
    await row('left-3.wav').getByText('one of 3 repeats').waitFor();
    await row('right-2.wav').getByText('one of 2 repeats').waitFor();
    for (const [file, gain] of [
      ['left-1.wav', '20'],
      ['bare.wav', '40'],
    ]) {
      await page.getByLabel(`Gain of ${file}`).fill(gain);
      await page.getByLabel(`Gain of ${file}`).press('Enter');
    }
    await page.getByLabel('Maker').fill('Oarlock');
    await page.getByLabel('Model').fill('Hush');
    await page.getByLabel('Label (serial, A, B)').fill('A');
    await page.getByRole('button', { name: 'Import and measure' }).click();
    await page.getByRole('heading', { level: 1, name: 'Measured' }).waitFor();
    await page.getByText('Right side re left side').waitFor();
    await page.getByRole('button', { name: 'Open the unit' }).click();
    const figure = page.getByRole('row').filter({ hasText: 'Right side re left side' });
    // Put in: 2 dB less on the right.
    await figure.getByText('−2.0').waitFor();
    await page.getByText('It is the response on this ear').waitFor();
    await page.getByText('16.0 dB less').waitFor();
    expect(await seriousFindings(page)).toEqual([]);
    expect(errors).toEqual([]);
  });
});
