import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { seriousFindings } from './axe';
import { catalogueOf, measuredTakes } from './heard-units';
import { stage } from './support';

// A test that goes out: sealed, sent, heard by somebody who has the page alone, answered, taken back, revealed.

const UNITS = 3;

describe('a blind pack', () => {
  const { open, folder, address, context } = stage(
    catalogueOf(UNITS),
    [],
    ['--autoplay-policy=no-user-gesture-required'],
  );

  it('goes out sealed, is answered away from here, comes back, and opens', async () => {
    await measuredTakes(address(), UNITS);
    const { page, errors } = await open('/listening/new');
    await page.getByLabel('Name, for you').fill('Three for a desk');
    await page.getByRole('combobox', { name: 'Design' }).click();
    await page.getByRole('option', { name: 'Blind pack, sent out' }).click();
    await page.getByLabel(/Title, for listeners/).fill('Three for a winter desk');
    // A guess leaves no room for the copy without highs: it is said, and the test can still be made.
    await page.getByRole('checkbox', { name: 'a guess: which unit is which' }).check();
    await page.getByText('No copy without highs').waitFor();
    await page.getByRole('checkbox', { name: 'a guess: which unit is which' }).uncheck();
    await page.getByRole('checkbox', { name: /one clip without highs among them/ }).waitFor();
    await page.getByRole('checkbox', { name: /points/ }).check();
    await page.locator('p-multiselect').click();
    await page
      .getByRole('option')
      .nth(UNITS - 1)
      .waitFor();
    for (const option of await page.getByRole('option').all()) await option.click();
    await page.keyboard.press('Escape');
    await page.getByLabel('Passage from').fill('0.4');
    await page.getByLabel('Passage from').press('Tab');
    await page.getByLabel('Length').fill('3');
    await page.getByLabel('Length').press('Tab');
    await page.getByRole('button', { name: 'Prepare the test' }).click();
    await page.getByRole('heading', { level: 2, name: 'What goes out' }).waitFor();
    const announced = (await page.getByText(/SHA-256 of the key: [0-9a-f]{64}/).textContent()) ?? '';
    expect(await seriousFindings(page)).toEqual([]);

    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name: 'The page alone (HTML)' }).click(),
    ]);
    const file = join(folder(), 'listen.html');
    writeFileSync(file, readFileSync(await download.path()));

    // Somebody who has the file and no network, on a phone.
    const device = await context({ offline: true, viewport: { width: 390, height: 800 } });
    const listener = await device.newPage();
    const broken: string[] = [];
    listener.on('console', (m) => {
      if (m.type() === 'error') broken.push(m.text());
    });
    await listener.goto(`file://${file}`);
    await listener.getByRole('heading', { level: 1, name: 'Three for a winter desk' }).waitFor();
    expect(announced).toContain((await listener.locator('.code').textContent()) ?? 'no hash');
    expect(await listener.evaluate(() => document.documentElement.scrollWidth)).toBe(390);
    await listener.getByText('Nothing is said yet.').waitFor();
    await listener.getByRole('button', { name: 'Play' }).click();
    await listener.getByRole('button', { name: 'Pause' }).waitFor();
    for (const name of ['Birch', 'Cedar', 'Dogwood', 'Alder'])
      await listener.getByRole('button', { name, exact: true }).click();
    await listener.getByText(/Nothing is said yet\.$/).waitFor();
    // By the keyboard: Cedar to the top, the field under the hand stays under it.
    const names = () => listener.locator('ol.clips .hear').allTextContents();
    const up = listener.getByRole('button', { name: 'Cedar up' });
    // Which order the page begins with is drawn for each listener: in one of four it begins with Cedar.
    if ((await names())[0] === 'Cedar') await listener.getByRole('button', { name: 'Cedar down' }).press('Enter');
    while ((await names())[0] !== 'Cedar') await up.press('Enter');
    expect(await listener.getByRole('checkbox', { name: /This is my order/ }).isChecked()).toBe(true);
    await listener.getByLabel('Points for Birch, 0 to 10').fill('11');
    await listener.getByText('B: points go from 0 to 10').waitFor();
    expect(await listener.getByRole('button', { name: 'Copy the code' }).isDisabled()).toBe(true);
    await listener.getByLabel('Points for Birch, 0 to 10').fill('7,5');
    await listener.getByText('Paste this code').waitFor();
    const code = await listener.getByLabel('Code of your answer').inputValue();
    expect(code).toMatch(/^SD1-[0-9A-F]{6}-OC[ABD]{3}-PB7\.5-\w\w$/);
    await listener.getByLabel('Your name, if you want to give one').fill('Bram "the desk"');
    const [csv] = await Promise.all([
      listener.waitForEvent('download'),
      listener.getByRole('button', { name: 'Save as CSV' }).click(),
    ]);
    const table = join(folder(), 'answer.csv');
    writeFileSync(table, readFileSync(await csv.path()));
    expect(await seriousFindings(listener)).toEqual([]);

    // Back: a code in a comment, a comment in words, one that says nothing; then a file.
    const order = (await names()).map((n) => n[0]).join(' > ');
    await page
      .getByLabel('Answers', { exact: true })
      .fill(`Ines: here: ${code}\nTam: ${order}\nUlf: not ${order}\nthanks!`);
    await page.getByRole('button', { name: 'Read them' }).click();
    await page.getByText('2 answers, 1 to look at, 1 that says nothing that can be kept.').waitFor();
    await page.getByText('“not” may turn its meaning').waitFor();
    expect(await page.getByRole('checkbox', { name: 'Keep line 3' }).isChecked()).toBe(false);
    expect(await seriousFindings(page)).toEqual([]);
    await page.getByRole('button', { name: 'Keep 2 answers' }).click();
    // What was not kept stays to be looked at; what was kept is known.
    await page.getByText('1 to look at, 2 that are there already').waitFor();
    await page.getByRole('checkbox', { name: 'Keep line 3' }).check();
    await page.getByLabel('Listener of line 3').fill('Ulf the second');
    await page.getByRole('button', { name: 'Keep 1 answer' }).click();
    await page.getByText('1 answer kept.').waitFor();
    await page.locator('sd-returned-answers input[type="file"]').setInputFiles(table);
    await page.getByText('1 answer.', { exact: true }).waitFor();
    await page.getByRole('button', { name: 'Keep 1 answer' }).click();
    await page.getByRole('cell', { name: 'Bram "the desk"', exact: true }).first().waitFor();
    await page.getByText('4 answers came back.').waitFor();

    await page.getByRole('button', { name: 'Reveal' }).click();
    await page.getByText(/14 days early/).waitFor();
    await page.getByRole('button', { name: 'Reveal now' }).click();
    await page.getByRole('heading', { level: 2, name: 'What may be concluded' }).waitFor();
    await page.getByText('The key: what was what').click();
    const opening = /opened with ([0-9A-Z-]+)/.exec((await page.getByText(/the key is opened with/).textContent()) ?? '')?.[1] ?? ''; // prettier-ignore
    const first = (await page.locator('.key li').first().textContent()) ?? '';
    expect(await seriousFindings(page)).toEqual([]);

    // The page that went out opens with the code, and says the same.
    await listener.getByLabel('Opening code').fill('0000');
    await listener.getByRole('button', { name: 'Open the key' }).click();
    await listener.getByText('An opening code has 26').waitFor();
    await listener.getByLabel('Opening code').fill(opening.toLowerCase());
    await listener.getByRole('button', { name: 'Open the key' }).click();
    await listener.getByText('The key has the SHA-256 that was made known.').waitFor();
    const told = (await listener.locator('[data-key] li').first().textContent()) ?? '';
    const unit = /Oarlock \w+ · A/.exec(first)?.[0] ?? 'no unit';
    expect(told).toMatch(/^A · Alder was/);
    expect(told).toContain(unit);
    expect(broken).toEqual([]);
    expect(errors).toEqual([]);
    await device.close();
  });
});
