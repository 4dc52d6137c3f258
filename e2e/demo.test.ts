import { describe, expect, it } from 'vitest';
import { stage } from './support';

describe('the demo', () => {
  const { open, address } = stage(() => undefined, ['--demo']);

  it('arrives visibly, and its top unit opens from the ranking', async () => {
    const { page, errors } = await open('/ranking');
    await page.getByText(/Recording the demo catalogue/).waitFor();
    await page.getByText('Stratum 1', { exact: true }).first().waitFor({ timeout: 90_000 });
    await expect
      .poll(async () => ((await (await fetch(`${address()}/api/jobs`)).json()) as unknown[]).length, {
        timeout: 110_000,
      })
      .toBe(0);
    await page.getByText('Oarlock Bosun · A').first().waitFor();
    await page.getByText(/Place \d+ of 27/).waitFor();
    const first = page.locator('.row a').first();
    const name = await first.innerText();
    await first.click();
    await page.getByRole('heading', { level: 1, name }).waitFor();
    await page.locator('.apexcharts-svg').waitFor();
    expect(errors).toEqual([]);
  });

  it('re-ranks at once when weights change, keeps them, and goes back to the rubric', async () => {
    const { page } = await open('/ranking');
    const top = (): Promise<string> => page.locator('.row a').first().innerText();
    await page.getByText('Stratum 1', { exact: true }).first().waitFor();
    const before = await top();
    // Rejection alone: a tight cardioid wins, whatever it costs or sounds like.
    for (const name of ['Noise', 'Sound', 'Features', 'Build', 'Value']) {
      const handle = page.getByRole('slider', { name });
      await handle.focus();
      await page.keyboard.press('Home');
    }
    await expect.poll(top).not.toBe(before);
    const rejected = await top();
    await page.reload();
    await page.getByText('Stratum 1', { exact: true }).first().waitFor();
    expect(await top()).toBe(rejected);
    await page.getByRole('button', { name: 'Back to the rubric' }).click();
    await expect.poll(top).toBe(before);
  });

  it('shows what a place is made of, and that missing is not zero', async () => {
    const { page } = await open('/ranking');
    await page.locator('.row.tested').click();
    const box = page.getByRole('region', { name: 'What the place is made of' });
    await box.getByText('missing').first().waitFor();
    expect(await box.innerText()).toMatch(/assumed/);
  });

  it('finds units in a long list by typing, sorting and kind', async () => {
    const { page, errors } = await open('/gear');
    await page.getByText('27 of 27').waitFor();
    await page.getByRole('columnheader', { name: /Rear rejection/ }).click();
    await page.getByLabel('Search units').fill('ribbon');
    await page.getByText('2 of 27').waitFor();
    await page.getByLabel('Search units').fill('no such thing');
    await page.getByText('No unit is called that.').waitFor();
    expect(errors).toEqual([]);
  });

  it('works by keyboard alone: palette, list, unit, core log, theme, keys', async () => {
    const { page } = await open('/bench');
    await page.getByRole('heading', { name: 'On the desk' }).waitFor();
    await page.keyboard.press('Control+k');
    await page.getByRole('combobox', { name: 'Unit, screen or action' }).waitFor();
    await page.keyboard.type('rank');
    await page.keyboard.press('Enter');
    await page.getByText('Where does it settle?').waitFor();
    await page.locator('.row[tabindex="0"]').first().focus();
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('Space');
    await page.getByRole('region', { name: 'What the place is made of' }).waitFor();
    const second = await page.locator('.row.selected a').innerText();
    await page.keyboard.press('Enter');
    await page.getByRole('heading', { level: 1, name: second }).waitFor();

    await page.locator('a.layer[tabindex="0"]').focus();
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('Enter');
    await page.getByRole('heading', { level: 1, name: 'Quillstone Italic S · A' }).waitFor();
    await page.keyboard.press('?');
    await page.getByRole('dialog', { name: 'Keys' }).waitFor();
    await page.keyboard.press('Escape');
    await page.keyboard.press('Control+k');
    await page.getByRole('combobox', { name: 'Unit, screen or action' }).waitFor();
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
});
