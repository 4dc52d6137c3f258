import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { encodeWav } from '#core/audio/wav-write';
import { lcgNoise, mixed, scaled, sine } from '#core/testing/signals';
import { takeWav } from '#server/testing/application';
import { filesIn, stage } from './support';

const TAKES = {
  'front voice.wav': takeWav(-14, -70, 1),
  'room noise.wav': takeWav(null, -70, 5),
  'back.wav': takeWav(-26, -70, 9),
};

const noiseOf = (levelDb: number) => scaled(lcgNoise(4 * 48_000, 1, 3), levelDb);
/** Takes of an interface: a tone of −20 dBu that reads −10 dBFS, and the input closed with 150 Ω. */
const LINE_TAKES = {
  'electrical.wav': encodeWav([mixed(sine(1000, -10, 4), noiseOf(-100))], 48_000, 'pcm24'),
  'noise-150.wav': encodeWav([noiseOf(-75 + 1.8 + 0.8)], 48_000, 'pcm24'),
};

describe('an empty archive', () => {
  const { open, folder } = stage();

  it('says on every screen what it is for, and leads to the first run', async () => {
    const { page, errors } = await open('/');
    await page.getByRole('heading', { name: 'The desk is empty' }).waitFor();
    await page.getByRole('link', { name: 'Protocols' }).click();
    await page.getByRole('link', { name: 'Desk voice' }).waitFor();
    await expect.poll(() => page.locator('tbody tr').count()).toBe(9);
    await page.getByRole('link', { name: 'Rigs' }).click();
    await page.getByRole('heading', { name: 'No rig is noted yet' }).waitFor();
    await page.getByRole('link', { name: 'Sessions' }).click();
    await page.getByRole('heading', { name: 'No session yet' }).waitFor();
    await page.getByRole('link', { name: 'Gear' }).click();
    await page.getByRole('heading', { name: 'No unit has been tested yet' }).waitFor();
    await page.getByRole('link', { name: 'Compare' }).click();
    await page.getByRole('heading', { name: 'Hear clips of one step side by side' }).waitFor();
    await page.getByRole('link', { name: 'Listening' }).click();
    await page.getByRole('heading', { name: 'No test yet' }).waitFor();
    await page.getByRole('link', { name: 'Scale' }).click();
    await page.getByRole('heading', { name: 'No answers yet' }).waitFor();
    await page.getByRole('link', { name: 'Ranking' }).click();
    await page.getByRole('heading', { name: 'Nothing has been tested yet' }).waitFor();
    await page.getByRole('button', { name: 'Bring in a run' }).click();
    await page.getByRole('heading', { name: 'Bring in a run' }).waitFor();
    expect(errors).toEqual([]);
  });

  it('three clips of a new microphone: dropped, matched, named, reloaded in the middle, measured, ranked, scored', async () => {
    const { page, errors } = await open('/new-run');
    await page.getByRole('heading', { name: 'Bring in a run' }).waitFor();
    await page.getByText('What a run holds').waitFor();
    await page.setInputFiles('input[aria-label="Choose files"]', filesIn(join(folder(), 'from-the-recorder'), TAKES));
    await page.getByText('stored, 4.0 s').nth(2).waitFor();
    await expect.poll(() => page.getByText('the name says').count()).toBe(3);
    await page.getByLabel('Maker').fill('Oarlock');
    await page.getByLabel('Model').fill('Purser');
    await page.getByLabel('Gain of front voice.wav').fill('40');
    await page.getByLabel('Gain of front voice.wav').blur();
    await page.getByText('Still needed: label').waitFor();

    await page.reload();
    await page.getByText('stored, 4.0 s').nth(2).waitFor();
    await expect.poll(() => page.getByLabel('Maker').inputValue()).toBe('Oarlock');
    await expect.poll(() => page.getByLabel('Gain of back.wav').inputValue()).toBe('40 dB');

    await page.getByLabel('Label').fill('A');
    await page.getByLabel('Price', { exact: true }).fill('129');
    await page.getByLabel('Build, points of 5').fill('3.5');
    await page.getByLabel('Build, points of 5').blur();
    await page.getByRole('button', { name: 'Import and measure' }).click();
    await page.getByRole('heading', { name: 'Measured', exact: true }).waitFor();
    // The rear take was made 12 dB weaker.
    const rejection = await page
      .locator('.result .labelled', { hasText: 'Rear rejection' })
      .locator('sd-figure')
      .innerText();
    expect(Math.abs(Number(/[\d.]+/.exec(rejection)?.[0]) - 12)).toBeLessThan(0.6);
    await page.getByText('Place 1').waitFor();

    await page.getByRole('button', { name: 'See it in the ranking' }).click();
    await page.getByText('Place 1 of 1').waitFor();
    await page.getByText('Missing: Sound, Features').waitFor();
    await page.getByRole('list', { name: '' }).getByText('Oarlock Purser · A').first().waitFor();

    await page.getByRole('link', { name: 'Bench' }).click();
    await page.getByText('Points missing: sound, features').waitFor();
    await page.getByRole('button', { name: 'Give points' }).click();
    await page.getByRole('button', { name: 'Give points for Sound' }).click();
    await page.getByRole('textbox', { name: 'Points for Sound' }).fill('4');
    await page.getByLabel('Reason for Sound').fill('clear and calm');
    await page.getByRole('button', { name: 'Save' }).click();
    await page.getByText('clear and calm').waitFor();
    expect(errors).toEqual([]);
  });

  it('an interface, by the steps and rules of its own kind: noise at its input, listed and ranked beside the microphones', async () => {
    const { page, errors } = await open('/new-run');
    await page.getByText('What a run holds').waitFor();
    await page.setInputFiles('input[aria-label="Choose files"]', filesIn(join(folder(), 'by-cable'), LINE_TAKES));
    await page.getByText('stored, 4.0 s').nth(1).waitFor();
    await page.getByRole('combobox', { name: /^Kind/ }).first().click();
    await page.getByRole('option', { name: 'Interface or preamp' }).click();
    await page.getByLabel('Maker').fill('Oarlock');
    await page.getByLabel('Model').fill('Gauge');
    await page.getByLabel('Label').fill('A');
    for (const [file, gain] of [
      ['electrical.wav', '20'],
      ['noise-150.wav', '60'],
    ]) {
      await page.getByLabel(`Gain of ${file}`).fill(gain);
      await page.getByLabel(`Gain of ${file}`).blur();
    }
    await page.getByRole('button', { name: 'Import and measure' }).click();
    await page.getByRole('heading', { name: 'Measured', exact: true }).waitFor();
    const noise = page.locator('.result .labelled', { hasText: 'Equivalent input noise, A-weighted' });
    // +10 dBu for full scale without gain, noise at −75 dBFS, 60 dB of gain: −125 dBu, 2 dB less A-weighted.
    await expect.poll(() => noise.locator('sd-figure').innerText()).toMatch(/−127\.[01]/);

    await page.getByRole('button', { name: 'See it in the ranking' }).click();
    await page.getByText('Place 1 of 1').waitFor();
    await page.getByText('Missing: Dynamic range, Distortion, Round trip, Sound, Features, Build').waitFor();
    await page.getByRole('combobox', { name: 'Kind of gear' }).click();
    await page.getByRole('option', { name: 'Microphone', exact: true }).click();
    await page.locator('.list').getByText('Oarlock Purser · A').waitFor();
    await expect.poll(() => page.locator('.list').getByText('Oarlock Gauge · A').count()).toBe(0);

    await page.getByRole('link', { name: 'Gear' }).click();
    await page.getByRole('columnheader', { name: 'First figure' }).waitFor();
    await page.getByRole('combobox', { name: 'Kind of gear' }).click();
    await page.getByRole('option', { name: 'Interface or preamp' }).click();
    await page.getByRole('columnheader', { name: /Input noise/ }).waitFor();
    await expect.poll(() => page.locator('tr.unit').count()).toBe(1);
    expect(errors).toEqual([]);
  });

  it('plays a take by ranges, after the reminder about hearing', async () => {
    const { page, errors } = await open('/gear/1');
    const ranges: string[] = [];
    page.on('request', (request) => {
      const { range } = request.headers();
      if (request.url().includes('/audio') && range) ranges.push(range);
    });
    // Play is pressed before its waveform is there: the press is kept.
    await page.route(/\/waveform/, async (route) => {
      await page.waitForTimeout(1500);
      await route.continue();
    });
    await page.getByRole('button', { name: /^Open Spoken passage, in front/ }).click();
    await page.getByRole('button', { name: /^Play Spoken passage, in front/ }).click();
    await page.getByRole('dialog', { name: 'Before you listen' }).waitFor();
    await page.unroute(/\/waveform/);
    await page.getByRole('button', { name: 'The volume is down' }).click();
    await page.getByRole('button', { name: /^Pause Spoken passage, in front/ }).waitFor();
    await page.getByRole('button', { name: /^Open Silence/ }).click();
    await page.getByRole('button', { name: /^Play Silence/ }).click();
    await page.getByRole('button', { name: /^Play Spoken passage, in front/ }).waitFor();
    expect(ranges.length).toBeGreaterThan(0);
    expect(errors).toEqual([]);
  });

  it('refuses a wrong file with what to do, offers the part of a truncated one, and notes a run that is known', async () => {
    const { page } = await open('/new-run');
    await page.getByText('What a run holds').waitFor();
    const cut = takeWav(-14, -70).slice(0, 44 + 3 * 24_000);
    await page.setInputFiles(
      'input[aria-label="Choose files"]',
      filesIn(join(folder(), 'wrong'), { 'notes.wav': 'Dear diary', 'cut.wav': cut }),
    );
    await page.getByText('This is no sound that is known here').first().waitFor();
    await page.getByRole('button', { name: 'Leave out notes.wav' }).first().click();
    await page.getByRole('button', { name: 'Keep the 1.50 s that are there' }).click();
    await page.getByText('stored, 1.5 s').waitFor();
    await page.getByText('a part of it').waitFor();
    await page.getByRole('button', { name: 'Start anew' }).click();

    const run = {
      format: 'sediment-run/1',
      specimen: { maker: 'Oarlock', model: 'Mate', label: 'A', category: 'microphone' },
      date: '2026-05-02',
      protocol: 'desk-voice',
      protocolVersion: 1,
      source: 'lent',
      takes: [{ step: 'speech', file: 'take1.wav', gainDb: 40 }],
      points: [{ criterion: 'sound', value: 2 }],
    };
    const folderFiles = { 'run.json': JSON.stringify(run), 'take1.wav': takeWav(-14, -60, 21), 'readme.txt': 'x' };
    for (const expected of ['Measured', 'its takes were not changed']) {
      await page.setInputFiles('input[aria-label="Choose files"]', filesIn(join(folder(), 'a-run'), folderFiles));
      await page.getByText('Filled in from run.json.').waitFor();
      await page.getByText('Left out, no sound that is known here: readme.txt.').waitFor();
      await page.getByText('stored, 4.0 s').waitFor();
      await page.getByRole('button', { name: 'Import and measure' }).click();
      await page.getByText(expected).first().waitFor();
      await page.getByRole('button', { name: 'Another run' }).click();
    }
  });

  it('a misread gain and a misspelt name are corrected on the page of the unit, and put back', async () => {
    const { page, errors } = await open('/gear/1');
    await page.getByRole('button', { name: /^Correct Spoken passage, in front/ }).click();
    const dialog = page.getByRole('dialog', { name: /^Correct Spoken passage/ });
    await dialog.getByLabel('Gain').fill('a lot');
    await dialog.getByRole('button', { name: 'Correct it' }).click();
    // What is not understood is refused beside its field, and nothing is saved.
    await dialog.getByText('“a lot” is no gain').waitFor();
    await dialog.getByLabel('Gain').fill('−3,5');
    await dialog.getByRole('button', { name: 'Correct it' }).click();
    await dialog.waitFor({ state: 'detached' });
    const corrections = page.locator('sd-unit-corrections');
    await corrections.getByText('gain 40 dB → −3.5 dB').waitFor();
    await page
      .getByText(/^−3.5 dB gain/)
      .first()
      .waitFor();

    await page.getByRole('button', { name: 'Rename' }).click();
    await page.getByLabel('Model', { exact: true }).fill('Purser II');
    await page.getByRole('button', { name: 'Correct the name' }).click();
    await page.getByRole('heading', { level: 1, name: /Purser II/ }).waitFor();

    for (const what of ['Name', 'Take']) {
      await corrections.getByRole('button', { name: new RegExp(`^Undo: ${what}`) }).click();
      await corrections
        .getByText('undone')
        .nth(what === 'Name' ? 0 : 1)
        .waitFor();
    }
    await page.getByRole('heading', { level: 1, name: /Purser/ }).waitFor();
    await page
      .getByText(/^40 dB gain/)
      .first()
      .waitFor();
    expect(errors).toEqual([]);
  });

  it('takes a rig as it is typed, its control unit before it was tested, and corrects it in place', async () => {
    const { page, errors } = await open('/rigs');
    await page.getByRole('button', { name: 'New rig' }).click();
    await page.getByLabel('Sample rate').fill('48000');
    await page.getByLabel('Sample rate').blur();
    await page.getByText('Write 48000 Hz if that is meant').waitFor();
    await page.getByRole('button', { name: 'Note it' }).click();
    expect(await page.locator('article').count()).toBe(0);
    await page.getByLabel('Sample rate').fill('48');
    await page.getByRole('button', { name: 'One that is not tested yet' }).click();
    await page.getByLabel('Its maker').fill('Marlfen');
    await page.getByLabel('Its model').fill('Fen');
    await page.getByRole('button', { name: 'Note this unit' }).click();
    await page.getByRole('combobox', { name: 'Control unit' }).getByText('Marlfen Fen · A').waitFor();
    await page.getByRole('button', { name: 'Note it' }).click();
    const card = page.locator('article');
    await card.getByText('48 kHz').waitFor();
    await card.getByRole('button', { name: 'Correct' }).click();
    await page.getByLabel('Sample rate').fill('96 kHz');
    await page.getByRole('button', { name: 'Note it' }).click();
    await card.getByText('96 kHz').waitFor();
    await expect.poll(() => card.count()).toBe(1);
    // A name that is written otherwise is asked about.
    await page.goto(page.url().replace('/rigs', '/new-run'));
    const one = filesIn(join(folder(), 'again'), { 'front voice.wav': takeWav(-14, -70, 1) });
    await page.setInputFiles('input[aria-label="Choose files"]', one);
    await page.getByLabel('Maker').fill('MARLFEN');
    await page.getByLabel('Model').fill('fen');
    await page.getByLabel('Label').fill('a');
    await page.getByRole('button', { name: 'It is that one' }).click();
    await expect.poll(() => page.getByLabel('Maker').inputValue()).toBe('Marlfen');
    await page.getByText('This run is added to it').waitFor();
    expect(errors).toEqual([]);
  });
});
