import { encode } from 'jpeg-js';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { filesIn, stage } from './support';

const picture = new Uint8Array(encode({ data: Buffer.alloc(32 * 24 * 4, 90), width: 32, height: 24 }, 90).data);

describe('what was entered wrongly, and what must go', () => {
  const { open, address, folder } = stage();
  const post = async (path: string, body: unknown): Promise<{ id: string }> => {
    const response = await fetch(address() + path, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
    expect(response.status, path).toBe(200);
    return (await response.json()) as { id: string };
  };
  const unit = (label: string, category = 'microphone') =>
    post('/api/specimens', { maker: 'Oarlock', model: 'Purser', label, category });
  const priced = (id: string, amount: number) =>
    post(`/api/specimens/${id}/prices`, { amount, currency: 'EUR', kind: 'street', date: '2026-05-01' });

  it('two units that are one are merged, go by both addresses, and are taken apart again', async () => {
    const [{ id: stays }, { id: goes }] = [await unit('A'), await unit('a, again')];
    await priced(stays, 100);
    await priced(goes, 110);
    const { page, errors } = await open(`/gear/${goes}`);
    await page.getByRole('button', { name: 'Merge', exact: true }).click();
    const form = page.getByRole('group', { name: 'Merge this unit into another one' });
    expect(await form.getByRole('button', { name: 'Merge' }).isDisabled()).toBe(true);
    await form.getByRole('combobox').click();
    await page.getByRole('option', { name: 'Oarlock Purser · A' }).click();
    await form.getByRole('button', { name: 'Merge' }).click();
    await page.waitForURL(`**/gear/${stays}`);
    await expect.poll(() => page.locator('#prices tbody tr').count()).toBe(2);
    // The other address is that of the unit that it is now.
    await page.goto(`${address()}/gear/${goes}`);
    await page.waitForURL(`**/gear/${stays}`);
    await page.getByRole('button', { name: /^Undo: Oarlock Purser · a, again merged/ }).click();
    await expect.poll(() => page.locator('#prices tbody tr').count()).toBe(1);
    await page.goto(`${address()}/gear/${goes}`);
    await page.getByRole('heading', { level: 1, name: /a, again/ }).waitFor();
    expect(errors).toEqual([]);
  });

  it('a unit has configurations, which stand below it; what was entered as two units is one, and two after all', async () => {
    const [{ id }, { id: other }] = [await unit('K'), await unit('K by USB')];
    await priced(id, 120);
    const { page, errors } = await open(`/gear/${id}`);
    const part = page.locator('#configurations');
    await part.getByText('it is measured as it was entered').waitFor();
    await part.getByRole('button', { name: 'Note another configuration' }).click();
    expect(await part.getByRole('button', { name: 'Note it' }).isDisabled()).toBe(true);
    await part.getByRole('textbox', { name: 'In words' }).fill('figure of eight');
    await part.getByRole('button', { name: 'Note it' }).click();
    await part.getByRole('link', { name: 'figure of eight' }).waitFor();
    // Once more, and what is there already is said.
    await part.getByRole('button', { name: 'Note another configuration' }).click();
    await part.getByRole('textbox', { name: 'In words' }).fill('figure of eight');
    await part.getByRole('button', { name: 'Note it' }).click();
    await part
      .getByText(/there is a unit Oarlock Purser · K, figure of eight already/)
      .first()
      .waitFor();
    await part.getByRole('button', { name: 'Cancel' }).click();
    await part.getByRole('combobox', { name: 'In rankings stands' }).click();
    await page.getByRole('option', { name: 'figure of eight alone' }).click();
    await part.getByText(/“figure of eight” has not been tested yet/).waitFor();
    // The other unit becomes a configuration, and has the price of the unit.
    await page.goto(`${address()}/gear/${other}`);
    await part.getByRole('button', { name: 'It is a configuration of another unit' }).click();
    await part.getByRole('combobox', { name: 'Configuration of' }).click();
    // A configuration is none to be one of.
    expect(await page.getByRole('option', { name: 'Oarlock Purser · K, figure of eight' }).count()).toBe(0);
    await page.getByRole('option', { name: 'Oarlock Purser · K', exact: true }).click();
    await part.getByRole('textbox', { name: 'In words' }).fill('USB');
    await part.getByRole('button', { name: 'Note it' }).click();
    await part.getByText('in another configuration').waitFor();
    await page.goto(`${address()}/gear?q=purser K`);
    const below = page.locator('td.below');
    await expect
      .poll(async () => (await below.allInnerTexts()).map((t) => t.trim()))
      .toEqual(['figure of eight', 'USB']);
    await expect.poll(() => page.locator('tr.unit').filter({ has: below }).getByText('120 EUR').count()).toBe(2);
    await below.getByRole('link', { name: 'Oarlock Purser · K by USB' }).click();
    await page.getByRole('button', { name: /^Undo: Oarlock Purser · K by USB is/ }).click();
    await part.getByText('it is measured as it was entered').waitFor();
    expect(errors.filter((e) => !e.includes('400'))).toEqual([]);
  });

  it('a photograph comes in with its caption; with its unit it goes for good, once the name is typed', async () => {
    const { id } = await unit('B');
    const { page, errors } = await open(`/gear/${id}`);
    await page.getByLabel('Caption').fill('In its case');
    await page.setInputFiles('input[aria-label="Choose a photograph"]', filesIn(join(folder(), 'pictures'), { 'p.jpg': picture })); // prettier-ignore
    await page.getByRole('img', { name: 'In its case' }).waitFor();
    await page.setInputFiles('input[aria-label="Choose a photograph"]', filesIn(join(folder(), 'pictures'), { 'q.jpg': 'words' })); // prettier-ignore
    await page.getByText('This is no picture that is known here').waitFor();
    await page.getByRole('button', { name: 'Delete this unit for good' }).click();
    const dialog = page.getByRole('dialog', { name: 'Delete this unit for good' });
    await dialog.getByText('one photograph').waitFor();
    await dialog.getByLabel(/^To delete it, type the name/).fill('purser');
    await dialog.getByRole('button', { name: 'Delete for good' }).click();
    await dialog.getByText('That is not the name of this unit. Nothing was deleted.').waitFor();
    await dialog.getByLabel(/^To delete it, type the name/).fill('oarlock purser b');
    await dialog.getByLabel(/^Reason/).fill('not mine');
    await dialog.getByRole('button', { name: 'Delete for good' }).click();
    await page.waitForURL('**/gear');
    await page.goto(`${address()}/archive`);
    const line = page.getByRole('listitem').filter({ hasText: 'A unit: Oarlock Purser · B' });
    await line.getByText('not mine').waitFor();
    // The refused picture is an answer of the server, which the browser notes.
    expect(errors.filter((e) => !e.includes('422'))).toEqual([]);
  });

  it('a kind of one’s own has its fields, its units and its list under a name', async () => {
    const { page, errors } = await open('/kinds');
    await page.getByRole('button', { name: 'Add a kind' }).click();
    await page.getByLabel('What it is called').fill('Mute box');
    await page.getByRole('button', { name: 'Go on' }).click();
    await page.getByRole('button', { name: 'Add a field' }).click();
    const field = page.getByRole('group', { name: 'New field' });
    await page.getByText('must not be empty').waitFor();
    await field.getByLabel('Name').fill('Mute button');
    await page.getByRole('group', { name: 'Mute button' }).getByLabel('divides the kind').check();
    await page.getByRole('group', { name: 'Columns in Gear' }).getByLabel(/^Mute button/).check(); // prettier-ignore
    await page.getByRole('button', { name: 'Save this kind' }).click();
    await page.waitForURL('**/kinds?kind=mute-box');
    await page.getByRole('rowheader', { name: 'Mute button (own)' }).waitFor();

    const { id } = await unit('C', 'mute-box');
    await post(`/api/specimens/${id}/sheet`, {
      entries: [{ field: 'muteButton', value: { type: 'yes-no', yes: true } }],
    });
    await page.goto(`${address()}/gear?kind=mute-box`);
    await page.getByRole('columnheader', { name: /Mute button/ }).waitFor();
    await page.getByRole('combobox', { name: 'Mute button' }).click();
    await page.getByRole('option', { name: /^yes/ }).click();
    await page.getByText('1 of').waitFor();
    await page.getByRole('button', { name: 'Keep this list' }).click();
    await page.getByLabel('Name of the list').fill('With a button');
    await page.getByRole('button', { name: 'Keep it' }).click();
    await page.goto(`${address()}/gear`);
    await page.getByRole('link', { name: 'With a button' }).click();
    await expect.poll(() => new URL(page.url()).searchParams.get('is')).toBe('muteButton:yes');
    await page.getByText('1 of').waitFor();
    expect(errors).toEqual([]);
  });

  it('what a unit needs is noted, and ended', async () => {
    const { id } = await unit('D');
    const { page, errors } = await open(`/gear/${id}#relations`);
    const part = page.locator('#relations');
    await part.getByRole('button', { name: 'Note what it needs, or replaces' }).click();
    await part.getByLabel('What, in words').fill('stand');
    await part.getByLabel('Its price').fill('20,50');
    // Enter saves what stands in the field, though nothing else was touched since.
    await page.keyboard.press('Enter');
    await part.getByText('20.50 EUR').waitFor();
    await part.getByRole('button', { name: 'Not any more: needs stand' }).click();
    await part.getByText('Nothing noted.').waitFor();
    expect(errors).toEqual([]);
  });
});
