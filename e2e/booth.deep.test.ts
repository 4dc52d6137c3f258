import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Locator, Page } from 'playwright-core';
import { describe, expect, it } from 'vitest';
import { encodeWav } from '#core/audio/wav-write';
import { lcgNoise, mixed, scaled, sine, syllables } from '#core/testing/signals';
import { openBytes } from '#worker/open-clip';
import { readClip } from '#worker/read-clip';
import { openWav } from '#core/audio/wav-stream';
import type { Plan } from '#contracts/session-plan';
import type { Protocol } from '#contracts/protocol';
import type { SpecimenRow, SpecimenSheet } from '#contracts/specimen';
import { stage, type Stage } from './support';

// Sessions as a reviewer runs them, in Chromium: on the simulated bench, with a fake capture device that plays a known
// file, by keyboard alone, and on a screen the size of a phone.

/** The fake capture device runs at this rate; at another one Chromium would resample. */
const RATE = 44_100;

async function api<T>(at: Stage, path: string, body?: unknown): Promise<T> {
  const response = await fetch(at.address() + path, {
    method: body === undefined ? 'GET' : 'POST',
    headers: { 'content-type': 'application/json' },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  });
  if (!response.ok) throw new Error(`${path}: ${await response.text()}`);
  return (await response.json()) as T;
}

/** A protocol of three short steps, so that a session lasts seconds. */
const SHORT = {
  id: 'three-steps',
  version: 1,
  name: 'Three steps',
  category: 'microphone',
  steps: [
    {
      id: 'line',
      role: 'speech',
      title: 'Counting line',
      instruction: 'Say the line.',
      fileHints: ['line'],
      play: { kind: 'phrase', text: 'One for the pilot, two for the tide.' },
      distanceM: 0.15,
      angleDeg: 0,
      gain: { rule: 'peaks', lowDbfs: -20, highDbfs: -3 },
      lengthS: { least: 3, most: 30 },
      cautions: ['phantom'],
    },
    {
      id: 'silence',
      role: 'silence',
      title: 'Silence',
      instruction: 'Hold still.',
      fileHints: ['silence'],
      play: { kind: 'silence' },
      gain: { rule: 'as-step', step: 'line' },
      lengthS: { least: 3, most: 30 },
    },
    {
      id: 'tone',
      role: 'calibration',
      title: 'Calibrator',
      instruction: 'Put the calibrator on.',
      fileHints: ['tone'],
      play: { kind: 'tone' },
      levelDbSpl: 94,
      gain: { rule: 'as-step', step: 'line', byDb: -12 },
      lengthS: { least: 2, most: 30 },
    },
  ],
};

const planOf = (units: number, title: string) => ({
  title,
  day: '2026-05-02',
  category: 'microphone',
  protocol: 'three-steps',
  protocolVersion: 1,
  units: Array.from({ length: units }, (_, i) => ({
    maker: 'Oarlock',
    model: title,
    label: String.fromCharCode(65 + i),
    source: 'own',
  })),
  withControl: false,
});

async function session(at: Stage, title: string, units = 1): Promise<Plan> {
  const known = await api<Protocol[]>(at, '/api/protocols');
  if (!known.some((p) => p.id === SHORT.id)) await api(at, '/api/protocol-versions', { document: SHORT });
  return api<Plan>(at, '/api/plans', planOf(units, title));
}

/** From the session's page into the booth, with the simulated bench switched on and nobody counting in. */
async function intoTheBooth(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Start in the booth' }).click();
  await page.getByLabel('Where the sound comes from').click();
  await page.getByRole('option', { name: 'Simulated bench' }).click();
  await page.getByLabel('Count in from three').uncheck();
  await page.getByRole('button', { name: 'Open it' }).click();
}

/** Nothing is recorded before its gain is noted. */
async function noteGain(page: Page, gain = '36'): Promise<void> {
  const field = page.getByLabel('Gain', { exact: true });
  await field.fill(gain);
  await field.blur();
}

async function fault(page: Page, name: string, isOn: boolean): Promise<void> {
  await page.getByRole('button', { name: 'Input' }).click();
  await page.getByLabel(name).setChecked(isOn);
  await page.getByRole('button', { name: 'To the step' }).click();
}

/** A machine may be busy. */
const verdict = (page: Page) => page.locator('.verdict .word');

describe('a session on the simulated bench', () => {
  const at = stage();

  it('takes a unit through three steps with one fault and one retake, and its run is measured', async () => {
    const { row } = await session(at, 'Purser');
    const { page, errors } = await at.open(`/sessions/${row.id}`);
    await intoTheBooth(page);
    // The caution is acknowledged once, and stays acknowledged.
    await page.getByRole('button', { name: 'Understood' }).click();
    // Without a gain no take is worth making: it is asked for before anything is recorded.
    await page.locator('body').press('Space');
    await page.getByText('Note the gain first').waitFor();
    expect(await page.getByRole('button', { name: /Stop/ }).count()).toBe(0);
    await noteGain(page, '36 x');
    await page.getByText('“x” is not a unit of this field').waitFor();
    await noteGain(page);

    await fault(page, 'Clip: 18 dB too much gain', true);
    await page.locator('body').press('Space');
    await page.getByRole('button', { name: /Stop/ }).waitFor();
    await page.getByText(/Redo/).first().waitFor();
    await expect.poll(() => page.locator('.verdict').innerText()).toMatch(/Clipped/);

    await fault(page, 'Clip: 18 dB too much gain', false);
    await page.locator('body').press('r');
    await page.getByText('No take of this step counts.').waitFor();
    await page.locator('body').press('Space');
    await expect.poll(() => verdict(page).innerText()).toMatch(/Keep|Have a look/);
    // The take that was put aside is still there to be looked at, and to be chosen.
    await page.getByRole('button', { name: 'take 1: put aside' }).click();
    await expect.poll(() => verdict(page).innerText()).toMatch(/Redo/);
    await page.getByRole('button', { name: 'take 2: undecided' }).click();
    await expect.poll(() => verdict(page).innerText()).toMatch(/Keep|Have a look/);
    await page.getByRole('button', { name: /Keep$/ }).click();

    await expect.poll(() => page.locator('main h1').innerText()).toBe('Silence');
    // The gain of the passage came along.
    await expect.poll(() => page.getByLabel('Gain', { exact: true }).inputValue()).toBe('36 dB');
    await page.locator('body').press('Space');
    await expect.poll(() => verdict(page).innerText()).toMatch(/Keep|Have a look/);
    await page.locator('body').press('Enter');

    await expect.poll(() => page.locator('main h1').innerText()).toBe('Calibrator');
    await expect.poll(() => page.getByLabel('Gain', { exact: true }).inputValue()).toBe('24 dB');
    await page.locator('body').press('Space');
    await expect.poll(() => verdict(page).innerText()).toMatch(/Keep|Have a look/);
    await page.locator('body').press('Enter');
    await page.getByRole('button', { name: /done with this unit/ }).click();
    await page.getByText('In the archive.').waitFor();

    const [unit] = (await api<SpecimenRow[]>(at, '/api/specimens')).filter((s) => s.model === 'Purser');
    const { runs } = await api<SpecimenSheet>(at, `/api/specimens/${unit.id}`);
    expect(runs[0].takes.map((t) => [t.step, t.gainDb])).toEqual([
      ['line', 36],
      ['silence', 36],
      ['tone', 24],
    ]);
    const states = (await api<Plan>(at, `/api/plans/${row.id}`)).slots[0].takes.map((t) => [
      t.step,
      t.attempt,
      t.state,
    ]);
    expect(states).toEqual([
      ['line', 1, 'retaken'],
      ['line', 2, 'kept'],
      ['silence', 1, 'kept'],
      ['tone', 1, 'kept'],
    ]);
    expect(errors).toEqual([]);
  }, 180_000);

  it('can be run by keyboard alone, and a take is kept against its verdict only with a reason', async () => {
    const { row } = await session(at, 'Bosun');
    const { page, errors } = await at.open(`/sessions/${row.id}`);
    await intoTheBooth(page);
    await page.getByRole('button', { name: 'Understood' }).press('Enter');
    await page.locator('body').press('ArrowDown');
    await expect.poll(() => page.locator('main h1').innerText()).toBe('Silence');
    // Nobody is silent: the passage is played at the silent step by mistake, so the check objects.
    await page.locator('body').press('ArrowUp');
    await noteGain(page);
    await page.locator('body').press('n');
    await page.keyboard.type('window open');
    await page.keyboard.press('Tab');
    await page.locator('body').press('Space');
    await page.getByRole('button', { name: /Stop/ }).waitFor();
    // Stopped after a word: too short.
    await page.waitForTimeout(1200);
    await page.locator('body').press('Space');
    await expect.poll(() => verdict(page).innerText()).toMatch(/Redo/);
    await page.locator('body').press('Enter');
    const dialog = page.getByRole('dialog');
    // The keys belong to the dialog, and stay where somebody goes to in it: nothing takes them away when it has stopped
    // moving. That something does not happen shows only after a while.
    const isFocused = (what: Locator): Promise<boolean> => what.evaluate((e) => e === document.activeElement);
    await expect.poll(() => isFocused(dialog.getByRole('textbox').first())).toBe(true);
    const keepIt = dialog.getByRole('button', { name: 'Keep it', exact: true });
    await expect.poll(() => keepIt.isDisabled()).toBe(true);
    await page.keyboard.type('only the beginning is needed');
    for (const field of await dialog.getByRole('textbox').all()) await field.fill('only the beginning is needed');
    // A key pressed on a button that is still shut goes nowhere.
    await expect.poll(() => keepIt.isEnabled()).toBe(true);
    await keepIt.focus();
    await page.waitForTimeout(600);
    expect(await isFocused(keepIt)).toBe(true);
    await keepIt.press('Enter');
    await expect.poll(() => page.locator('main h1').innerText()).toBe('Silence');
    const [take] = (await api<Plan>(at, `/api/plans/${row.id}`)).slots[0].takes;
    expect(take).toMatchObject({ state: 'kept', note: 'window open' });
    expect(take.overruled.map((o) => o.reason)).toContain('only the beginning is needed');
    expect(errors).toEqual([]);
  }, 120_000);

  it('fits a phone: everything needed is on the screen, nothing sticks out sideways', async () => {
    const { row } = await session(at, 'Cabin');
    const { page, errors } = await at.open(`/sessions/${row.id}`);
    await page.setViewportSize({ width: 390, height: 844 });
    await page.goto(`${at.address()}/sessions/${row.id}`);
    await intoTheBooth(page);
    await page.getByRole('button', { name: 'Understood' }).click();
    await noteGain(page);
    const record = page.getByRole('button', { name: /Record/ });
    const box = await record.boundingBox();
    expect(box && box.x >= 0 && box.x + box.width <= 390 && box.y + box.height <= 844).toBe(true);
    await expect.poll(() => page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
    await record.click();
    await expect.poll(() => verdict(page).innerText()).toMatch(/Keep|Have a look|Redo/);
    const keep = page.getByRole('button', { name: /Keep/ }).first();
    await expect.poll(() => keep.isVisible()).toBe(true);
    expect(errors).toEqual([]);
  }, 120_000);

  it('offers what a closed tab has left, and takes it as the take it was', async () => {
    const { row } = await session(at, 'Keel');
    const { page } = await at.open(`/sessions/${row.id}`);
    await intoTheBooth(page);
    await page.getByRole('button', { name: 'Understood' }).click();
    await noteGain(page);
    await page.locator('body').press('Space');
    await page.getByRole('button', { name: /Stop/ }).waitFor();
    await page.waitForTimeout(3500);
    await page.close({ runBeforeUnload: false });
    const { page: again } = await at.open(`/booth/${row.id}`);
    // Offered as soon as the server takes it for left behind, in front of the question for the input, by its title.
    const offer = again.getByRole('dialog').locator('.left');
    await offer.waitFor();
    await expect.poll(() => offer.innerText()).toContain('Counting line');
    const saved = Number(/([\d.]+) s are saved/.exec(await offer.innerText())?.[1]);
    // At most the last second is lost.
    expect(saved).toBeGreaterThan(2.4);
    await offer.getByRole('button', { name: 'Use it' }).click();
    await expect
      .poll(async () => (await api<Plan>(at, `/api/plans/${row.id}`)).slots[0].takes.length, { timeout: 20_000 })
      .toBe(1);
    const [take] = (await api<Plan>(at, `/api/plans/${row.id}`)).slots[0].takes;
    expect(take.step).toBe('line');
    // The page tells tenths.
    expect(Math.abs(take.durationS - saved)).toBeLessThanOrEqual(0.051);
  }, 120_000);

  it('goes on through a dead network, and loses nothing', async () => {
    const { row } = await session(at, 'Anchor');
    const { page } = await at.open(`/sessions/${row.id}`);
    await intoTheBooth(page);
    await page.getByRole('button', { name: 'Understood' }).click();
    await noteGain(page);
    await page.locator('body').press('Space');
    await page.getByRole('button', { name: /Stop/ }).waitFor();
    await page.waitForTimeout(1000);
    await page.context().setOffline(true);
    await page.getByText('The server does not answer').waitFor();
    await page.context().setOffline(false);
    await expect.poll(() => verdict(page).innerText()).toMatch(/Keep|Have a look|Redo/);
    const [take] = (await api<Plan>(at, `/api/plans/${row.id}`)).slots[0].takes;
    // The line of the bench lasts 6.2 s.
    expect(take.durationS).toBeGreaterThan(6);
    expect(take.findings.map((f) => f.check)).not.toContain('drop-outs');
  }, 120_000);
});

/** Two tables one after the other, and nothing else. */
const TABLES = {
  id: 'two-tables',
  version: 1,
  name: 'Two tables',
  category: 'interface',
  steps: ['Latency', 'Gain by dial'].map((title, i) => ({
    id: `table-${i + 1}`,
    title,
    instruction: 'Read it off.',
    play: { kind: 'table' },
    table: {
      rowName: 'Row',
      rows: Array.from({ length: 13 }, (_, r) => `${title} ${r + 1}`),
      columnName: 'Column',
      columns: ['a', 'b'],
      cell: 'value',
      unit: i === 0 ? 'ms' : 'dB',
    },
  })),
};

describe('tables', () => {
  const at = stage();

  it('each keeps its own cells, whichever was filled in first, and none is cut off', async () => {
    await api(at, '/api/protocol-versions', { document: TABLES });
    const plan = { ...planOf(1, 'Deck'), category: 'interface', protocol: 'two-tables' };
    const { row } = await api<Plan>(at, '/api/plans', plan);
    await api(at, `/api/plans/${row.id}/status`, { status: 'running' });
    const { page, errors } = await at.open(`/booth/${row.id}`);
    await page.getByRole('dialog', { name: 'Input' }).press('Escape');
    await page.getByLabel('Latency 1, a').fill('5,4');
    await page.getByRole('button', { name: 'Keep the table' }).click();
    await page.getByText('Kept.').waitFor();
    await page.getByRole('button', { name: /2\. Gain by dial/ }).click();
    await page.getByLabel('Gain by dial 13, b').fill('60 lots');
    await page.getByRole('button', { name: 'Keep the table' }).click();
    await page.getByText('“lots” is not a unit of this field').waitFor();
    await page.getByLabel('Gain by dial 13, b').fill('60');
    await page.getByRole('button', { name: 'Keep the table' }).click();
    await page.getByText('Kept.').waitFor();
    const { tables } = (await api<Plan>(at, `/api/plans/${row.id}`)).slots[0];
    expect(tables.map((t) => [t.step, t.cells.map((c) => c.value)])).toEqual([
      ['table-1', [5.4]],
      ['table-2', [60]],
    ]);
    // All rows stand on the page itself; only the page scrolls.
    const box = page.locator('sd-table-grid .scroll');
    await expect.poll(() => box.evaluate((e) => e.scrollHeight - e.clientHeight)).toBeLessThanOrEqual(1);
    // The last step is a table, too: the way on is there.
    await page.getByRole('button', { name: /done with this unit/ }).waitFor();

    await page.getByRole('button', { name: /1\. Latency/ }).click();
    await expect.poll(() => page.getByLabel('Latency 1, a').inputValue()).toBe('5.4');
    // Whoever goes on without a word loses nothing: to another table, or out of the booth.
    const first = async (): Promise<number | undefined> =>
      (await api<Plan>(at, `/api/plans/${row.id}`)).slots[0].tables.find((t) => t.step === 'table-1')?.cells[0]?.value;
    await page.getByLabel('Latency 1, a').fill('6,5');
    await page.getByRole('button', { name: /2\. Gain by dial/ }).click();
    await expect.poll(first).toBe(6.5);
    await page.getByRole('button', { name: /1\. Latency/ }).click();
    await expect.poll(() => page.getByLabel('Latency 1, a').inputValue()).toBe('6.5');
    await page.getByLabel('Latency 1, a').fill('7');
    await page.getByRole('link', { name: 'Session', exact: true }).click();
    await expect.poll(first).toBe(7);
    expect(errors).toEqual([]);
  });
});

describe('protocols', () => {
  const at = stage();

  it('get a next version when a used one is edited, and say what stays comparable', async () => {
    const { row, slots } = await session(at, 'Used');
    await api(at, `/api/plans/${row.id}/status`, { status: 'running' });
    expect(slots[0].steps).toEqual(['line', 'silence', 'tone']);
    const { page, errors } = await at.open('/protocols/three-steps/1');
    await page.getByText('frozen').waitFor();
    await page.getByRole('button', { name: 'Make the next version' }).click();
    await page.getByRole('heading', { name: 'Three steps, version 2' }).waitFor();
    await page.getByLabel('What this version changes, and why').fill('Nearer, where people stand.');
    await page.getByLabel('Distance', { exact: true }).fill('10');
    await page.getByLabel('Distance', { exact: true }).blur();
    // Wording alone asks nothing.
    await page.getByRole('button', { name: /2 Silence/ }).click();
    await page.getByLabel('Title').fill('Silence, ten seconds');
    await page.getByRole('button', { name: 'Save' }).click();
    await page.getByText('say whether its results stay comparable').waitFor();
    await page.getByRole('button', { name: /1 Counting line/ }).click();
    await page.getByRole('button', { name: 'Not comparable' }).click();
    await page.getByLabel('Why', { exact: true }).fill('the lows rise');
    await page.getByRole('button', { name: 'Save' }).click();
    await page.getByRole('heading', { name: 'Three steps, version 2' }).waitFor();
    await page.getByRole('button', { name: 'Side by side' }).click();
    await page.getByText('2 stay comparable').waitFor();
    await page.getByText('1 do not').waitFor();
    await page.getByText('the lows rise').waitFor();
    // The passage of version 1 is what it was.
    const [first] = (await api<Protocol[]>(at, '/api/protocols')).filter((p) => p.id === 'three-steps');
    expect(first.steps[0].distanceM).toBe(0.15);
    expect(errors.filter((e) => !e.includes('422'))).toEqual([]);
  }, 60_000);

  it('matches twelve files with wrong names to their steps, and takes them over once confirmed', async () => {
    const plan = await api<Plan>(at, '/api/plans', {
      ...planOf(1, 'Files'),
      protocol: 'desk-voice',
      protocolVersion: 1,
    });
    await api(at, `/api/plans/${plan.row.id}/status`, { status: 'running' });
    const steps = plan.protocol.steps.slice(0, 12);
    const folder = mkdtempSync(join(tmpdir(), 'sediment-files-'));
    const files: string[] = [];
    for (const [i, step] of steps.entries()) {
      const kind = step.play?.kind ?? 'text';
      const response = await fetch(`${at.address()}/api/bench/takes`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({
          talker: 'low',
          room: kind === 'sweep' || kind === 'tone' ? 'crate' : 'loft',
          microphone: 'even',
          interface: 'new',
          playKind: kind,
          gainDb: 36,
          distanceM: step.distanceM,
          angleDeg: step.angleDeg,
          seed: step.id,
        }),
      });
      // Every file has the name of the step that comes three later.
      const name = `${steps[(i + 3) % steps.length].id}.wav`;
      files.push(join(folder, name));
      writeFileSync(join(folder, name), Buffer.from(await response.arrayBuffer()));
    }
    const { page, errors } = await at.open(`/sessions/${plan.row.id}/files/${plan.slots[0].id}`);
    await page.getByLabel('Gain of the passage').fill('36');
    await page.getByLabel('Gain of the passage').blur();
    await page.setInputFiles('input[aria-label="Choose files"]', files);
    await page.getByText('Listening to the files').waitFor();
    await page.getByText('Listening to the files').waitFor({ state: 'detached' });
    await expect.poll(() => page.locator('tbody tr').count()).toBe(12);
    // What cannot be told for certain is set right by hand, as the page asks for.
    for (const [i, step] of steps.entries()) {
      const name = files[i].split('/').at(-1) ?? '';
      const select = page.getByLabel(`Step of ${name}`, { exact: true });
      if ((await select.innerText()).trim() === step.title) continue;
      await select.click();
      await page.getByRole('option', { name: step.title, exact: true }).click();
    }
    for (const field of await page.locator('tbody input').all()) {
      if ((await field.inputValue()) === '') await field.fill('36');
    }
    await page.getByRole('button', { name: 'Confirm and check them' }).click();
    await page.getByRole('button', { name: 'Back to the session' }).waitFor();
    const { takes } = (await api<Plan>(at, `/api/plans/${plan.row.id}`)).slots[0];
    expect(takes.map((t) => t.step)).toEqual(steps.map((s) => s.id));
    expect(takes[0].note).toMatch(/recorded elsewhere as calibration.wav/);
    expect(errors).toEqual([]);
  }, 180_000);
});

describe("the browser's own input", () => {
  // Chromium plays this file into the page as a microphone, over and over. A tone tells the beginning from the rest.
  const speech = syllables([[0.5, 3.5]], 4, -12, RATE, 11);
  const known = mixed(mixed(speech, scaled(lcgNoise(speech.length, 1), -60)), sine(440, -50, 4, RATE));
  const folder = mkdtempSync(join(tmpdir(), 'sediment-capture-'));
  const file = join(folder, 'known.wav');
  writeFileSync(file, encodeWav([known], RATE, 'pcm16'));
  const at = stage(
    () => undefined,
    [],
    [
      '--use-fake-device-for-media-stream',
      '--use-fake-ui-for-media-stream',
      `--use-file-for-fake-audio-capture=${file}`,
    ],
  );

  it("archives the file's audio: same level, same waveform, processing off", async () => {
    const { row } = await session(at, 'Capture');
    const { page, errors } = await at.open(`/sessions/${row.id}`);
    await page.getByRole('button', { name: 'Start in the booth' }).click();
    await page.getByLabel('Count in from three').uncheck();
    await page.getByLabel('Where the sound comes from').click();
    await page.getByRole('option', { name: 'Fake Default Audio Input' }).click();
    await page.getByRole('button', { name: 'Open it' }).click();
    await page.getByRole('button', { name: 'Understood' }).click();
    await noteGain(page);
    await expect.poll(() => page.locator('sd-level-bar').innerText()).toMatch(/peak −1\d/);
    await page.locator('body').press('Space');
    await page.waitForTimeout(9000);
    await page.locator('body').press('Space');
    await expect.poll(() => verdict(page).innerText()).toMatch(/Keep|Have a look|Redo/);
    // Processing is off, nothing is resampled, and the input is still there.
    await expect.poll(() => page.locator('sd-booth > main .bad').allInnerTexts()).toEqual([]);

    const [take] = (await api<Plan>(at, `/api/plans/${row.id}`)).slots[0].takes;
    expect(take.clip.format).toMatchObject({ encoding: 'pcm24', sampleRateHz: RATE, channels: 1 });
    const { samples } = await readClip(
      join(at.folder(), 'clips', take.clip.sha256.slice(0, 2), `${take.clip.sha256}.wav`),
    );
    const stream = openWav(openBytes(file));
    const sent = new Float64Array(stream.format.frames);
    for (let from = 0, block = [new Float64Array(8192)]; ;) {
      const count = await stream.read(block);
      if (count === 0) break;
      sent.set(block[0].subarray(0, count), from);
      from += count;
    }
    // Chromium's fake device runs by a clock of its own and loses buffers of 10 ms on a busy machine; what is between
    // them has to be the file, sample by sample, and the take has to say that something is missing.
    const stretches = stretchesOf(sent, samples);
    const exact = stretches.filter((s) => s.worst < 3 / 32_768);
    expect(exact.length).toBeGreaterThan(20);
    expect(exact.length / stretches.length).toBeGreaterThan(0.3);
    // Level within 0.1 dB.
    for (const { gain } of exact) expect(Math.abs(20 * Math.log10(gain))).toBeLessThan(0.1);
    const checks = take.findings.map((f) => f.check);
    expect(exact.length === stretches.length || checks.includes('drop-outs'), checks.join()).toBe(true);
    expect(errors).toEqual([]);
  }, 120_000);
});

/** Twentieths of a second of the recording, each where it lies best in the file, and how far the two then differ. */
function stretchesOf(sent: Float64Array, recorded: Float64Array): { worst: number; gain: number }[] {
  const length = RATE / 20;
  const loop = Float64Array.from({ length: sent.length + length }, (_, i) => sent[i % sent.length]);
  const found: { worst: number; gain: number }[] = [];
  for (let from = RATE / 2; from + length < recorded.length; from += length) {
    const piece = recorded.subarray(from, from + length);
    // In its pauses the file is all noise, which fits anywhere about as well.
    if (piece.reduce((m, x) => Math.max(m, Math.abs(x)), 0) < 0.05) continue;
    found.push(fitOf(loop, piece, sent.length));
  }
  return found;
}

function fitOf(loop: Float64Array, piece: Float64Array, lags: number): { worst: number; gain: number } {
  let best = { lag: 0, error: Infinity };
  for (let lag = 0; lag < lags; lag++) {
    let error = 0;
    for (let i = 0; i < piece.length && error < best.error; i += 16) error += (piece[i] - loop[lag + i]) ** 2;
    if (error < best.error) best = { lag, error };
  }
  let worst = 0;
  let both = 0;
  let own = 0;
  for (let i = 0; i < piece.length; i++) {
    worst = Math.max(worst, Math.abs(piece[i] - loop[best.lag + i]));
    both += piece[i] * loop[best.lag + i];
    own += loop[best.lag + i] ** 2;
  }
  return { worst, gain: both / own };
}
