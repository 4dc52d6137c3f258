import { join } from 'node:path';
import { build } from 'esbuild';
import type { Page } from 'playwright-core';
import type { LanePlayer as Player } from '../src/web/app/audio/lane-player';
import { describe, expect, it } from 'vitest';
import { excerptLevel } from '#core/measure/excerpt-level';
import { MODELS } from '#server/testing/heard-catalogue';
import { packageRoot } from '#server/platform/package-root';
import { catalogueOf, measuredTakes } from './heard-units';
import { stage } from './support';

const UNITS = 5;
const FLAGS = ['--autoplay-policy=no-user-gesture-required'];
const catalogue = catalogueOf(UNITS);
const measured = (address: string) => measuredTakes(address, UNITS);

async function setUp(address: string, test: Record<string, unknown>): Promise<{ id: string; invitation: string }> {
  const response = await fetch(`${address}/api/listening`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ passage: { fromS: 0.4, lengthS: 3 }, ...test }),
  });
  const page = (await response.json()) as { row: { id: string }; invitation: string };
  await expect
    .poll(
      async () =>
        ((await (await fetch(`${address}/api/listening/${page.row.id}`)).json()) as { row: { status: string } }).row
          .status,
    )
    .toBe('open');
  return { id: page.row.id, invitation: page.invitation };
}

/** Through name, questions and headphones to the first trial. */
async function begin(page: Page, name: string): Promise<void> {
  await page.getByLabel('Your name').fill(name);
  await page.getByRole('button', { name: 'Begin' }).click();
  await page.getByRole('heading', { name: 'Before you begin' }).waitFor();
  await page.getByRole('button', { name: 'Headphones', exact: true }).click();
  await page.getByRole('button', { name: 'Go on' }).click();
  await page.getByRole('heading', { name: 'Your headphones' }).waitFor();
  await page.getByRole('button', { name: 'Play' }).first().click();
  await page.getByRole('button', { name: 'The volume is down' }).click();
  await page.getByRole('button', { name: 'Left', exact: true }).click();
  await page.getByRole('button', { name: 'Play' }).nth(1).click();
  await page.getByRole('button', { name: 'The first' }).click();
  await page.getByRole('button', { name: 'Go on' }).click();
  await hearAll(page);
  await page.getByRole('button', { name: 'Begin' }).click();
}

async function hearAll(page: Page): Promise<string[]> {
  const clips = page.locator('.clip');
  await expect
    .poll(() =>
      clips
        .first()
        .isEnabled()
        .catch(() => false),
    )
    .toBe(true);
  const count = await clips.count();
  const codes: string[] = [];
  for (let i = 0; i < count; i++) {
    await clips.nth(i).click();
    // Another device has not read the reminder yet.
    const reminder = page.getByRole('button', { name: 'The volume is down' });
    if (i === 0) {
      await page.locator('.clip.playing').or(reminder).first().waitFor();
      if (await reminder.isVisible()) await reminder.click();
    }
    codes.push(await clips.nth(i).locator('.code').innerText());
  }
  return codes;
}

/** Places every clip behind the ones before it, and answers. */
async function answerHeat(page: Page): Promise<void> {
  await page.getByText(/Put them in order/).waitFor();
  const codes = await hearAll(page);
  for (let i = 1; i < codes.length; i++) await page.getByRole('button', { name: new RegExp(`^${codes[i]} behind`) }).click(); // prettier-ignore
  await page.getByRole('button', { name: 'That is my answer' }).click();
}

describe('what is heard', () => {
  const { open, address } = stage(catalogue, [], FLAGS);

  it('switches without a gap or a click, at the very sample, both lanes equally loud', async () => {
    const { outputFiles } = await build({
      entryPoints: [join(packageRoot, 'src/web/app/audio/lane-player.ts')],
      bundle: true,
      write: false,
      format: 'iife',
      globalName: 'Lanes',
    });
    const { page } = await open('/listen/nothing-here');
    // Not as a script of the page, which its policy forbids.
    await page.evaluate(outputFiles[0].text);
    const rendered = await page.evaluate(async () => {
      const { LanePlayer } = (globalThis as unknown as { Lanes: { LanePlayer: typeof Player } }).Lanes;
      const rate = 48_000;
      const context = new OfflineAudioContext(1, 4 * rate, rate);
      // Lane 0 is a ramped noise, lane 1 the same 6 dB lower and 1,234 samples late, played with 6 dB more.
      const make = (gain: number, late: number): AudioBuffer => {
        const buffer = context.createBuffer(1, 5 * rate, rate);
        const x = buffer.getChannelData(0);
        let seed = 12345;
        for (let i = 0; i < x.length - late; i++) {
          seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0;
          x[i + late] = gain * (seed / 2 ** 32 - 0.5) * 0.4;
        }
        return buffer;
      };
      const player = new LanePlayer(context);
      player.setLanes([
        { buffer: make(1, 0), gain: 1, map: { kind: 'performance', anchors: [[0, 0]] } },
        { buffer: make(0.5, 1234), gain: 2, map: { kind: 'performance', anchors: [[0, 1234 / rate]] } },
      ]);
      const began = player.play();
      const switched: number[] = [];
      for (const at of [1, 2, 2.01, 3])
        void context.suspend(at).then(async () => {
          // At 2.01 the fade of the switch before is still going on.
          switched.push(player.switchTo(switched.length % 2 === 0 ? 1 : 0) - context.currentTime);
          await context.resume();
        });
      const output = (await context.startRendering()).getChannelData(0);
      player.close();
      return { output: [...output], reference: [...make(1, 0).getChannelData(0)], began, switched };
    });
    const output = Float64Array.from(rendered.output);
    const reference = Float64Array.from(rendered.reference);
    const start = Math.round(rendered.began * 48_000);
    // Every switch begins within 30 ms of being asked for (measured on the clock of the audio).
    expect(rendered.switched).toHaveLength(4);
    for (const lag of rendered.switched) expect(lag).toBeLessThanOrEqual(0.03);
    // Away from fades it is the one performance throughout, to rounding: no lane is a sample early or late.
    for (const [from, to] of [
      [0.4, 0.99],
      [1.1, 1.99],
      [2.1, 2.99],
      [3.1, 3.9],
    ]) {
      // prettier-ignore
      let worst = 0;
      for (let i = Math.round(from * 48_000); i < Math.round(to * 48_000); i++)
        worst = Math.max(worst, Math.abs(output[i] - reference[i - start]));
      expect(worst).toBeLessThan(1e-5);
    }
    // No gap: over 5 ms the level never falls; equal lanes add up to at most 3 dB more under an equal-power fade.
    const level = (at: number): number => {
      let sum = 0;
      for (let i = at; i < at + 240; i++) sum += output[i] ** 2 / 240;
      return 10 * Math.log10(sum);
    };
    const usual = level(Math.round(0.6 * 48_000));
    for (let at = Math.round(0.95 * 48_000); at < Math.round(3.1 * 48_000); at += 120) {
      expect(level(at) - usual).toBeGreaterThan(-2);
      expect(level(at) - usual).toBeLessThan(5);
    }
    const loudness = async (from: number): Promise<number> =>
      (await excerptLevel(output.slice(Math.round(from * 48_000), Math.round((from + 0.8) * 48_000)), 48_000)).integratedLufs; // prettier-ignore
    expect(Math.abs((await loudness(1.1)) - (await loudness(2.1)))).toBeLessThan(0.1);
  });

  it('compares four: levels, keys, shuffle, guess, reveal, keep, export', async () => {
    const { takes } = await measured(address());
    const { page, errors } = await open(`/compare?takes=${takes.slice(0, 4).join(',')}`);
    await page.getByText(/All at −\d+\.\d LUFS/).waitFor();
    await page.getByText('Difference to the zero line').first().waitFor();
    const applied = await page.locator('.lanes tbody td:nth-child(5)').allInnerTexts();
    expect(applied).toHaveLength(4);
    expect(new Set(applied).size).toBeGreaterThan(1);
    await page.getByRole('button', { name: 'Play' }).click();
    await page.getByRole('button', { name: 'The volume is down' }).click();
    await page.getByRole('button', { name: 'Pause' }).waitFor();
    await page.locator('h1').click();
    await page.keyboard.press('3');
    await expect
      .poll(() => page.getByRole('button', { name: 'Hear lane 3' }).getAttribute('aria-pressed'))
      .toBe('true');
    const names = await page.locator('.lanes tbody a').allInnerTexts();
    await page.keyboard.press('h');
    await page.getByText('hidden').first().waitFor();
    // What sounded must not tell which of the hidden lanes it is: the first of the new order sounds.
    await expect
      .poll(() => page.getByRole('button', { name: 'Hear lane 1' }).getAttribute('aria-pressed'))
      .toBe('true');
    for (const name of names) expect(await page.getByText(name, { exact: true }).count()).toBe(0);
    const guesses = page.getByLabel(/Guess for lane/);
    // Typing a digit into a guess switches nothing.
    await guesses.nth(0).fill(names[0]);
    await guesses.nth(1).fill('3');
    await page.locator('h1').click();
    await page.keyboard.press('h');
    await page.getByText(/[01] of 4 guesses right/).waitFor();
    await page.getByRole('button', { name: 'Back to names' }).click();
    await page.getByLabel('Name of the comparison').fill('Spring four');
    await page.getByRole('button', { name: 'Keep' }).click();
    await page.getByRole('heading', { level: 1, name: 'Spring four' }).waitFor();
    const href = (await page.getByRole('link', { name: 'Export ZIP' }).getAttribute('href')) ?? '';
    const zip = await fetch(address() + href);
    expect(zip.headers.get('content-type')).toBe('application/zip');
    expect((await zip.arrayBuffer()).byteLength).toBeGreaterThan(4 * 2 * 3 * 48_000);
    await page.goto(`${address()}/compare`);
    await page.getByRole('link', { name: 'Spring four' }).waitFor();
    expect(errors).toEqual([]);
  });

  it('a heat of four and a final, on two phones at once, with a closed tab in the middle, and the reveal', async () => {
    const { takes } = await measured(address());
    const { id, invitation } = await setUp(address(), { name: 'Phones', design: 'heats', heatSize: 4, takes });
    const phones = await Promise.all([open(`/listen/join/${invitation}`), open(`/listen/join/${invitation}`)]);
    for (const { page } of phones) await page.setViewportSize({ width: 390, height: 780 });
    await Promise.all(phones.map(({ page }, i) => begin(page, `Listener ${i + 1}`)));
    const [first, second] = phones.map((p) => p.page);
    await Promise.all([answerHeat(first), answerHeat(second)]);
    // Nothing sticks out sideways, and nothing but letters and the question is there.
    await first.locator('.clip').first().waitFor();
    await expect.poll(() => first.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
    for (const model of MODELS) expect(await first.locator('body').innerText()).not.toContain(model);
    // The first one closes the tab and goes on, by the link, in another browser.
    const link = first.url();
    await first.context().close();
    const resumed = (await open(new URL(link).pathname)).page;
    await resumed.getByText(/^3 of/).waitFor();
    for (const page of [resumed, second]) {
      const thanks = page.getByRole('heading', { name: 'Thank you' });
      for (let i = 0; i < 4 && !(await thanks.isVisible()); i++) {
        await page.locator('.clip, h1:has-text("Thank you")').first().waitFor();
        if (await thanks.isVisible()) break;
        const place = (): Promise<string> => page.getByText(/^\d+ of \d+/).first().innerText({ timeout: 2000 }); // prettier-ignore
        const before = await place();
        if (await page.getByRole('button', { name: 'No preference' }).isVisible()) {
          await hearAll(page);
          await page.getByRole('button', { name: 'No preference' }).click();
          await page.getByRole('button', { name: 'That is my answer' }).click();
        } else await answerHeat(page);
        // The server has the answer when the next question, or the end, is there.
        await expect.poll(async () => (await thanks.isVisible()) || (await place().catch(() => before)) !== before).toBe(true); // prettier-ignore
      }
    }
    await resumed.getByRole('heading', { name: 'Thank you' }).waitFor();
    await second.getByRole('heading', { name: 'Thank you' }).waitFor();
    const operator = (await open(`/listening/${id}`)).page;
    await operator.getByRole('cell', { name: 'Listener 2', exact: true }).waitFor();
    expect(await operator.getByText('What may be concluded').count()).toBe(0);
    await operator.getByRole('button', { name: 'Reveal' }).click();
    await operator.getByRole('button', { name: 'Reveal now' }).click();
    await operator.getByRole('heading', { name: 'What may be concluded' }).waitFor();
    await operator.getByText(/Kendall's W/).waitFor();
    // The listener's page finds out by itself.
    await second.getByRole('heading', { name: 'What was what' }).waitFor();
    await expect.poll(() => second.locator('body').innerText()).toContain('Oarlock');
    expect([...phones[1].errors]).toEqual([]);
  });

  it('leaks nothing to a listener: neither over the network, nor in the page, nor in names, sizes or the order of loading', async () => {
    const { takes, ids } = await measured(address());
    const { invitation } = await setUp(address(), {
      name: 'Secret of the Purser',
      design: 'abx',
      takes: takes.slice(0, 2),
    });
    const { page, errors } = await open('/listen/nothing-here');
    const seen: { url: string; body: string; size: number; type: string }[] = [];
    page.on('response', (response) => {
      void response.body().then((body) =>
        seen.push({ url: response.url(), body: body.toString('latin1'), size: body.length, type: response.headers()['content-type'] ?? '' }),
      ).catch(() => undefined); // prettier-ignore
    });
    await page.goto(`${address()}/listen/join/${invitation}`);
    await begin(page, 'A spy');
    await page.getByText('Is X the clip A or the clip B?').waitFor();
    // No clip can be played before all are there: which one was quick says nothing.
    const enabled = await page.locator('.clip:enabled').count();
    expect([0, 3]).toContain(enabled);
    await hearAll(page);
    await page.getByRole('button', { name: 'X is A' }).click();
    await page.getByRole('button', { name: 'That is my answer' }).click();
    await page.getByText(/^3 of 17/).waitFor();
    await hearAll(page);
    const api = seen.filter((s) => s.url.includes('/api/'));
    // The listener's own addresses alone: no list of units, no events, no original clip.
    expect(api.every((s) => s.url.includes('/api/listen/'))).toBe(true);
    const html = await page.content();
    for (const text of [...api.map((s) => s.body), html, ...api.map((s) => s.url)])
      for (const secret of ['Oarlock', 'Purser', 'Bosun', 'Secret of', ...takes.map((t) => `take${t}`)])
        expect(text.includes(secret)).toBe(false);
    expect(ids.size).toBe(UNITS);
    const clips = api.filter((s) => s.type === 'audio/wav');
    expect(clips.length).toBeGreaterThan(7);
    expect(new Set(clips.map((c) => c.size)).size).toBe(1);
    expect(new Set(clips.map((c) => c.body)).size).toBe(clips.length);
    // Names of files are the letters on the buttons.
    expect(clips.every((c) => /\/clips\/\d+\/[ABX]$/.test(c.url))).toBe(true);
    expect(errors.filter((e) => !e.includes('404') && !e.includes('400'))).toEqual([]);
  });

  it('places a new unit by a few questions, and its interval shrinks', async () => {
    const { ids } = await measured(address());
    const names = [...ids.keys()];
    const lines = names.slice(0, 4).flatMap((w, i) => names.slice(i + 1, 4).map((l) => `"${w}","${l}",0,9`));
    const back = names.slice(0, 4).flatMap((w, i) => names.slice(i + 1, 4).map((l) => `"${l}","${w}",0,2`));
    await fetch(`${address()}/api/scale/import`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ csv: `winner,loser,tie,count\n${[...lines, ...back].join('\n')}\n`, attribute: 'natural', category: 'microphone' }), // prettier-ignore
    });
    const { page, errors } = await open('/scale');
    await page.getByRole('combobox', { name: 'Asked for' }).click();
    await page.getByRole('option', { name: 'natural sound' }).click();
    await page.getByRole('link', { name: names[0], exact: true }).first().waitFor();
    await page.goto(`${address()}/scale/place/${ids.get(names[4]) ?? ''}`);
    await page.getByRole('combobox', { name: 'Asked for' }).click();
    await page.getByRole('option', { name: 'natural sound' }).click();
    await page.getByRole('combobox', { name: 'Ask in' }).click();
    await page.getByRole('option', { name: 'pairs' }).click();
    await page.getByText('of 5 (90 %), after 0 answers').waitFor();
    await page.getByRole('heading', { name: 'Which do you prefer?' }).waitFor();
    // What is to be known is asked for, and how many questions that may take is said before the first.
    await page.getByText(/Half of all such units need no more than \d+ question/).waitFor();
    const width = async (): Promise<number> => {
      const [low, high] = (await page.locator('section strong.num').innerText()).split('–').map(Number);
      return high - low;
    };
    await expect.poll(() => width()).toBe(4);
    for (let i = 1; i <= 8; i++) {
      await expect.poll(() => page.locator('.clip').first().isEnabled()).toBe(true);
      await page.locator('.clip').nth(0).click();
      if (i === 1) await page.getByRole('button', { name: 'The volume is down' }).click();
      await page.locator('.clip').nth(1).click();
      await page.getByRole('button', { name: 'A is better' }).click();
      await page.getByText(`after ${i} answers`).waitFor();
    }
    await page.getByText(/So far:/).waitFor();
    await page.getByRole('combobox', { name: 'What do you want to know?' }).click();
    await page.getByRole('option', { name: 'Does it beat a yardstick?' }).click();
    await page.getByText(/better than .*, with \d+ %/).waitFor();
    await page.getByRole('combobox', { name: 'What do you want to know?' }).click();
    await page.getByRole('option', { name: 'Better or lower half?' }).click();
    await page.getByRole('button', { name: 'Take the last answer back' }).click();
    await page.getByText('after 7 answers').waitFor();
    await page.getByRole('combobox', { name: 'Ask in' }).click();
    await page.getByRole('option', { name: 'orders of four' }).click();
    await page.getByRole('heading', { name: 'Put these in order' }).waitFor();
    await expect.poll(() => page.locator('.clip').count()).toBe(4);
    expect(errors).toEqual([]);
  });
});
