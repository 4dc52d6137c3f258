import type { Page } from 'playwright-core';
import { describe, expect, it } from 'vitest';
import { seriousFindings } from './axe';
import { catalogueOf, measuredTakes } from './heard-units';
import { stage } from './support';

/** Letters of the turn that is heard, those of better units first: the first that was entered is the best. */
async function byWorth(address: string, id: string): Promise<string[]> {
  const page = (await (await fetch(`${address}/api/listening/${id}/panel`)).json()) as {
    items: { id: string }[];
    turns: { items: string[]; status: string }[];
  };
  const items = page.turns.find((t) => t.status === 'open')?.items ?? [];
  const worth = (item: string): number => page.items.findIndex((i) => i.id === item);
  return items
    .map((item, i) => ({ item, letter: 'ABCDEF'[i] }))
    .sort((a, b) => worth(a.item) - worth(b.item))
    .map(({ letter }) => letter);
}

async function give(page: Page, letters: readonly string[], button: string | RegExp): Promise<void> {
  for (const letter of letters)
    await page.getByRole('group', { name: 'Best first' }).getByRole('button', { name: letter, exact: true }).click();
  await page.getByRole('button', { name: button }).click();
}

describe('a panel, held live', () => {
  const { open, address, context } = stage();

  it('with an empty archive it says what is missing first', async () => {
    const { page, errors } = await open('/listening/new');
    await page.getByRole('combobox', { name: 'Design' }).click();
    await page.getByRole('option', { name: 'Panel, live in one room' }).click();
    await page.getByText('There is no unit yet.').waitFor();
    expect(await page.getByRole('button', { name: 'Open the panel' }).isDisabled()).toBe(true);
    await page.goto(`${address()}/listening/999/panel`);
    await page.getByText('There is no listening test with the number 999.').waitFor();
    expect(errors.filter((e) => !e.includes('404'))).toEqual([]);
  });

  it('units are sung through: drawn, heard, ordered by a phone and by hand, one more put in, a reload, the end', async () => {
    for (const model of ['Purser', 'Bosun', 'Cooper'])
      await fetch(`${address()}/api/specimens`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ maker: 'Oarlock', model, label: 'A', category: 'microphone' }),
      });
    const { page, errors } = await open('/listening/new');
    await page.getByRole('combobox', { name: 'Design' }).click();
    await page.getByRole('option', { name: 'Panel, live in one room' }).click();
    await page.getByText('Choose units').click();
    for (const model of ['Purser', 'Bosun', 'Cooper']) await page.getByRole('option', { name: model }).click();
    await page.keyboard.press('Escape');
    await page.getByLabel('In one heat').fill('2');
    await page.getByLabel('In one heat').blur();
    await page.getByRole('button', { name: 'Open the panel' }).click();
    await page.getByRole('button', { name: 'Lead the panel' }).click();
    await page.waitForURL(/\/panel$/);
    const id = /listening\/(\d+)\/panel/.exec(page.url())?.[1] ?? '';

    // Two of three are heard first; who is here is noted when they come.
    await page.getByLabel('A listener without a phone').fill('Mirre');
    await page.getByRole('button', { name: 'Note their name' }).click();
    await page.getByRole('button', { name: 'Draw a heat: 2 of the 3 that were not heard yet' }).click();
    const { invitation } = (await (await fetch(`${address()}/api/listening/${id}/panel`)).json()) as { invitation: string }; // prettier-ignore
    const phone = await (await context({ viewport: { width: 390, height: 844 } })).newPage();
    await phone.goto(`${address()}/listen/join/${invitation}`);
    await phone.getByLabel('Your name, or any name you like').fill('Odo');
    await phone.getByRole('button', { name: 'Begin' }).click();
    await phone.getByText('the letter is shown here').waitFor();
    await page.keyboard.press('b');
    await page.getByText('B is on').waitFor();
    await phone.getByText('you hear B').waitFor();
    expect(await phone.locator('body').innerText()).not.toMatch(/Oarlock|Purser|Bosun|Cooper/);
    const screen = await (await context()).newPage();
    await screen.goto(`${address()}/listen/screen/${invitation}`);
    await screen.locator('.now', { hasText: 'B' }).waitFor();
    expect(await screen.locator('body').innerText()).not.toMatch(/Oarlock/);

    // Half an order that was pressed stays while the page asks again; what was given can be changed.
    const first = await byWorth(address(), id);
    await phone.getByRole('group', { name: 'Best first' }).getByRole('button', { name: first[1], exact: true }).click();
    await phone.waitForTimeout(3500);
    await phone.getByText(`So far ${first[1]}.`).waitFor();
    await phone.getByRole('button', { name: `1. ${first[1]}` }).click();
    await give(phone, first, 'That is my answer');
    await phone.getByText(`Given: ${first.join(', ')}.`).waitFor();
    await phone.getByRole('button', { name: 'Hear A again' }).click();
    await phone.getByRole('button', { name: 'Words for A' }).click();
    await phone.getByRole('button', { name: 'boxy' }).click();
    await phone.getByLabel('Your own words for A').fill('like a cupboard');
    await phone.getByRole('button', { name: 'Say it of A' }).click();
    await phone.getByText('boxy, “like a cupboard”').waitFor();
    expect(await seriousFindings(phone)).toEqual([]);

    await page.getByText('1 wants it again').waitFor();
    await page.getByText('boxy; “like a cupboard”').waitFor();
    await page.getByRole('button', { name: 'Close it: the orders count' }).click();
    await page.getByText(/no order from Mirre; A asked for again/).waitFor();
    await page.getByRole('button', { name: 'Not yet' }).click();
    await page.reload();
    await page.getByRole('button', { name: 'Enter the order of Mirre' }).click();
    await give(page, first, 'Keep this order');
    await page.keyboard.press('a');
    await page.getByText('A is on').waitFor();
    await page.getByText('1 wants it again').waitFor({ state: 'detached' });
    expect(await seriousFindings(page)).toEqual([]);
    await page.getByRole('button', { name: 'Close it: the orders count' }).click();
    await phone.getByText('this page goes on by itself').waitFor();

    // The third is left over: where does it go?
    await page.getByText('is left over, and there is no heat for one').waitFor();
    await page.getByRole('button', { name: 'Hear where it goes' }).click();
    await phone.getByText('Where does C go?').waitFor();
    await phone.getByRole('button', { name: 'C goes behind B' }).click();
    await phone.getByRole('button', { name: 'That is my answer' }).click();
    await phone.getByText('Given: C goes behind B.').waitFor();
    await page.getByRole('button', { name: 'Close it: the orders count' }).click();
    await page.getByRole('button', { name: 'Close all the same' }).click();
    await page.getByText('Everything has been heard, and the winners have met.').waitFor();
    await page.getByLabel('In their own words').fill('clear as water');
    expect(await page.getByRole('button', { name: 'Note it' }).isDisabled()).toBe(true);
    await page.getByRole('button', { name: 'Of A', exact: true }).click();
    await page.getByRole('button', { name: 'Note it of A' }).click();
    await page.getByText('“clear as water”').waitFor();

    await page.getByRole('link', { name: 'End and reveal' }).click();
    await page.getByRole('button', { name: 'Reveal' }).click();
    await page.getByRole('button', { name: 'Reveal now' }).click();
    await page.getByRole('heading', { name: 'Worth within this test' }).waitFor();
    await page.getByText('Mirre: what was what').waitFor();
    await phone.getByRole('heading', { name: 'What was what' }).waitFor();
    await page.getByRole('button', { name: 'How it went' }).click();
    await page.getByText('What was heard (2)').waitFor();
    expect(await page.getByRole('button', { name: /Draw|Note|Take back/ }).count()).toBe(0);

    // What was said is in the vocabulary: own words can be joined with others, and parted again.
    await page.goto(`${address()}/listening`);
    await page.getByRole('link', { name: 'Words over the years' }).click();
    await page.getByRole('link', { name: 'like a cupboard' }).click();
    await page.getByText(/^No figure can be held against/).waitFor();
    await page.getByLabel('Counts as').fill('boxy, or so');
    await page.getByRole('button', { name: 'Count it so' }).click();
    await page.getByText(/without commas between/).waitFor();
    await page.getByLabel('Counts as').fill('Boxy');
    await page.getByRole('button', { name: 'Count it so' }).click();
    await page.getByText('also like a cupboard').waitFor();
    await page.getByRole('heading', { name: '“boxy”', exact: true }).waitFor();
    await page.getByRole('button', { name: 'like a cupboard counts by itself' }).click();
    await page.getByRole('link', { name: 'like a cupboard' }).waitFor();
    // The word with commas was refused, which a browser notes.
    expect(errors.filter((e) => !e.includes('400'))).toEqual([]);
  });
});

describe('a panel that hears clips', () => {
  const { open, address } = stage(catalogueOf(3));

  it('matched clips are played in the room, and a second hearing goes under other letters', async () => {
    const { takes } = await measuredTakes(address(), 3);
    const { row } = (await (
      await fetch(`${address()}/api/listening`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ name: 'Played', design: 'panel', takes, panel: { source: 'played' }, passage: { fromS: 0.5, lengthS: 3 } }), // prettier-ignore
      })
    ).json()) as { row: { id: string } };
    const { page, errors } = await open(`/listening/${row.id}`);
    await page.getByRole('button', { name: 'Lead the panel' }).click();
    await page.getByRole('button', { name: 'Draw the order: all 3 in one heat' }).click();
    // Whoever plays clips may listen too: names are hidden until they are asked for.
    await page.getByText('hidden').first().waitFor();
    expect(await page.locator('main').innerText()).not.toMatch(/Oarlock/);
    await page.locator('.card:enabled').nth(2).waitFor();
    await page.keyboard.press('c');
    await page.getByRole('button', { name: 'The volume is down' }).click();
    await page.getByText('C is on').waitFor();
    await page.getByRole('button', { name: 'Of C', exact: true }).click();
    await page.getByLabel('In their own words').fill('steady');
    await page.getByRole('button', { name: 'Note it of C' }).click();
    await page.getByText(/s into it/).waitFor();
    await page.getByLabel('A listener without a phone').fill('Mirre');
    await page.getByRole('button', { name: 'Note their name' }).click();
    await page.getByRole('button', { name: 'Enter the order of Mirre' }).click();
    await give(page, ['A', 'B', 'C'], 'Keep this order');
    await page.getByRole('button', { name: 'Close it: the orders count' }).click();
    await page.getByText(/A, B were never on/).waitFor();
    await page.getByRole('button', { name: 'Close all the same' }).click();
    await page.getByRole('button', { name: 'Heat 1', exact: true }).click();
    await page.getByRole('heading', { name: 'Heat 1, second hearing' }).waitFor();
    await page.locator('.card:enabled').nth(2).waitFor();
    await page.getByRole('button', { name: 'Leave it out' }).click();
    await page.getByLabel('Why it does not count').fill('A door was slammed');
    await page.getByRole('form', { name: 'Leave this turn out' }).getByRole('button', { name: 'Leave it out' }).click();
    await page.getByText('What was heard (2)').click();
    await page.getByText('left out, A door was slammed').waitFor();
    expect(errors).toEqual([]);
  });
});
