import { describe, expect, it } from 'vitest';
import { takeKeptDemo } from './demo-cache';
import { stage } from './support';

// What boosters, shields and interfaces do, from their own pages to the ear and to the sums.

describe('parts and electronics', () => {
  const { open, address } = stage(takeKeptDemo, ['--demo']);
  const ask = async <T>(path: string): Promise<T> => (await (await fetch(address() + path)).json()) as T;
  const idOf = async (model: string): Promise<string> => {
    const units = await ask<{ id: string; model: string }[]>('/api/specimens');
    return units.find((u) => u.model === model)?.id ?? '';
  };

  it('a booster that filters says so, is heard against without it, and goes into a blind test', async () => {
    const { page, errors } = await open(`/gear/${await idOf('Riser 20')}`);
    const measured = page.locator('#measured');
    await measured.getByText(/^Hides a low-cut at 1\d\d ±\d+ Hz\.$/).waitFor();
    await measured.getByText(/^Adds (19\.9|20\.0|20\.1)/).waitFor();
    await measured.getByRole('link', { name: 'Voice with the booster, against without' }).click();
    await page.getByRole('heading', { level: 2, name: 'With and without: booster' }).waitFor();
    await page.getByRole('link', { name: 'Blind test: is it heard?' }).click();
    await page.getByRole('heading', { level: 1, name: 'New listening test' }).waitFor();
    await page.getByText('Two takes of one unit, with and without something').waitFor();
    const name = page.getByLabel('Name, for you');
    await expect.poll(() => name.inputValue()).toBe('Thole Riser 20 · A: with and without booster');
    await page.getByRole('button', { name: 'Prepare the test' }).click();
    await page.getByRole('heading', { level: 1, name: /Riser 20/ }).waitFor();
    const tests = await ask<{ id: string; name: string }[]>('/api/listening');
    const { items } = await ask<{ items: { name: string }[] }>(`/api/listening/${tests.find((t) => t.name.includes('Riser'))?.id}`); // prettier-ignore
    expect(items.map((i) => i.name)).toEqual([
      'Thole Riser 20 · A, Voice without the booster',
      'Thole Riser 20 · A, Voice with the booster',
    ]);
    expect(errors).toEqual([]);
  });

  it('what a shield takes away is heard at equal gain, and not matched away', async () => {
    const { page } = await open(`/gear/${await idOf('Cabin')}`);
    await page
      .locator('#measured')
      .getByRole('link', { name: /^Noise from the room, with it/ })
      .click();
    await page.getByText('A noise from outside is held against itself at equal gain').waitFor();
    await page.getByLabel('Levels').filter({ hasText: 'gain' }).waitFor();
    expect(new URL(page.url()).searchParams.get('match')).toBe('gain');
    await page.goto(page.url().replace('&match=gain', ''));
    await page.getByRole('button', { name: 'Hear it at equal gain' }).click();
    await expect.poll(() => new URL(page.url()).searchParams.get('match')).toBe('gain');
  });

  it('an interface goes from its page into the sum that it is asked for in; the link holds the numbers', async () => {
    const { page, errors } = await open(`/gear/${await idOf('Fourfold')}`);
    await page.getByRole('link', { name: 'Sums with it' }).click();
    await page.getByText('Still needed: Sensitivity.').waitFor();
    const field = page.getByLabel('Sensitivity');
    await field.fill('1,6 mV/Pa');
    await field.press('Enter');
    await page.getByText(/^Noise of all, as sound$/).waitFor();
    await page.getByLabel('Most gain').fill('54');
    await page.getByLabel('Most gain').press('Tab');
    await page.getByText(/^It does not: \d+\.\d dB of gain are missing\.$/).waitFor();
    await page.getByLabel('Gain of a booster', { exact: true }).fill('25');
    await page.getByLabel('Gain of a booster', { exact: true }).press('Tab');
    await page.getByText(/^The booster is of use/).waitFor();
    await page.reload();
    await page.getByText(/^The booster is of use/).waitFor();
    expect(await page.getByLabel('Sensitivity').inputValue()).toBe('1.6 mV/Pa');
    // An answer is kept with the unit that it is about, with the numbers of today.
    await page.getByRole('button', { name: /Keep it with .*Fourfold/ }).click();
    await page.getByRole('link', { name: 'It stands on the page of the unit.' }).click();
    await page.locator('#events').getByText('sum kept: Does this interface drive that microphone?').waitFor();
    await page.locator('#events').getByRole('link', { name: 'The sum with its numbers' }).click();
    await page.getByText(/^The booster is of use/).waitFor();
    // What is not understood is refused beside the field, and the answer stays that of the numbers before.
    await page.getByLabel('Most gain').fill('a lot');
    await page.getByLabel('Most gain').press('Tab');
    await page.getByText(/“a lot” is no number/i).waitFor();
    expect(errors).toEqual([]);
  });

  it('a gain is noted as the device shows it, and corrected to decibels', async () => {
    const { page, errors } = await open(`/gear/${await idOf('Lift')}#takes`);
    await page.getByRole('button', { name: /^Correct Silence with the booster/ }).click();
    const gain = page.getByRole('dialog').getByLabel('Gain', { exact: true });
    await gain.fill('150 %');
    await gain.press('Tab');
    await page.getByText('A dial goes from 0 % to 100 %').waitFor();
    await gain.fill('50 %');
    await page.getByRole('button', { name: 'Correct it' }).click();
    await page.getByRole('dialog').waitFor({ state: 'hidden' });
    // Its silence cannot be held against its voice any more: the figure says why, and is not zero.
    await page
      .locator('#measured')
      .getByText(/dial at 50 %: how far these lie apart is not known/)
      .first()
      .waitFor();
    await page.getByRole('button', { name: /^Correct Silence with the booster/ }).click();
    expect(await gain.inputValue()).toBe('50 %');
    await gain.fill('29');
    await page.getByRole('button', { name: 'Correct it' }).click();
    await page.getByRole('dialog').waitFor({ state: 'hidden' });
    await expect
      .poll(() =>
        page
          .locator('#measured')
          .getByText(/how far these lie apart/)
          .count(),
      )
      .toBe(0);
    expect(errors).toEqual([]);
  });
});
