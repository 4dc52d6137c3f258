import { createServer, type Server } from 'node:http';
import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { dirname, join } from 'node:path';
import { describe, expect, it, onTestFinished } from 'vitest';
import { takeWav } from '#server/testing/application';
import { unzipped } from '#server/testing/unzipped';
import { seriousFindings } from './axe';
import { filesIn, stage } from './support';

// What ends in something published: written, frozen, corrected, handed out, and read by somebody who has only the file.

/** A file server that knows nothing of us. */
async function fileServer(folder: string): Promise<string> {
  const types: Record<string, string> = { html: 'text/html', css: 'text/css', js: 'text/javascript', svg: 'image/svg+xml', xml: 'application/xml', flac: 'audio/flac' }; // prettier-ignore
  const server = await new Promise<Server>((resolve) => {
    const made = createServer((request, response) => {
      const path = decodeURIComponent(new URL(request.url ?? '/', 'http://x').pathname).replace(/\/$/, '/index.html');
      try {
        const body = readFileSync(join(folder, path));
        response.writeHead(200, { 'content-type': types[path.split('.').at(-1) ?? ''] ?? 'application/octet-stream' });
        response.end(body);
      } catch {
        response.writeHead(404).end();
      }
    }).listen(0, '127.0.0.1', () => resolve(made));
  });
  onTestFinished(() => {
    server.close();
  });
  return `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
}

/** A ZIP as files in a folder; where they lie. */
async function unpack(zip: Buffer, folder: string): Promise<string[]> {
  const paths: string[] = [];
  for (const [name, body] of await unzipped(zip)) {
    const path = join(folder, name);
    mkdirSync(dirname(path), { recursive: true });
    writeFileSync(path, body);
    paths.push(path);
  }
  return paths;
}

describe('publishing', () => {
  const { open, folder, address, context } = stage();

  it('an empty archive says what a review is for; a unit without a take can be written about', async () => {
    const { page, errors } = await open('/reviews');
    await page.getByText('What you say of a unit, and what you publish').waitFor();
    expect(await page.getByRole('button', { name: 'Begin a review' }).isDisabled()).toBe(true);
    expect(errors).toEqual([]);
  });

  it('a verdict is written, frozen, corrected, handed out and read', async () => {
    const { page, errors } = await open('/new-run');
    for (const [model, level, noise] of [
      ['Purser', -14, -70],
      ['Winch', -18, -62],
    ] as const) {
      await page.goto(`${address()}/new-run`);
      await page.setInputFiles(
        'input[aria-label="Choose files"]',
        filesIn(join(folder(), model), {
          'speech.wav': takeWav(level, noise, 1),
          'silence.wav': takeWav(null, noise, 5),
        }),
      );
      await page.getByLabel('Gain of speech.wav').fill('40');
      await page.getByLabel('Gain of speech.wav').press('Enter');
      await page.getByLabel('Maker').fill('Oarlock');
      await page.getByLabel('Model').fill(model);
      await page.getByLabel('Label (serial, A, B)').fill('A');
      await page.getByRole('button', { name: 'Import and measure' }).click();
      await page.getByRole('heading', { level: 1, name: 'Measured' }).waitFor();
    }
    await page.goto(`${address()}/reviews`);
    await page.getByRole('combobox', { name: 'Unit to review' }).click();
    await page.getByRole('option', { name: 'Oarlock Purser · A' }).click();
    await page.getByRole('button', { name: 'Begin a review' }).click();
    await page.getByRole('heading', { level: 1, name: 'Review · Oarlock Purser · A' }).waitFor();

    // Nothing is written yet: publishing says what is missing, and nothing is lost by asking.
    await page.getByRole('button', { name: 'Publish edition 1' }).click();
    await page.getByText('an edition needs a headline').waitFor();
    await page.getByLabel('Headline').fill('Quiet where it counts');
    await page.getByRole('textbox', { name: 'Summary' }).click();
    await page.keyboard.type('It is quiet.');
    await page.keyboard.press('Control+b');
    await page.keyboard.type(' Very.');
    const offered = page.getByRole('button', { name: /Take it/ });
    await offered.first().waitFor();
    const proposals = await offered.count();
    await offered.first().click();
    await page.getByText('taken', { exact: true }).waitFor();
    expect(await offered.count()).toBe(proposals - 1);
    await page.getByRole('button', { name: /Write a line: For it/ }).click();
    await page.getByLabel('For it, line 1').fill('Light in the hand');
    // A reload before it is saved loses nothing, and what was typed comes back as it was typed.
    await page.getByText('Not saved yet').waitFor();
    page.once('dialog', (d) => void d.accept());
    await page.reload();
    expect(await page.getByLabel('Headline').inputValue()).toBe('Quiet where it counts');
    expect(await page.getByLabel('For it, line 1').inputValue()).toBe('Light in the hand');
    expect(await page.getByRole('textbox', { name: 'Summary' }).locator('strong').textContent()).toBe('Very.');
    await page.getByText('Saved', { exact: true }).waitFor();
    await page.getByRole('button', { name: 'Publish edition 1' }).click();
    await page.getByRole('heading', { level: 2, name: /Edition 1/ }).waitFor();
    await page.getByText('Nothing that counts has changed since.').waitFor();
    expect(await seriousFindings(page)).toEqual([]);

    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name: 'One HTML file' }).click(),
    ]);
    expect(download.suggestedFilename()).toBe('oarlock-purser-a-edition-1.html');
    const file = join(folder(), 'review.html');
    writeFileSync(file, readFileSync(await download.path()));
    // Somebody who has the file and no network: text, charts, clips, a guess.
    const device = await context({ offline: true, viewport: { width: 390, height: 800 } });
    const reader = await device.newPage();
    const asked: string[] = [];
    reader.on('request', (r) => {
      if (!/^(file|data|blob):/.test(r.url())) asked.push(r.url());
    });
    const broken: string[] = [];
    reader.on('console', (m) => {
      if (m.type() === 'error') broken.push(m.text());
    });
    await reader.goto(`file://${file}`);
    await reader.getByRole('heading', { level: 1, name: 'Oarlock Purser A' }).waitFor();
    await reader.getByText('Light in the hand').waitFor();
    expect(await reader.evaluate(() => document.documentElement.scrollWidth)).toBe(390);
    await reader.getByRole('button', { name: 'Play' }).click();
    await reader.getByRole('button', { name: 'Pause' }).waitFor();
    await reader.getByRole('button', { name: 'B', exact: true }).click();
    await reader.getByRole('button', { name: /that is my guess/ }).click();
    await reader.getByText(/is Oarlock Purser · A\./).waitFor();
    await reader.getByRole('button', { name: /· Oarlock Winch · A/ }).waitFor();
    expect(asked).toEqual([]);
    expect(broken).toEqual([]);
    await device.close();

    // The same with its clips in a folder: a page from a disk may not read them, and is heard all the same.
    const [folderDownload] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name: 'Page and clips in a folder' }).click(),
    ]);
    expect(folderDownload.suggestedFilename()).toBe('oarlock-purser-a-edition-1-with-clips.zip');
    const unpacked = await unpack(readFileSync(await folderDownload.path()), join(folder(), 'unpacked'));
    const lone = unpacked.find((path) => path.endsWith('.html')) ?? '';
    const other = await context({ offline: true, viewport: { width: 1280, height: 800 } });
    const disk = await other.newPage();
    disk.on('console', (m) => {
      if (m.type() === 'error') broken.push(m.text());
    });
    await disk.goto(`file://${lone}`);
    await disk.getByRole('button', { name: 'Play' }).click();
    await disk.getByRole('button', { name: 'Pause' }).waitFor();
    await disk.getByRole('button', { name: 'B', exact: true }).click();
    await disk.getByRole('button', { name: /that is my guess/ }).click();
    await disk.getByRole('button', { name: /· Oarlock Winch · A/ }).waitFor();
    expect(broken).toEqual([]);
    // On paper: the ranking is open, what is only worked with is not there, and it is dark for nobody.
    const ranking = disk.locator('details.printed table').first();
    expect(await ranking.isVisible()).toBe(false);
    await disk.emulateMedia({ media: 'print', colorScheme: 'dark' });
    expect(await ranking.isVisible()).toBe(true);
    expect(await disk.getByRole('button', { name: 'Pause' }).isVisible()).toBe(false);
    expect(await disk.getByText('The numbers of this picture').isVisible()).toBe(false);
    expect(await disk.evaluate(() => getComputedStyle(document.body).backgroundColor)).toBe('rgb(255, 255, 255)'); // prettier-ignore
    await disk.emulateMedia({ media: 'screen' });
    // A clip that did not come along is named.
    rmSync(unpacked.find((path) => path.endsWith('.js')) ?? '');
    await disk.reload();
    await disk.getByRole('button', { name: 'Play' }).click();
    await disk.getByText(/clips\/\w+\.js is missing beside this page/).waitFor();
    await other.close();

    // A correction makes the next edition; the first one stays what it was.
    await page.getByLabel('Headline').fill('Quiet, but beaten');
    await page.getByRole('button', { name: 'Publish edition 2' }).click();
    await page.getByRole('heading', { level: 2, name: /Edition 2/ }).waitFor();
    await page.getByText('Changed in this edition: 1').click();
    await page.getByText('Headline written anew').waitFor();

    // A price falls: the page of the review, the unit and the site say so.
    const unit = (await (await fetch(`${address()}/api/specimens`)).json()) as { id: string; model: string }[];
    const purser = unit.find((u) => u.model === 'Purser')?.id ?? '';
    await fetch(`${address()}/api/specimens/${purser}/prices`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ amount: 99, currency: 'EUR', kind: 'street', date: '2026-01-01' }),
    });
    await page.getByText(/Since then: /).waitFor();
    await page.getByText(/Price: 99 EUR/).waitFor();
    await page.goto(`${address()}/gear/${purser}`);
    await page.getByText(/edition 2/).first().waitFor(); // prettier-ignore
    await page.goto(`${address()}/reviews`);
    await page.getByRole('button', { name: 'Write the site' }).click();
    await page.getByText(/pages in /).waitFor();
    expect(await seriousFindings(page)).toEqual([]);
    expect(errors.filter((e) => !e.includes('400'))).toEqual([]);
  });

  it('the site is read from any file server: without a script, on a phone, and its clips play', async () => {
    const site = await fileServer(join(folder(), 'site'));
    const plain = await context({ javaScriptEnabled: false, viewport: { width: 390, height: 800 } });
    const bare = await plain.newPage();
    await bare.goto(site);
    await bare.getByRole('link', { name: 'Oarlock Purser A' }).click();
    await bare.getByText('Light in the hand').waitFor();
    await bare.getByText(/Price: 99 EUR/).waitFor();
    await bare.getByRole('link', { name: /^1 of / }).click();
    await bare.getByText('Quiet where it counts').waitFor();
    await bare.getByText(/Replaced by edition 2/).waitFor();
    await plain.close();

    const device = await context({ bypassCSP: true, viewport: { width: 1280, height: 800 } });
    const page = await device.newPage();
    for (const path of ['/', '/all.html', '/blind.html', '/kinds/microphone.html']) {
      await page.goto(site + path);
      expect(await seriousFindings(page), path).toEqual([]);
    }
    await page.goto(`${site}/all.html`);
    await page.getByLabel('Search').fill('purser nothing');
    await page.getByText('0 reviews').waitFor();
    await page.getByLabel('Search').fill('quiet purs');
    await page.getByText('1 review', { exact: true }).waitFor();
    await page.getByRole('link', { name: 'Blind tests' }).click();
    await page.getByRole('link', { name: 'Which one is the Oarlock Purser A?' }).click();
    await page.getByRole('button', { name: 'Play' }).click();
    await page.getByRole('button', { name: 'Pause' }).waitFor();
    expect(await seriousFindings(page)).toEqual([]);
    await device.close();
  });
});
