import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Locator, Page } from 'playwright-core';
import { describe, expect, it } from 'vitest';
import { seriousFindings } from './axe';
import { stage } from './support';

// A run of tables alone, in an empty archive: typed, pasted and read from a file, imported, and put right afterwards.

/** What a spreadsheet puts on the clipboard, pasted into a cell. */
async function paste(into: Locator, text: string): Promise<void> {
  await into.evaluate((element, copied) => {
    const clipboardData = new DataTransfer();
    clipboardData.setData('text/plain', copied);
    element.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
  }, text);
}

/** An impedance that rises at both ends, by frequency in sixths of an octave, of one side. */
const CURVE = Array.from({ length: 62 }, (_, i) => {
  const hz = 18 * 2 ** (i / 6);
  return `${hz.toFixed(2)}\t${(32 + hz / 1000).toFixed(2)}\t${(i / 10).toFixed(1)}`;
}).join('\n');

const cell = (page: Page, name: string): Locator => page.getByRole('textbox', { name, exact: true });

describe('tables', () => {
  const { open } = stage();

  it('make a run without recordings, take a spreadsheet and a curve, and are put right on the page of the unit', async () => {
    const { page, errors } = await open('/new-run');
    await page.getByRole('button', { name: 'Go on without recordings' }).click();
    await page.getByLabel('Kind', { exact: true }).click();
    await page.getByRole('option', { name: 'Headphones' }).click();
    await page.getByText('Still needed: maker, model, label, at least one file with its step, or a table.').waitFor();
    await page.getByText('Impedance', { exact: true }).click();
    // A block of numbers goes down from its cell, and not beyond the table.
    await paste(cell(page, '20 Hz, left'), '40,1\t41\r\n33\t34\r\n');
    await page.getByText('4 cells filled from what was pasted.').waitFor();
    await expect.poll(() => cell(page, '50 Hz, right').inputValue()).toBe('34');
    await paste(cell(page, '20 kHz, right'), '1\t2\n');
    await page.getByText('1 × 2 numbers do not fit where 1 × 1 cells are left').waitFor();
    expect(await cell(page, '20 kHz, right').inputValue()).toBe('');
    // A curve of one side, frequency and more beside it, for the column that is said.
    const file = join(mkdtempSync(join(tmpdir(), 'sediment-curve-')), 'left.txt');
    writeFileSync(file, CURVE);
    await page.getByRole('combobox', { name: 'What the file is for' }).click();
    await page.getByRole('option', { name: 'its first numbers into “left”' }).click();
    await page.setInputFiles('input[aria-label="File of numbers"]', file);
    await page.getByText('10 cells filled from left.txt; 2 held another number before.').waitFor();
    await expect.poll(() => cell(page, '1 kHz, left').inputValue()).toBe('33');
    expect(await cell(page, '50 Hz, right').inputValue()).toBe('34');
    // Typed with its unit; what is no number is refused where it stands, and nothing is imported.
    await cell(page, '1 kHz, right').fill('33 Ω');
    await cell(page, '2 kHz, right').fill('much');
    await page.getByLabel('Maker').fill('Oarlock');
    await page.getByLabel('Model').fill('Hush');
    await page.getByLabel('Label (serial, A, B)').fill('A');
    await page.getByText('Impedance', { exact: true }).click();
    await page.getByRole('button', { name: 'Import and measure' }).click();
    await page.getByText('“much” is no number').waitFor();
    await expect.poll(() => cell(page, '2 kHz, right').evaluate((e) => e === document.activeElement)).toBe(true);
    await cell(page, '2 kHz, right').fill('');
    // A reload loses nothing.
    await cell(page, '2 kHz, right').press('Tab');
    await page.reload();
    await expect.poll(() => cell(page, '1 kHz, right').inputValue()).toBe('33');
    await page.getByRole('button', { name: 'Import and measure' }).click();
    await page.getByRole('heading', { level: 1, name: 'Measured' }).waitFor();
    await page.getByRole('button', { name: 'Open the unit' }).click();

    const impedance = page.locator('#measured').getByRole('row').filter({ hasText: 'Impedance' }).first();
    await impedance.getByText('33').first().waitFor();
    await page.getByRole('button', { name: /Correct the table Impedance/ }).click();
    await cell(page, '1 kHz, right').fill('35');
    await cell(page, '1 kHz, right').press('Tab');
    await page.getByRole('button', { name: 'Keep the table' }).click();
    await impedance.getByText('34').first().waitFor();
    // What was not filled in then is filled in now.
    await page.getByRole('button', { name: /Fill in the table Level at the ear/ }).click();
    await cell(page, '1 kHz, left').fill('110');
    await cell(page, '1 kHz, left').press('Tab');
    await page.getByRole('button', { name: 'Keep the table' }).click();
    await page.getByRole('button', { name: /Correct the table Level at the ear/ }).waitFor();
    // 110 dB at 1 V into 34 Ω: 1 mW is 0.184 V, 14.7 dB less.
    await page.locator('#measured').getByText('95.3').first().waitFor();
    expect(await seriousFindings(page)).toEqual([]);
    expect(errors).toEqual([]);
  });
});
