import { describe, expect, it } from 'vitest';
import { takeKeptDemo } from './demo-cache';
import { stage } from './support';

describe('the demo', () => {
  const { open, address } = stage(takeKeptDemo, ['--demo']);

  it('opens its top unit from the ranking', async () => {
    const { page, errors } = await open('/ranking');
    await page.getByText('Stratum 1', { exact: true }).first().waitFor();
    await page.getByText('Oarlock Bosun · A').first().waitFor();
    await page.getByText(/Place \d+ of 27/).waitFor();
    const first = page.locator('.row a').first();
    const name = await first.innerText();
    await first.click();
    await page.getByRole('heading', { level: 1, name }).waitFor();
    await page.locator('.apexcharts-svg').first().waitFor();
    expect(errors).toEqual([]);
  });

  it('re-ranks at once when weights change, keeps them, and goes back to the rubric', async () => {
    const { page } = await open('/ranking');
    const top = async (): Promise<string> => (await page.locator('.row a').allInnerTexts()).slice(0, 5).join('; ');
    const settled = () => page.locator('.list[aria-busy=false]').waitFor();
    await page.getByText('Stratum 1', { exact: true }).first().waitFor();
    await settled();
    const before = await top();
    // Rejection alone: the order changes, whatever a unit costs or sounds like.
    for (const name of ['Noise', 'Sound', 'Features', 'Build', 'Value']) {
      const handle = page.getByRole('slider', { name });
      await handle.focus();
      await page.keyboard.press('Home');
    }
    await settled();
    const rejected = await top();
    expect(rejected).not.toBe(before);
    await page.reload();
    await page.getByText('Stratum 1', { exact: true }).first().waitFor();
    await expect.poll(() => top()).toBe(rejected);
    await page.getByRole('button', { name: 'Back to the rubric' }).click();
    await expect.poll(top).toBe(before);
  });

  it('shows what a place is made of, and that missing is not zero', async () => {
    const { page } = await open('/ranking');
    await page.locator('.row.tested').click();
    const box = page.getByRole('region', { name: 'What the place is made of' });
    await box.getByText('missing').first().waitFor();
    await expect.poll(() => box.innerText()).toMatch(/assumed/);
  });

  it('puts a take under the lens: segments by hand, figures that follow, and back', async () => {
    const { page, errors } = await open('/gear');
    await page.getByLabel('Search units').fill('bosun');
    await page.getByText('Oarlock Bosun').first().click();
    await page.getByRole('link', { name: 'Silence', exact: true }).click();
    await page.getByRole('heading', { level: 1, name: 'Silence' }).waitFor();
    await page.getByText(/Hum of 50 Hz mains/).waitFor();
    await page.getByText('hum 50 Hz').first().waitFor();
    await page.getByRole('img', { name: /^Spectrogram/ }).waitFor();
    const level = page.locator('tr', { hasText: 'Level of the silent part, A-weighted' }).locator('td').nth(3);
    const before = await level.innerText();
    const end = page.getByRole('textbox', { name: 'Silence to, seconds' });
    await end.fill('2.5');
    await end.blur();
    await page.getByText('Set by hand; the automatic ones are kept.').waitFor();
    await expect.poll(() => level.innerText(), { timeout: 20_000 }).not.toBe(before);
    await page.reload();
    await page.getByText('Set by hand; the automatic ones are kept.').waitFor();
    await expect.poll(() => page.getByRole('textbox', { name: 'Silence to, seconds' }).inputValue()).toBe('2.5 s');
    await page.getByRole('button', { name: 'Back to automatic' }).click();
    await page.getByText('Found automatically.').waitFor();
    await expect.poll(() => level.innerText()).toBe(before);
    const download = page.waitForEvent('download');
    await page.getByRole('button', { name: /^Data of Noise/ }).click();
    expect((await download).suggestedFilename()).toMatch(/^noise-silence-of-oarlock-bosun.*\.csv$/);
    const picture = page.waitForEvent('download');
    await page.getByRole('button', { name: /^PNG of Noise/ }).click();
    expect((await picture).suggestedFilename()).toMatch(/\.png$/);
    expect(errors).toEqual([]);
  });

  it('shows of a unit what was measured, claimed and where it stands', async () => {
    const { page, errors } = await open('/gear');
    await page.getByLabel('Search units').fill('bosun');
    await page.getByText('Oarlock Bosun').first().click();
    const measured = page.locator('#measured');
    await measured.getByText('How noisy it is').waitFor();
    await measured.getByText('claimed unweighted or without a weighting, measured A-weighted').waitFor();
    await measured.getByText('claimed without a tolerance, measured at −3 dB').first().waitFor();
    await measured
      .getByRole('img', { name: /of 27, counted from the best/ })
      .first()
      .waitFor();
    await measured.getByText('nearest first-order pattern: wide cardioid').waitFor();
    await measured.getByRole('button', { name: '250 Hz' }).click();
    const download = page.waitForEvent('download');
    await measured.getByRole('link', { name: 'CSV', exact: true }).click();
    expect((await download).suggestedFilename()).toBe('oarlock-bosun-a.csv');
    expect(errors).toEqual([]);
  });

  it('has listened for three years: measured excellence that is not preferred, and what may be concluded', async () => {
    const { page, errors } = await open('/scale');
    await page.getByRole('link', { name: 'Oarlock Commodore · A', exact: true }).waitFor();
    const rows = await page.locator('tbody tr:has(a[aria-label^="Place"])').allInnerTexts();
    expect(rows.length).toBeGreaterThan(20);
    // By ear a third of all are clearly before it …
    expect(rows.findIndex((r) => r.includes('Oarlock Commodore · A'))).toBeGreaterThan(rows.length / 3);
    // … by what is measured among the first three.
    const ranked = (await (await fetch(`${address()}/api/ranking/microphone`)).json()) as {
      specimen: string;
      points: Record<string, number | null>;
    }[];
    const measured = ranked.map((r) => ({
      name: r.specimen,
      points: (r.points['noise'] ?? 0) + (r.points['rejection'] ?? 0),
    }));
    measured.sort((x, y) => y.points - x.points);
    expect(measured.findIndex((m) => m.name === 'Oarlock Commodore · A')).toBeLessThan(3);
    await page.goto(`${address()}/listening`);
    await page.getByRole('link', { name: 'Lantern A against B' }).click();
    await page
      .getByText(/of 16 right:/)
      .first()
      .waitFor();
    await page
      .getByText(/of 32 right:/)
      .first()
      .waitFor();
    expect(errors).toEqual([]);
  });

  it('ranks by class, price and day from its address, shows all figures and prices, and says why one stands above', async () => {
    const { page, errors } = await open('/ranking?is=transducer:ribbon');
    await page.getByText('Filter: among 2 of the kind').waitFor();
    await expect.poll(() => page.locator('.list .row .name a').count()).toBe(2);
    await page.getByRole('button', { name: 'All of the kind' }).click();
    await expect.poll(() => page.locator('.list .row .name a').count()).toBeGreaterThan(10);
    await page.locator('.list .row[tabindex]').nth(2).click();
    const why = page.locator('sd-why-panel');
    await why.getByText('the first is better with a probability of').waitFor();
    await why.getByText(/^The order turns where|^No weight alone/).waitFor();

    await page.getByRole('button', { name: 'All figures' }).click();
    await page.getByRole('columnheader', { name: /Rear rejection/ }).click();
    const download = page.waitForEvent('download');
    await page.getByRole('button', { name: 'CSV' }).click();
    expect((await download).suggestedFilename()).toBe('board-microphone.csv');

    await page.getByRole('button', { name: 'Records' }).click();
    await page.getByRole('button', { name: /records of Rear rejection/ }).click();
    await page.locator('sd-records-view svg').waitFor();

    await page.getByRole('button', { name: 'Against price' }).click();
    await page.locator('sd-frontier-view').getByRole('link', { name: 'Marlfen Sedge · A' }).last().waitFor();

    // In 2021 there were fewer, and the Sedge was not among them.
    await page.goto(`${address()}/ranking?on=2021-12-31`);
    await page.getByText(/As it stood on 2021-12-31/).waitFor();
    await page.locator('.list[aria-busy=false]').waitFor();
    expect(await page.locator('.list .row .name a').allInnerTexts()).not.toContain('Marlfen Sedge · A');
    await page.getByRole('button', { name: 'What moved' }).click();
    await page.getByLabel('Since', { exact: true }).fill('2020-12-31');
    await page.getByLabel('Since', { exact: true }).blur();
    await page.locator('sd-moved-view').getByText('entered').first().waitFor();
    await page.getByRole('button', { name: 'Back to today' }).click();
    await expect.poll(() => page.url()).not.toContain('on=');
    expect(errors).toEqual([]);
  });

  it('a data sheet is pasted, refused where it is wrong, saved, and found again by class', async () => {
    const { page, errors } = await open('/gear');
    await page.getByLabel('Search units').fill('commodore');
    await page.getByText('Oarlock Commodore').first().click();
    const sheet = page.locator('sd-unit-sheet');
    await sheet.getByRole('button', { name: 'Change the data sheet' }).click();
    await sheet.getByRole('button', { name: 'Paste a data sheet' }).click();
    await page
      .getByLabel('Text of the data sheet')
      .fill('Weight: 0,42 kg\nAddress: side\nMaximum SPL: very loud\nColour: grey');
    await page.getByText('“very loud” begins with no number').waitFor();
    await page.getByRole('button', { name: 'Take 2 into the sheet' }).click();
    await sheet.getByLabel('Pads').fill('−10 dB, −20 dB');
    // What is not understood is refused beside its field, and nothing is saved.
    await sheet.getByLabel('Weight').fill('heavy');
    await sheet.getByRole('button', { name: /^Save/ }).click();
    await sheet.getByText('“heavy” begins with no number').waitFor();
    await sheet.getByLabel('Weight').fill('15 oz');
    await sheet.getByLabel('Weight').blur();
    await sheet.getByText('425.2 g').waitFor();
    await sheet.getByRole('button', { name: 'Save 3 fields' }).click();
    await sheet.getByText('−10 dB, −20 dB').waitFor();
    await page.locator('sd-unit-summary').getByText('side', { exact: true }).waitFor();
    await page.goto(`${address()}/ranking?is=address:side`);
    await page.getByText('Filter: among 1 of the kind').waitFor();
    expect(errors).toEqual([]);
  });

  it('rules are changed on a page: who moves before they are saved, a version after', async () => {
    const { page, errors } = await open('/rules?kind=accessory');
    await page.getByRole('button', { name: 'Change these rules' }).click();
    await page.getByText('Nothing has been changed yet.').waitFor();
    await page.getByLabel('Weight of Handling').fill('40');
    await page.getByLabel('Weight of Handling').blur();
    await page.getByText(/^\d of 6 units move/).waitFor();
    await page.getByRole('button', { name: 'Another criterion' }).click();
    await page.getByLabel('Name', { exact: true }).fill('Weight');
    await page.getByRole('combobox', { name: 'Made of' }).click();
    await page.getByRole('option', { name: 'a number of the data sheet' }).click();
    await page.getByRole('button', { name: 'Remove What it takes away' }).click();
    await page.getByRole('button', { name: 'Save as version 3' }).click();
    await page.getByText('version 3', { exact: false }).first().waitFor();
    await page.getByRole('link', { name: 'The ranking by these rules' }).click();
    await page.getByText('Points of 25').waitFor();
    expect(errors).toEqual([]);
  });

  it('finds units in a long list by typing, sorting and kind', async () => {
    const { page, errors } = await open('/gear');
    await page.getByText('62 of 62').waitFor();
    await page.getByRole('combobox', { name: 'Kind of gear' }).click();
    await page.getByRole('option', { name: 'Microphone', exact: true }).click();
    await page.getByText('29 of 62').waitFor();
    await page.getByRole('columnheader', { name: /Rear rejection/ }).click();
    await page.getByLabel('Search units').fill('ribbon');
    await page.getByText('2 of 62').waitFor();
    await page.getByLabel('Search units').fill('no such thing');
    await page.getByText('No unit is called that.').waitFor();
    expect(errors).toEqual([]);
  });

  it('works by keyboard alone: palette, list, unit, core log, theme, keys', async () => {
    const { page } = await open('/bench');
    await page.getByRole('heading', { name: 'On the desk' }).waitFor();
    const box = page.getByRole('combobox', { name: 'Unit, screen or action' });
    const askedFor = async (): Promise<void> => {
      await page.keyboard.press('Control+k');
      await expect.poll(() => page.evaluate(() => document.activeElement?.getAttribute('role'))).toBe('combobox');
    };
    await askedFor();
    await page.keyboard.type('rank');
    await page.keyboard.press('Enter');
    await page.getByText('Where does it settle?').waitFor();
    await page.locator('.row[tabindex="0"]').first().focus();
    await page.keyboard.press('ArrowDown');
    // Who looks something up in between goes on in the same row.
    await askedFor();
    await page.keyboard.press('Escape');
    await box.waitFor({ state: 'detached' });
    await page.keyboard.press('Space');
    await page.getByRole('region', { name: 'What the place is made of' }).waitFor();
    const second = await page.locator('.row.selected a').innerText();
    await page.keyboard.press('Enter');
    await page.getByRole('heading', { level: 1, name: second }).waitFor();

    await page.locator('a.layer[tabindex="0"]').focus();
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('Enter');
    await page.getByRole('heading', { level: 1, name: '2025-10-25' }).waitFor();
    await page.getByRole('link', { name: 'Quillstone Italic S · A' }).first().waitFor();
    await page.keyboard.press('?');
    await page.getByRole('dialog', { name: 'Keys' }).waitFor();
    await page.keyboard.press('Escape');
    await askedFor();
    await page.keyboard.type('switch theme');
    await page.keyboard.press('Enter');
    await expect.poll(() => page.evaluate(() => document.documentElement.dataset['theme'])).toBe('basalt');
  });

  it('goes on where it was after a reload in the middle of a sheet', async () => {
    const { page, errors } = await open('/gear/1#points');
    await page.getByRole('heading', { name: 'Points' }).waitFor();
    await page.reload();
    await page.getByRole('heading', { name: 'Points' }).waitFor();
    await expect.poll(async () => (await page.locator('#points').boundingBox())?.y ?? 1e4).toBeLessThan(400);
    expect(errors).toEqual([]);
  });

  it('meets an address that is none, and a unit that is none, with a way on', async () => {
    const { page } = await open('/nowhere');
    await page.getByText('There is no such screen').waitFor();
    await page.goto(`${address()}/gear/999`);
    await page.getByText('There is no unit with the number 999.').waitFor();
  });

  it('folds its menu away on a phone, and opens a unit from its row', async () => {
    const { page } = await open('/bench');
    await page.setViewportSize({ width: 390, height: 844 });
    await page.getByRole('button', { name: 'Menu' }).click();
    await page.getByRole('link', { name: 'Ranking', exact: true }).click();
    await page.getByText('Stratum 1', { exact: true }).first().waitFor();
    // Chosen, the menu is out of the way again, and a unit opens from its row.
    expect(await page.getByRole('link', { name: 'Gear', exact: true }).isVisible()).toBe(false);
    const first = page.locator('.row a').first();
    const name = await first.innerText();
    await first.click();
    await page.getByRole('heading', { level: 1, name }).waitFor();
    // A cell of a table says what it is.
    const cell = page.locator('#prices tbody td').nth(1);
    await expect.poll(() => cell.evaluate((td) => getComputedStyle(td, '::before').content)).toBe('"Kind"');
  });
});
