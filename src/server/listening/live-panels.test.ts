import { describe, expect, it } from 'vitest';
import type { z } from 'zod';
import { newTestSchema, type NewTest } from '#contracts/listening';
import { panelCommandSchema, seatCommandSchema, type PanelCommandDraft, type PanelPage, type SeatCommandDraft } from '#contracts/live-panel'; // prettier-ignore
import { scaleRequestSchema } from '#contracts/scale';
import { serve, testApplication } from '../testing/application';
import { importUnits } from '../testing/heard-catalogue';
import type { Application } from '../wiring';

const panelOf = (change: Partial<z.input<typeof newTestSchema>> = {}): NewTest =>
  newTestSchema.parse({ name: 'Sung through', design: 'panel', takes: [], panel: { source: 'performed' }, ...change });

/** Units that were entered and never recorded. */
async function units(app: Application, count: number, category = 'microphone'): Promise<string[]> {
  const ids: string[] = [];
  for (let i = 0; i < count; i++)
    ids.push((await app.scoring.addUnit({ maker: 'Oarlock', model: `Purser ${i + 1}`, label: 'A', category })).id);
  return ids;
}

interface Held {
  readonly app: Application;
  readonly id: string;
  readonly lead: (command: PanelCommandDraft) => Promise<PanelPage>;
  readonly specimens: readonly string[];
}

async function held(count: number, change: Partial<z.input<typeof newTestSchema>> = {}): Promise<Held> {
  const app = await testApplication();
  const specimens = await units(app, count);
  const { row } = await app.tests.create(panelOf({ units: specimens, ...change }));
  const lead = (command: PanelCommandDraft): Promise<PanelPage> =>
    app.livePanels.lead(row.id, panelCommandSchema.parse(command));
  return { app, id: row.id, lead, specimens };
}

const sit = (app: Application, key: string, command: SeatCommandDraft) =>
  app.livePanels.sit(key, seatCommandSchema.parse(command));

/** Letters of the open turn, best first: the unit that was entered first is the best. */
function lettersByUnit(page: PanelPage): string[] {
  const items = page.turns.at(-1)?.items ?? [];
  const place = (item: string): number => page.items.findIndex((i) => i.id === item);
  return items
    .map((item, i) => ({ item, letter: String.fromCharCode(65 + i) }))
    .sort((a, b) => place(a.item) - place(b.item))
    .map(({ letter }) => letter);
}

describe('a panel that is held live', () => {
  it('needs no recording: heats are drawn, two listen, winners meet, one comes late, and all of it is on the scale', async () => {
    const { app, id, lead } = await held(6);
    let page = await lead({ kind: 'came', name: 'Mirre' });
    const { sitting: phone } = await app.sittings.join(page.invitation, { name: 'Odo' });
    await expect(lead({ kind: 'came', name: 'Mirre' })).rejects.toThrow('Mirre is here already.');
    for (let heat = 0; heat < 3; heat++) {
      page = await lead({ kind: 'heat' });
      await lead({ kind: 'now', letter: 'A' });
      expect((await app.livePanels.seat(phone)).turn?.now).toBe('A');
      await sit(app, phone, { kind: 'order', letters: lettersByUnit(page) });
      await lead({ kind: 'order', sitting: page.listeners[0].sitting, letters: lettersByUnit(page) });
      page = await lead({ kind: 'close' });
    }
    expect(page.turns.map((t) => [t.title, t.items.length])).toEqual([['Heat 1', 3], ['Heat 2', 3], ['Final', 2]]); // prettier-ignore
    expect(page.offers).toMatchObject({ heat: null, isDecided: true });
    const final = page.tables.at(-1);
    expect(page.items.find((i) => i.id === final?.rows[0].item)?.name).toBe('Oarlock Purser 1 · A');

    const late = (await app.scoring.addUnit({ maker: 'Marlfen', model: 'Fen', label: 'A', category: 'microphone' })).id;
    page = await lead({ kind: 'add', specimen: late });
    await expect(lead({ kind: 'add', specimen: late })).rejects.toThrow('is in this panel already');
    const [booster] = await units(app, 1, 'booster');
    await expect(lead({ kind: 'add', specimen: booster })).rejects.toThrow('no such unit of the kind');
    const item = page.items.at(-1)?.id ?? '';
    expect(page.offers).toMatchObject({ lone: item, isDecided: false });
    await lead({ kind: 'place', into: 3, item });
    await sit(app, phone, { kind: 'placed', at: 1 });
    page = await lead({ kind: 'close' });
    expect(page.tables.at(-1)?.rows.map((r) => r.item === item)).toEqual([false, true, false]);

    const { row, result, sittings } = await app.tests.reveal(id);
    expect([row.finished, sittings.map((s) => s.answered).sort()]).toEqual([2, [3, 4]]);
    expect(result?.worths.map((w) => w.name).slice(0, 2)).toEqual(['Oarlock Purser 1 · A', 'Marlfen Fen · A']);
    expect(result?.sentences.map((s) => s.about)).toEqual(expect.arrayContaining([expect.stringMatching(/^Heat of/)]));
    expect(result?.reveals[1].trials.at(-1)?.words).toBe('Marlfen Fen · A put into the table, best first.');
    const scale = await app.scale.scale(scaleRequestSchema.parse({ category: 'microphone', attribute: 'preference' }));
    expect(scale.items.find((i) => i.name === 'Marlfen Fen · A')?.place).toBeGreaterThan(0);
    await expect(lead({ kind: 'heat' })).rejects.toThrow('This panel is closed.');
  });

  it('nothing that listeners can fetch says what is behind a letter', async () => {
    const { app, id, lead, specimens } = await held(4);
    const page = await lead({ kind: 'heat' });
    await lead({ kind: 'came', name: 'Mirre' });
    await lead({ kind: 'now', letter: 'C' });
    await lead({ kind: 'said', sitting: null, turn: 1, letter: 'C', words: ['boxy'], free: 'like a cupboard' });
    const { sitting: phone } = await app.sittings.join(page.invitation, { name: 'Odo' });
    const address = await serve(app);
    const texts = await Promise.all(
      [`/api/listen/${phone}`, `/api/listen/${phone}/seat`, `/api/listen/join/${page.invitation}/screen`].map(
        async (path) => {
          const response = await fetch(address + path);
          expect(response.status, path).toBe(200);
          return response.text();
        },
      ),
    );
    const secrets = [/Oarlock|Purser|cupboard|boxy|Mirre/, ...page.items.map((i) => new RegExp(`"${i.id}"`)), ...specimens.map((s) => new RegExp(`"${s}"`))]; // prettier-ignore
    for (const text of texts) for (const secret of secrets) expect(text).not.toMatch(secret);
    expect(texts[2]).toContain('"now":"C"');
    // The clip of a turn is the operator’s; and what is performed has none.
    await expect(app.livePanels.clip(id, 'A')).rejects.toThrow('no such clip');
  });

  it('is whole again after a restart in the middle, and never ends over the head of an open turn', async () => {
    const { app, id, lead } = await held(3);
    await lead({ kind: 'came', name: 'Mirre' });
    let page = await lead({ kind: 'heat' });
    const before = await app.livePanels.page(id);
    expect(before).toEqual(page);
    await expect(app.tests.close(id)).rejects.toThrow(/Heat 1 is still being heard/);
    await expect(app.tests.reveal(id)).rejects.toThrow(/Heat 1 is still being heard/);
    await expect(lead({ kind: 'close' })).rejects.toThrow(/Nobody has given an order/);
    page = await lead({ kind: 'drop', reason: 'The stand was moved' });
    expect(page.turns[0]).toMatchObject({ status: 'dropped', reason: 'The stand was moved' });
    expect(page.offers.heat).toMatchObject({ left: 3 });
    await app.tests.close(id);
    expect((await app.tests.page(id)).row.status).toBe('closed');
  });

  it('words are kept with their moment, by whom or by nobody, and can be taken back', async () => {
    const { app, id, lead, specimens } = await held(2);
    await lead({ kind: 'came', name: 'Mirre' });
    let page = await lead({ kind: 'heat' });
    const mirre = page.listeners[0].sitting;
    const said = {
      kind: 'said',
      turn: 1,
      letter: 'B',
      words: ['dull' as const],
      free: 'woolly, and far',
      clipS: 2.5,
    } satisfies Omit<PanelCommandDraft & { kind: 'said' }, 'sitting'>;
    page = await lead({ ...said, sitting: mirre });
    page = await lead({ ...said, sitting: null, free: '' });
    expect(page.notes).toMatchObject([
      { sitting: mirre, free: 'woolly, and far', clipS: 2.5, at: '2026-05-10T12:00:00.000Z', letter: 'B' },
      { sitting: null, words: ['dull'], free: '' },
    ]);
    const specimen = page.items.find((i) => i.id === page.turns[0].items[1])?.specimenId ?? '';
    expect(specimens).toContain(specimen);
    const wordsOf = async () => (await app.reviews.character(specimen)).heard.map((w) => `${w.word} ${w.count}`).sort();
    expect(await wordsOf()).toEqual(['dull 2', 'woolly, and far 1']);
    // Said by one who is known, and by nobody who is.
    const vocabulary = (await app.vocabulary.vocabulary('microphone')).words;
    expect(vocabulary.map((w) => [w.word, w.said, w.listeners])).toEqual([['dull', 2, 1], ['far', 1, 1], ['woolly', 1, 1]]); // prettier-ignore
    page = await lead({ kind: 'take-back', entry: page.notes[1].entry });
    expect([page.notes.length, await wordsOf()]).toEqual([1, ['dull 1', 'woolly, and far 1']]);
    await lead({ kind: 'order', sitting: mirre, letters: ['A', 'B'] });
    await lead({ kind: 'close' });
    expect((await app.tests.reveal(id)).result?.words.map((w) => w.word).sort()).toEqual(['dull', 'woolly, and far']);
    await app.tests.leaveOut(id, mirre, 'had a cold');
    expect(await wordsOf()).toEqual([]);
  });

  it('while it is held the tables are those that were heard; when it is over they are those that count', async () => {
    const { app, id, lead } = await held(2);
    for (const name of ['Mirre', 'Odo', 'Iva']) await lead({ kind: 'came', name });
    let page = await lead({ kind: 'heat' });
    const [mirre, odo, iva] = page.listeners.map((l) => l.sitting);
    await lead({ kind: 'order', sitting: mirre, letters: ['A', 'B'] });
    for (const sitting of [odo, iva]) await lead({ kind: 'order', sitting, letters: ['B', 'A'] });
    page = await lead({ kind: 'close' });
    const [a, b] = page.turns[0].items;
    const order = async () => (await app.livePanels.page(id)).tables[0].rows.map((r) => r.item);
    await app.tests.leaveOut(id, odo, 'had a cold');
    await app.tests.leaveOut(id, iva, 'had a cold');
    // Who goes on was decided with them.
    expect(await order()).toEqual([b, a]);
    await app.tests.close(id);
    expect(await order()).toEqual([a, b]);
    await app.tests.leaveOut(id, odo, null);
    await app.tests.leaveOut(id, iva, null);
    expect(await order()).toEqual([b, a]);
  });

  it('has room for sixty listeners and forty units', async () => {
    const { app, lead } = await held(2);
    for (let i = 0; i < 60; i++) await lead({ kind: 'came', name: `Listener ${i}` });
    await expect(lead({ kind: 'came', name: 'One more' })).rejects.toThrow('60 listeners at most');
    const more = await units(app, 41);
    for (const specimen of more.slice(2, 40)) await lead({ kind: 'add', specimen });
    await expect(lead({ kind: 'add', specimen: more[40] })).rejects.toThrow('40 units at most');
  });

  it('a listener changes their own alone', async () => {
    const { app, lead } = await held(2);
    let page = await lead({ kind: 'heat' });
    const [one, other] = await Promise.all(['Odo', 'Iva'].map((name) => app.sittings.join(page.invitation, { name })));
    await sit(app, one.sitting, { kind: 'said', turn: 1, letter: 'A', words: [], free: 'clear' });
    page = await app.livePanels.page(page.testId);
    const entry = page.notes[0].entry;
    await expect(sit(app, other.sitting, { kind: 'take-back', entry })).rejects.toThrow('somebody else');
    expect((await app.livePanels.seat(other.sitting)).turn?.notes).toEqual([]);
    expect((await sit(app, one.sitting, { kind: 'take-back', entry })).turn?.notes).toEqual([]);
    expect((await sit(app, one.sitting, { kind: 'wish', letter: 'B' })).turn?.wishes).toEqual(['B']);
    expect((await app.livePanels.seat(other.sitting)).turn?.wishes).toEqual([]);
    expect((await sit(app, one.sitting, { kind: 'order', letters: ['B', 'A'] })).turn?.order).toEqual(['B', 'A']);
    expect((await app.livePanels.seat(other.sitting)).turn?.order).toBeNull();
    await expect(app.livePanels.seat('nobody')).rejects.toThrow('no sitting');
    await expect(app.livePanels.screen('nobody')).rejects.toThrow('no test');
  });

  it('takes that were recorded in the room are linked to what was heard, those of another unit are not', async () => {
    const app = await testApplication();
    const measured = await importUnits(app, 2);
    const { row } = await app.tests.create(panelOf({ units: measured.map((u) => u.specimenId) }));
    const page = await app.livePanels.page(row.id);
    expect(page.items[0].takes.map((t) => t.id)).toContain(measured[0].takeId);
    const link = (take: string | null) =>
      app.livePanels.lead(row.id, panelCommandSchema.parse({ kind: 'take', item: page.items[0].id, take }));
    expect((await link(measured[0].takeId)).items[0].takeId).toBe(measured[0].takeId);
    await expect(link(measured[1].takeId)).rejects.toThrow('no such take');
    await app.tests.close(row.id);
    expect((await link(null)).items[0].takeId).toBeNull();
  });

  it('plays matched clips in the room, those of the open turn alone', async () => {
    const app = await testApplication();
    const measured = await importUnits(app, 3);
    const { row } = await app.tests.create(panelOf({ takes: measured.map((u) => u.takeId), panel: { source: 'played' }, passage: { fromS: 0.5, lengthS: 3 } })); // prettier-ignore
    await expect(app.livePanels.lead(row.id, { kind: 'heat' })).rejects.toThrow('still being prepared');
    await app.listeningClips.settled();
    await expect(app.livePanels.clip(row.id, 'A')).rejects.toThrow('no such clip');
    await app.livePanels.lead(row.id, { kind: 'heat' });
    const clips = await Promise.all(['A', 'B', 'C'].map((letter) => app.livePanels.clip(row.id, letter)));
    expect(new Set(clips.map((c) => c.length)).size).toBe(1);
    expect(Buffer.from(clips[0]).equals(Buffer.from(clips[1]))).toBe(false);
    await expect(app.livePanels.clip(row.id, 'D')).rejects.toThrow('no such clip');
    const { id: another } = await app.scoring.addUnit({ maker: 'Marlfen', model: 'Fen', label: 'A', category: 'microphone' }); // prettier-ignore
    await expect(app.livePanels.lead(row.id, { kind: 'add', specimen: another })).rejects.toThrow('without one cannot join'); // prettier-ignore
  });

  it('is held for any kind of gear: interfaces, boosters, shields, field sets, headphones', async () => {
    const app = await testApplication();
    for (const category of ['interface', 'booster', 'accessory', 'field-microphone', 'headphones']) {
      const specimens = await units(app, 2, category);
      const { row } = await app.tests.create(panelOf({ units: specimens, category }));
      const page = await app.livePanels.lead(row.id, { kind: 'heat' });
      expect([page.category, page.turns[0].items.length]).toEqual([category, 2]);
    }
    const [microphone, booster] = [...(await units(app, 1)), ...(await units(app, 1, 'booster'))];
    await expect(app.tests.create(panelOf({ units: [microphone, booster] }))).rejects.toThrow('another kind');
    await expect(app.tests.create(panelOf({ units: [microphone, '999'] }))).rejects.toThrow(
      'no unit with the number 999',
    );
  });

  it('goes with a unit that is deleted for good, and what was said of others in it stays said', async () => {
    const { app, id, lead, specimens } = await held(2);
    await lead({ kind: 'came', name: 'Mirre' });
    const page = await lead({ kind: 'heat' });
    const letterOf = (specimen: string): string => {
      const item = page.items.find((i) => i.specimenId === specimen)?.id ?? '';
      return 'AB'[page.turns[0].items.indexOf(item)];
    };
    for (const specimen of specimens)
      await lead({ kind: 'said', sitting: page.listeners[0].sitting, turn: 1, letter: letterOf(specimen), words: ['full'], free: '' }); // prettier-ignore
    await lead({ kind: 'order', sitting: page.listeners[0].sitting, letters: ['A', 'B'] });
    await lead({ kind: 'close' });
    expect((await app.removals.preview('unit', specimens[0])).refusal).toMatch(/can still be answered; close it first/);
    await app.tests.close(id);
    const preview = await app.removals.preview('unit', specimens[0]);
    expect(preview.goes.join('\n')).toMatch(/Sung through/);
    await app.removals.remove({ what: 'unit', id: specimens[0], name: 'oarlock purser 1 a', reason: 'not mine' });
    await expect(app.livePanels.page(id)).rejects.toThrow('no listening test');
    expect(await app.database.query('SELECT id FROM panel_entry')).toEqual([]);
    expect((await app.reviews.character(specimens[1])).heard).toEqual([{ word: 'full', count: 1, isFree: false }]);
  });

  it('is closed before two units in it become one, and says what it showed then', async () => {
    const { app, id, lead, specimens } = await held(3);
    await lead({ kind: 'came', name: 'Mirre' });
    const page = await lead({ kind: 'heat' });
    await lead({ kind: 'order', sitting: page.listeners[0].sitting, letters: ['A', 'B', 'C'] });
    await lead({ kind: 'close' });
    const merge = () =>
      app.corrections.correct({
        change: { kind: 'unit-merged', unit: specimens[0], into: specimens[1], isMerged: true },
        reason: '',
      });
    await expect(merge()).rejects.toThrow('can still be answered; close it first');
    await app.tests.close(id);
    await merge();
    const after = await app.livePanels.page(id);
    expect(new Set(after.items.map((i) => i.specimenId)).size).toBe(2);
    expect(after.tables[0].rows).toHaveLength(3);
    expect((await app.tests.reveal(id)).result?.worths.length).toBeGreaterThan(0);
  });

  it('the database refuses to change what happened', async () => {
    const { app, lead } = await held(2);
    await lead({ kind: 'heat' });
    await expect(app.database.query('UPDATE panel_entry SET made_at = now()')).rejects.toThrow('never changed');
  });
});

describe('what makes a panel', () => {
  it('units where it is performed, clips where they are played, and never both', () => {
    const faults = (change: object): string[] => {
      const parsed = newTestSchema.safeParse({ name: 'x', design: 'panel', takes: [], panel: { source: 'performed' }, units: ['1', '2'], ...change }); // prettier-ignore
      return parsed.success ? [] : parsed.error.issues.map((i) => i.message);
    };
    expect(faults({})).toEqual([]);
    expect(faults({ units: ['1'] })).toEqual(['choose two units at least']);
    expect(faults({ units: ['1', '1'] })).toEqual(['names a unit twice']);
    expect(faults({ takes: ['5'] })).toEqual(['what is performed in the room has no clips']);
    expect(faults({ panel: { source: 'played' } })[0]).toBe('only what is performed in the room is chosen by units');
    expect(faults({ panel: { source: 'played' }, units: [] })[0]).toBe('choose the units');
    expect(faults({ panel: { source: 'played' }, units: [], takes: ['1', '2'] })).toEqual([]);
    expect(faults({ panel: { source: 'performed', goOn: 2 }, heatSize: 2 })).toEqual([
      'of a heat of 2 at most 1 can go on',
    ]);
    expect(faults({ panel: null })).toContain('say how the panel is held');
    expect(faults({ sighted: true })).toEqual(['a panel is blind']);
    expect(faults({ design: 'heats', units: [], takes: ['1', '2'] })).toContain('only a live panel is held in a room');
  });
});
