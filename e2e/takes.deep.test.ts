import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { encodeWav } from '#core/audio/wav-write';
import { takeSamples, takeWav } from '#server/testing/application';
import { filesIn, stage } from './support';

// Takes as people have them: from a telephone, of several voices, repeated, several microphones in one file.

const fixture = (name: string): Uint8Array => readFileSync(join(import.meta.dirname, '../src/worker/testing', name));

describe('takes as they are', () => {
  const { open, folder, address } = stage();

  it('two voices, each repeated, and a file of two microphones become runs of two units', async () => {
    const { page, errors } = await open('/new-run');
    await page.setInputFiles(
      'input[aria-label="Choose files"]',
      filesIn(join(folder(), 'takes'), {
        'speech-ada.wav': takeWav(-14, -70, 1),
        'speech-ada-2.wav': takeWav(-14.4, -70, 2),
        'speech-bo.wav': takeWav(-20, -70, 3),
        'speech-bo-2.wav': takeWav(-20.6, -70, 4),
        'silence.wav': takeWav(null, -70, 5),
        'both.wav': encodeWav([takeSamples(-16, -66, 6), takeSamples(-18, -62, 7)], 16_000, 'pcm24'),
      }),
    );
    const row = (name: string) => page.getByRole('row').filter({ hasText: name });
    for (const [file, voice] of [
      ['speech-ada.wav', 'Ada'],
      ['speech-ada-2.wav', 'Ada'],
      ['speech-bo.wav', 'Bo'],
      ['speech-bo-2.wav', 'Bo'],
    ]) {
      // prettier-ignore
      await row(file).getByText('Voice, place, processing').click();
      await page.getByLabel(`Voice of ${file}`).fill(voice);
    }
    await row('speech-bo-2.wav').getByText('voice Bo: stands beside voice Ada; one of 2 repeats').waitFor();
    await page.getByRole('button', { name: 'One take for each channel of both.wav' }).click();
    await row('both channel 2.wav').getByText('channel 2: whose is it?').waitFor();
    await page.getByLabel('Gain of speech-ada.wav').fill('40');
    await page.getByLabel('Gain of speech-ada.wav').press('Enter');
    await page.getByLabel('Maker').fill('Oarlock');
    await page.getByLabel('Model').fill('Purser');
    await page.getByLabel('Label (serial, A, B)').fill('A');
    await page.getByRole('button', { name: 'Import and measure' }).click();
    await page.getByRole('heading', { level: 1, name: 'Measured' }).waitFor();
    await page.getByRole('button', { name: 'Next unit, with the 2 files that were not used' }).click();
    expect(await page.getByLabel('Maker').inputValue()).toBe('');
    await page.getByLabel('Step of both channel 2.wav').click();
    await page.getByRole('option', { name: 'Spoken passage, in front' }).click();
    await page.getByLabel('Gain of both channel 2.wav').fill('38');
    await page.getByLabel('Gain of both channel 2.wav').press('Enter');
    await page.getByLabel('Maker').fill('Oarlock');
    await page.getByLabel('Model').fill('Winch');
    await page.getByLabel('Label (serial, A, B)').fill('A');
    await page.getByRole('button', { name: 'Import and measure' }).click();
    await page.getByRole('heading', { level: 1, name: 'Measured' }).waitFor();

    const units = (await (await fetch(`${address()}/api/specimens`)).json()) as { id: string; model: string }[];
    await page.goto(`${address()}/gear/${units.find((u) => u.model === 'Purser')?.id}`);
    const grid = page.locator('sd-condition-part');
    await grid.getByRole('columnheader', { name: 'voice Bo' }).waitFor();
    await grid.getByRole('row').filter({ hasText: 'Noise re speech, A-weighted' }).getByText(/^by voice \d\.\d dB: Ada −.+, Bo −.+; (not )?more than repeats \(p/).waitFor(); // prettier-ignore
    await grid.getByRole('link', { name: 'Spoken passage, in front' }).click();
    await page.getByRole('link', { name: 'Oarlock Purser · A, voice Bo' }).waitFor();
    // The other unit of the same step is in the grid of units and voices, and goes in beside them.
    await page.getByText('By voice and place').click();
    await page.getByRole('button', { name: 'Hear Oarlock Winch · A, nothing named' }).click();
    await page.getByRole('link', { name: 'Oarlock Winch · A', exact: true }).click();
    await page
      .locator('header p')
      .filter({ hasText: /Channel 2 of 2 of\s*both\.wav/ })
      .waitFor();
    expect(errors).toEqual([]);
  });

  it('a recording of a telephone is decoded by the browser, and says what its codec decides', async () => {
    const { page, errors } = await open('/new-run');
    await page.setInputFiles('input[aria-label="Choose files"]', filesIn(join(folder(), 'phone'), { 'speech.m4a': fixture('tone.m4a'), 'silence.mp3': fixture('tone.mp3'), 'letter.ogg': 'words' })); // prettier-ignore
    await page.getByText(/stored, 0\.6 s, 48 kHz, mono, from AAC, \d+ kbit\/s/).waitFor();
    await page.getByText(/stored, 0\.6 s, 48 kHz, mono, from MP3, 64 kbit\/s/).waitFor();
    await page.getByText('This is no sound that is known here').first().waitFor();
    await page.getByRole('button', { name: 'Leave out letter.ogg' }).first().click();
    await page.getByLabel('Gain of speech.m4a').fill('unknown');
    await page.getByLabel('Gain of speech.m4a').press('Enter');
    await page.getByLabel('Maker').fill('Oarlock');
    await page.getByLabel('Model').fill('Bosun');
    await page.getByLabel('Label (serial, A, B)').fill('A');
    await page.getByRole('button', { name: 'Import and measure' }).click();
    await page.getByRole('heading', { level: 1, name: 'Measured' }).waitFor();
    await page.getByRole('row').filter({ hasText: 'speech.m4a' }).getByText('measured').waitFor();
    const units = (await (await fetch(`${address()}/api/specimens`)).json()) as { id: string; model: string }[];
    await page.goto(`${address()}/gear/${units.find((u) => u.model === 'Bosun')?.id}#takes`);
    await page.getByRole('link', { name: 'Spoken passage, in front' }).first().click();
    await page.locator('.note').filter({ hasText: /^\s*The sound came through AAC, \d+ kbit\/s: the codec decides/ }).waitFor(); // prettier-ignore
    // The refused files are answers of the server, which the browser notes.
    expect(errors.filter((e) => !e.includes('422'))).toEqual([]);
  });
});
