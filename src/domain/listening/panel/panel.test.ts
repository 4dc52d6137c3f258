import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { PanelCommand, PanelEntry } from '#contracts/live-panel';
import { heardFromAnswer } from '../heard-from-answer';
import { newTestSchema } from '#contracts/listening';
import { drawnAgain, drawnHeat, MOST_IN_TABLE, panelOffers, type PanelRules } from './panel-offers';
import { panelRefusal, turnTitle } from './panel-refusal';
import { panelSentences } from './panel-sentences';
import { openTurn, panelState, type KeptEntry, type PanelState } from './panel-state';
import { byMeanPlace, middlePlace, panelTables } from './panel-tables';
import { panelTrials } from './panel-trials';
import { seatView } from './seat-view';

/** A journal that is written entry by entry. */
class Journal {
  private readonly entries: KeptEntry[] = [];

  add(entry: PanelEntry, sitting: string | null = null): string {
    const id = String(100 + this.entries.length);
    this.entries.push({
      id,
      sitting,
      at: `2025-05-24T10:00:${String(this.entries.length % 60).padStart(2, '0')}Z`,
      entry,
    });
    return id;
  }

  heat(items: readonly string[], more: Partial<PanelEntry & { kind: 'heat' }> = {}): void {
    this.add({ kind: 'heat', items: [...items], round: 1, isFinal: false, again: null, ...more });
  }

  /** Heard and closed, with an order of letters for each listener. */
  heard(items: readonly string[], orders: readonly string[], more: Partial<PanelEntry & { kind: 'heat' }> = {}): void {
    this.heat(items, more);
    orders.forEach((order, i) => this.add({ kind: 'order', letters: Array.from(order) }, String(i + 1)));
    this.add({ kind: 'closed' });
  }

  placed(into: number, item: string, at: readonly number[]): void {
    const table =
      panelTables(this.state())
        .find((t) => t.turn === into)
        ?.rows.map((r) => r.item) ?? [];
    this.add({ kind: 'place', into, round: 1, table, item });
    at.forEach((place, i) => this.add({ kind: 'placed', at: place }, String(i + 1)));
    this.add({ kind: 'closed' });
  }

  state(): PanelState {
    return panelState(this.entries);
  }
}

const ids = (n: number): string[] => Array.from({ length: n }, (_, i) => String(i + 1));
const rules = (n: number, more: Partial<PanelRules> = {}): PanelRules => ({
  items: ids(n),
  heatSize: 4,
  goOn: 1,
  ...more,
});
const table = (journal: Journal, of = 0): string => panelTables(journal.state())[of].rows.map((r) => `${r.place}:${r.item}`).join(' '); // prettier-ignore

describe('the running table', () => {
  it('is by the mean over all orders, equal ones sharing their place', () => {
    expect(
      byMeanPlace([
        ['1', '2', '3'],
        ['1', '3', '2'],
      ]),
    ).toEqual([
      { item: '1', place: 1, meanPlace: 1 },
      { item: '2', place: 2, meanPlace: 2.5 },
      { item: '3', place: 2, meanPlace: 2.5 },
    ]);
  });

  it('leaves out whose orders do not count, and stays as it was heard where that is everybody', () => {
    const journal = new Journal();
    journal.heard(ids(3), ['ABC', 'ABC', 'CBA', 'CBA', 'CBA']);
    journal.placed(1, '9', [0, 0, 3, 3, 3]);
    const rows = (...out: string[]) => panelTables(journal.state(), new Set(out))[0].rows.map((r) => r.item).join(''); // prettier-ignore
    expect(rows()).toBe('3219');
    // Of two listeners that are left, both put the newcomer first.
    expect(rows('3', '4', '5')).toBe('9123');
    expect(rows('1', '2', '3', '4', '5')).toBe(rows());
    expect(rows('77')).toBe(rows());
  });

  it('takes the letters of an order for the items behind them, of the last order that each gave', () => {
    const journal = new Journal();
    journal.heat(['7', '5', '9']);
    journal.add({ kind: 'order', letters: ['A', 'B', 'C'] }, '1');
    journal.add({ kind: 'order', letters: ['C', 'A', 'B'] }, '1');
    journal.add({ kind: 'closed' });
    expect(table(journal)).toBe('1:9 2:7 3:5');
  });

  it('counts a second hearing with the first, and what was left out not at all', () => {
    const journal = new Journal();
    journal.heard(['1', '2', '3'], ['ABC']);
    journal.heat(['3', '2', '1'], { again: 1 });
    journal.add({ kind: 'order', letters: ['A', 'B', 'C'] }, '1');
    journal.add({ kind: 'dropped', reason: 'a door was slammed' });
    expect(table(journal)).toBe('1:1 2:2 3:3');
    journal.heard(['3', '1', '2'], ['BAC'], { again: 1 });
    // 1: 1st and 1st; 2: 2nd and 3rd; 3: 3rd and 2nd.
    expect(table(journal)).toBe('1:1 2:2 2:3');
    expect(panelTables(journal.state())).toHaveLength(1);
  });

  it('puts one more where the middle one of the listeners puts it, behind in doubt', () => {
    const journal = new Journal();
    journal.heard(['1', '2', '3', '4'], ['ABCD']);
    journal.placed(1, '5', [1, 1, 4]);
    expect(table(journal)).toBe('1:1 2:5 3:2 4:3 5:4');
    journal.placed(1, '6', [0, 2]);
    expect(table(journal)).toBe('1:1 2:5 3:6 4:2 5:3 6:4');
    journal.placed(1, '7', [0]);
    expect(table(journal)).toBe('1:7 2:1 3:5 4:6 5:2 6:3 7:4');
    journal.placed(1, '8', [7]);
    expect(table(journal).endsWith('8:8')).toBe(true);
  });

  it('keeps a newcomer behind the one that it was put behind, when a second hearing moves the others', () => {
    const journal = new Journal();
    journal.heard(['1', '2', '3'], ['ABC']);
    journal.placed(1, '4', [1]);
    expect(table(journal)).toBe('1:1 2:4 3:2 4:3');
    journal.heard(['1', '2', '3'], ['CBA', 'CBA'], { again: 1 });
    expect(table(journal)).toBe('1:3 2:2 3:1 4:4');
  });

  it('splits a shared place only where the newcomer stands between the two', () => {
    const journal = new Journal();
    journal.heard(['1', '2', '3'], ['ABC', 'ACB']);
    expect(table(journal)).toBe('1:1 2:2 2:3');
    journal.placed(1, '4', [1]);
    expect(table(journal)).toBe('1:1 2:4 3:2 3:3');
    journal.placed(1, '5', [3]);
    expect(table(journal)).toBe('1:1 2:4 3:2 4:5 5:3');
  });

  it('the middle of places: of one, of three, of two that differ', () => {
    const turn = (places: readonly number[]) => ({
      items: ['1', '2', '3', 'x'],
      orders: new Map(
        places.map((at, i) => [String(i), [...['1', '2', '3'].slice(0, at), 'x', ...['1', '2', '3'].slice(at)]]),
      ),
    });
    expect([[2], [0, 3, 1], [0, 2], [3, 3]].map((places) => middlePlace(turn(places)))).toEqual([2, 1, 2, 3]);
  });
});

describe('who is heard next', () => {
  it('four of nine, then of what is left; the winners meet; the last heat is the final', () => {
    const journal = new Journal();
    const sizes: number[] = [];
    const of = rules(9);
    for (let i = 0; i < 3; i++) {
      expect(panelOffers(journal.state(), of).heat).toMatchObject({ round: 1, isFinal: false });
      const drawn = drawnHeat(journal.state(), of, `secret ${i}`);
      sizes.push(drawn.items.length);
      journal.heard(drawn.items, ['ABCDEF'.slice(0, drawn.items.length)], drawn);
    }
    expect(sizes).toEqual([3, 3, 3]);
    expect(new Set(journal.state().turns.flatMap((t) => t.items)).size).toBe(9);
    const winners = panelTables(journal.state()).map((t) => t.rows[0].item);
    expect(panelOffers(journal.state(), of).heat).toEqual({ round: 2, left: 3, size: 3, isFinal: true });
    const final = drawnHeat(journal.state(), of, 'f');
    expect([...final.items].sort()).toEqual([...winners].sort());
    journal.heard(final.items, ['CAB'], final);
    expect(panelOffers(journal.state(), of)).toMatchObject({
      heat: null,
      lone: null,
      isDecided: true,
      again: [1, 2, 3, 4],
    });
  });

  it('of five a full heat is heard, and the fifth goes into its table', () => {
    const journal = new Journal();
    const of = rules(5);
    expect(panelOffers(journal.state(), of).heat).toEqual({ round: 1, left: 5, size: 4, isFinal: false });
    const drawn = drawnHeat(journal.state(), of, 's');
    expect([drawn.items.length, drawn.isFinal]).toEqual([4, false]);
    journal.heard(drawn.items, ['ABCD']);
    const [fifth] = ids(5).filter((id) => !drawn.items.includes(id));
    expect(panelOffers(journal.state(), of)).toMatchObject({ heat: null, lone: fifth });
    expect(new Set(Array.from({ length: 40 }, (_, i) => drawnHeat(new Journal().state(), of, `${i}`).items.join())).size).toBeGreaterThan(30); // prettier-ignore
  });

  it('all in one heat is the final at once', () => {
    expect(panelOffers(new Journal().state(), rules(4)).heat).toEqual({ round: 1, left: 4, size: 4, isFinal: true });
  });

  it('whoever shares the first place goes on as well', () => {
    const journal = new Journal();
    journal.heard(['1', '2', '3'], ['ABC', 'BAC']);
    journal.heard(['4', '5', '6'], ['ABC']);
    expect(panelOffers(journal.state(), rules(6)).heat).toMatchObject({ round: 2, left: 3 });
  });

  it('as many go on as is said, unless all would', () => {
    const journal = new Journal();
    journal.heard(['1', '2', '3'], ['ABC']);
    journal.heard(['4', '5', '6'], ['ABC']);
    expect(panelOffers(journal.state(), rules(6, { goOn: 2 })).heat).toMatchObject({
      round: 2,
      left: 4,
      isFinal: true,
    });
    const twos = new Journal();
    twos.heard(['1', '2'], ['AB']);
    twos.heard(['3', '4'], ['AB']);
    expect(panelOffers(twos.state(), rules(4, { goOn: 2, heatSize: 3 })).heat).toMatchObject({ round: 2, left: 2 });
  });

  it('one that is left over is put into a table, and so is one that comes late', () => {
    const journal = new Journal();
    journal.heard(['1', '2', '3', '4'], ['ABCD']);
    const offers = panelOffers(journal.state(), rules(5));
    expect(offers).toMatchObject({ heat: null, lone: '5', isDecided: false, place: [{ into: 1, items: ['5'] }] });
    journal.placed(1, '5', [0]);
    expect(panelOffers(journal.state(), rules(5))).toMatchObject({ heat: null, lone: null, isDecided: true });
    expect(panelOffers(journal.state(), rules(6))).toMatchObject({ lone: '6', isDecided: false });
  });

  it('who was put straight into the final has been heard', () => {
    const journal = new Journal();
    journal.heard(['1', '2'], ['AB']);
    journal.heard(['3', '4'], ['AB']);
    journal.heard(['1', '3'], ['AB'], { round: 2, isFinal: true });
    expect(panelOffers(journal.state(), rules(4))).toMatchObject({ isDecided: true });
    const table3 = panelTables(journal.state())[2].rows.map((r) => r.item);
    journal.add({ kind: 'place', into: 3, round: 2, table: table3, item: '5' });
    journal.add({ kind: 'placed', at: 0 }, '1');
    journal.add({ kind: 'closed' });
    expect(panelOffers(journal.state(), rules(5))).toMatchObject({ lone: null, isDecided: true });
  });

  it('offers nothing while something is heard, and the heat again when it was left out', () => {
    const journal = new Journal();
    journal.heat(['1', '2', '3', '4']);
    expect(panelOffers(journal.state(), rules(4))).toEqual({
      heat: null,
      lone: null,
      again: [],
      place: [],
      isDecided: false,
    });
    journal.add({ kind: 'dropped', reason: 'the capsule was covered' });
    expect(panelOffers(journal.state(), rules(4)).heat).toMatchObject({ left: 4 });
  });

  it('a table that is full takes no more', () => {
    const journal = new Journal();
    journal.heard(['1', '2'], ['AB']);
    for (let item = 3; item <= MOST_IN_TABLE; item++) journal.placed(1, String(item), [0]);
    expect(panelTables(journal.state())[0].rows).toHaveLength(MOST_IN_TABLE);
    expect(panelOffers(journal.state(), rules(MOST_IN_TABLE + 1)).place).toEqual([]);
  });

  it('every panel comes to an end, hears everybody, and never one alone', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 24 }),
        fc.integer({ min: 2, max: 6 }),
        fc.integer({ min: 1, max: 3 }),
        fc.string(),
        (n, heatSize, goOn, secret) => {
          fc.pre(goOn < heatSize);
          const of = rules(n, { heatSize, goOn });
          const journal = new Journal();
          for (let turn = 1; !panelOffers(journal.state(), of).isDecided; turn++) {
            expect(turn).toBeLessThan(60);
            const { heat, lone, place } = panelOffers(journal.state(), of);
            if (heat !== null) {
              const drawn = drawnHeat(journal.state(), of, `${secret} ${turn}`);
              expect(drawn).toMatchObject({ round: heat.round, isFinal: heat.isFinal });
              expect(drawn.items).toHaveLength(heat.size);
              expect(drawn.items.length).toBeGreaterThan(1);
              journal.heard(drawn.items, ['ABCDEFG'.slice(0, drawn.items.length)], drawn);
            } else {
              expect(lone).not.toBeNull();
              journal.placed(place.at(-1)?.into ?? 0, lone ?? '', [1]);
            }
          }
          expect(new Set(journal.state().turns.flatMap((t) => t.items)).size).toBe(n);
          expect(panelTables(journal.state()).at(-1)?.rows.length).toBeGreaterThan(1);
        },
      ),
      { numRuns: 200 },
    );
  });

  it('a second hearing has the same items under other letters', () => {
    const journal = new Journal();
    journal.heard(['1', '2'], ['AB']);
    for (let i = 0; i < 20; i++)
      expect(drawnAgain(journal.state(), 1, `s${i}`)).toMatchObject({ items: ['2', '1'], again: 1, round: 1 });
  });

  it('the draw is fair: each of four under each letter about as often', () => {
    const counts = new Map<string, number>();
    for (let i = 0; i < 4000; i++)
      drawnHeat(new Journal().state(), rules(4), `draw ${i}`).items.forEach((item, at) => counts.set(`${item}/${at}`, (counts.get(`${item}/${at}`) ?? 0) + 1)); // prettier-ignore
    const chi = [...counts.values()].reduce((s, c) => s + (c - 1000) ** 2 / 1000, 0);
    // Nine degrees of freedom: passed by chance once in a thousand times at 27.9 (table of χ², from memory).
    expect([counts.size, chi < 27.9]).toEqual([16, true]);
  });
});

describe('what is refused', () => {
  const circle = { rules: rules(5), sittings: ['1', '2'], own: null };
  const open = (): Journal => {
    const journal = new Journal();
    journal.heat(['1', '2', '3', '4']);
    return journal;
  };
  const refused = (journal: Journal, command: PanelCommand, own: string | null = null): string | null =>
    panelRefusal(journal.state(), command, { ...circle, own });

  it('a heat while one is heard, and one when all was heard', () => {
    expect(refused(open(), { kind: 'heat' })).toMatch(/^Heat 1 is not closed yet/);
    const journal = new Journal();
    journal.heard(['1', '2', '3', '4'], ['ABCD']);
    expect(refused(journal, { kind: 'heat' })).toMatch(/no heat for one/);
    journal.placed(1, '5', [2]);
    expect(refused(journal, { kind: 'heat' })).toMatch(/the last heat was the final/);
    expect(refused(new Journal(), { kind: 'heat' })).toBeNull();
  });

  it('an order that is none, in a turn that asks for none, of a stranger', () => {
    const order = (letters: string, sitting = '1'): PanelCommand => ({
      kind: 'order',
      sitting,
      letters: Array.from(letters),
    });
    expect(refused(open(), order('DCBA'))).toBeNull();
    for (const letters of ['ABC', 'ABCC', 'ABCDE', 'ABCE']) expect(refused(open(), order(letters))).toMatch(/each of A, B, C, D once/); // prettier-ignore
    expect(refused(open(), order('ABCD', '9'))).toMatch(/not in the panel/);
    expect(refused(open(), { kind: 'placed', sitting: '1', at: 1 })).toMatch(/asks for an order/);
    const place = new Journal();
    place.heard(['1', '2', '3', '4'], ['ABCD']);
    expect(refused(place, order('ABCD'))).toMatch(/closed: its orders stand/);
    place.add({ kind: 'place', into: 1, round: 1, table: ['1', '2', '3', '4'], item: '5' });
    expect(refused(place, order('ABCD'))).toMatch(/a place in the table/);
    expect(refused(place, { kind: 'placed', sitting: '1', at: 4 })).toBeNull();
    expect(refused(place, { kind: 'placed', sitting: '1', at: 5 })).toMatch(/no such place/);
  });

  it('closing what nobody ordered; leaving out, playing and wishing what is not heard', () => {
    const journal = open();
    expect(refused(journal, { kind: 'close' })).toMatch(/Nobody has given an order/);
    journal.add({ kind: 'order', letters: ['A', 'B', 'C', 'D'] }, '1');
    expect(refused(journal, { kind: 'close' })).toBeNull();
    expect(refused(journal, { kind: 'now', letter: 'E' })).toMatch(/no E/);
    expect(refused(journal, { kind: 'wish', sitting: null, letter: 'E' })).toMatch(/no E/);
    for (const command of [{ kind: 'close' }, { kind: 'drop', reason: 'x' }, { kind: 'now', letter: 'A' }, { kind: 'wish', sitting: null, letter: 'A' }] as const)
      expect(refused(new Journal(), command)).toMatch(/Nothing is being heard/); // prettier-ignore
  });

  it('words of nothing, about nothing; and a note that somebody else made', () => {
    const said = (part: Partial<PanelCommand & { kind: 'said' }>): PanelCommand => ({ kind: 'said', sitting: '1', turn: 1, letter: 'A', words: [], free: 'woolly', clipS: null, ...part }); // prettier-ignore
    const journal = open();
    expect(refused(journal, said({}))).toBeNull();
    expect(refused(journal, said({ free: '' }))).toMatch(/Nothing was said/);
    expect(refused(journal, said({ letter: 'F' }))).toMatch(/no F/);
    expect(refused(journal, said({ turn: 2 }))).toMatch(/no such turn/);
    const entry = journal.add({ kind: 'said', turn: 1, letter: 'A', words: [], free: 'woolly', clipS: 3.5 }, '1');
    expect(refused(journal, { kind: 'take-back', entry }, '1')).toBeNull();
    expect(refused(journal, { kind: 'take-back', entry }, '2')).toMatch(/somebody else/);
    expect(refused(journal, { kind: 'take-back', entry })).toBeNull();
    expect(journal.state().notes).toMatchObject([{ item: '1', free: 'woolly', clipS: 3.5 }]);
    journal.add({ kind: 'taken-back', entry });
    expect(journal.state().notes).toEqual([]);
    expect(refused(journal, { kind: 'take-back', entry })).toMatch(/taken back already/);
    journal.add({ kind: 'dropped', reason: 'x' });
    expect(refused(journal, said({}))).toMatch(/no such turn/);
  });

  it('a second hearing of what is no closed heat, a place in no table', () => {
    const journal = new Journal();
    journal.heard(['1', '2', '3', '4'], ['ABCD']);
    expect(refused(journal, { kind: 'again', turn: 1 })).toBeNull();
    expect(refused(journal, { kind: 'again', turn: 2 })).toMatch(/heat that was closed/);
    expect(refused(journal, { kind: 'place', into: 1, item: '5' })).toBeNull();
    expect(refused(journal, { kind: 'place', into: 1, item: '1' })).toMatch(/already/);
    expect(refused(journal, { kind: 'place', into: 2, item: '5' })).toMatch(/no such table/);
  });
});

describe('what a turn is called', () => {
  it('by its round and its number; one that was left out gives its number to the next', () => {
    const journal = new Journal();
    journal.heat(['1', '2']);
    journal.add({ kind: 'dropped', reason: 'x' });
    journal.heard(['2', '1'], ['AB']);
    journal.heard(['3', '4'], ['AB']);
    journal.heard(['1', '2'], ['AB'], { again: 2 });
    journal.heard(['2', '3'], ['AB'], { round: 2, isFinal: true });
    journal.placed(5, '5', [0]);
    journal.placed(5, '6', [0]);
    const state = journal.state();
    expect(state.turns.map((t) => turnTitle(t, state))).toEqual(['Heat 1', 'Heat 1', 'Heat 2', 'Heat 1, second hearing', 'Final', 'One more for the final', 'One more for the final (2)']); // prettier-ignore
  });
});

describe('what listeners see', () => {
  it('letters and their own answers: no item, nothing of others', () => {
    const journal = new Journal();
    journal.heat(['701', '502', '903']);
    journal.add({ kind: 'now', letter: 'B' });
    journal.add({ kind: 'order', letters: ['C', 'A', 'B'] }, '1');
    journal.add({ kind: 'order', letters: ['A', 'B', 'C'] }, '2');
    journal.add({ kind: 'wish', letter: 'A' }, '2');
    journal.add({ kind: 'said', turn: 1, letter: 'A', words: ['dull'], free: '', clipS: null }, '2');
    const state = journal.state();
    const seat = seatView(state, { question: 'Which do you prefer?', isOpen: true, sitting: { id: '1', name: 'Iva' } });
    expect(seat).toEqual({
      question: 'Which do you prefer?',
      listener: 'Iva',
      isOpen: true,
      // Its draw, the letter that is on, and their own order: what others do moves nothing that they could see.
      length: 3,
      turn: {
        number: 1,
        kind: 'heat',
        title: 'Heat 1',
        letters: ['A', 'B', 'C'],
        now: 'B',
        order: ['C', 'A', 'B'],
        wishes: [],
        notes: [],
      },
    });
    expect(JSON.stringify(seat)).not.toMatch(/701|502|903|dull/);
    const screen = seatView(state, { question: '', isOpen: true, sitting: null });
    expect(screen.turn).toMatchObject({ order: null, wishes: [], notes: [], now: 'B' });
    expect(seatView(state, { question: '', isOpen: false, sitting: null }).turn).toBeNull();
  });

  it('a wish is met when its letter is on, and a turn that is closed has none', () => {
    const journal = new Journal();
    journal.heat(['1', '2']);
    for (const letter of ['A', 'B', 'A']) journal.add({ kind: 'wish', letter }, '1');
    journal.add({ kind: 'wish', letter: 'A' }, null);
    expect(openTurn(journal.state())?.wishes).toHaveLength(3);
    journal.add({ kind: 'now', letter: 'A' });
    journal.add({ kind: 'now', letter: null });
    expect(journal.state().turns[0].heard).toEqual({ A: 1 });
    expect(openTurn(journal.state())).toMatchObject({
      now: null,
      wishes: [{ letter: 'B', sitting: '1' }],
      heard: { A: 1 },
    });
    journal.add({ kind: 'now', letter: 'A' });
    expect(journal.state().turns[0].heard).toEqual({ A: 2 });
    journal.add({ kind: 'order', letters: ['A', 'B'] }, '1');
    journal.add({ kind: 'closed' });
    expect(journal.state().turns[0]).toMatchObject({ status: 'closed', wishes: [], now: null });
  });
});

describe('what a panel tells the scale', () => {
  const test = newTestSchema.parse({
    name: 'x',
    design: 'panel',
    takes: [],
    units: ['11', '12'],
    panel: { source: 'performed' },
  });
  const items = ids(5).map((id) => ({ id, specimenId: `u${id}`, role: 'unit' as const, loudnessLufs: null }));
  const told = (journal: Journal) =>
    journal.state().turns.flatMap((turn) => panelTrials(turn).flatMap(({ trial, answer }) => heardFromAnswer(test, trial, answer, items).map((f) => [f.specimens.join('>'), f.outcome, f.weight]))); // prettier-ignore

  it('a heat is an order; one more is better than the next and worse than the one before, and nothing else', () => {
    const journal = new Journal();
    journal.heard(['3', '1', '2'], ['BCA']);
    expect(told(journal)).toEqual([['u1>u2>u3', null, 1]]);
    const places = ([0, 2, 3] as const).map((at) => {
      const more = new Journal();
      more.heard(['1', '2', '3'], ['ABC']);
      more.placed(1, '4', [at]);
      return told(more).slice(1);
    });
    expect(places).toEqual([[['u4>u1', 1, 1]], [['u2>u4', 1, 1], ['u4>u3', 1, 1]], [['u3>u4', 1, 1]]]); // prettier-ignore
  });
});

describe('what may be said of a panel', () => {
  it('holds a second hearing against the first of the same heat, and says nothing where somebody missed that', () => {
    const journal = new Journal();
    journal.heard(['1', '2', '3'], ['ABC']);
    journal.heard(['4', '5', '6'], ['CBA']);
    journal.heard(['6', '5', '4'], ['ABC', 'ABC'], { again: 2 });
    const trials = (sitting: string) => journal.state().turns.flatMap((t) => panelTrials(t)).filter((t) => t.sitting === sitting); // prettier-ignore
    const of = ['1', '2'].map((sitting) => ({ listener: `listener ${sitting}`, trials: trials(sitting) }));
    const own = panelSentences(of, (id) => id).filter((s) => s.about.startsWith('listener'));
    expect(own).toEqual([
      { about: 'listener 1', words: expect.stringContaining('4, 5 and 6 twice: 3 of 3 pairs') as string },
    ]);
  });

  it('how far all agree on each heat, and each with themselves', () => {
    const journal = new Journal();
    journal.heard(['1', '2', '3', '4'], ['ABCD', 'ABCD']);
    journal.heard(['4', '3', '2', '1'], ['DCAB'], { again: 1 });
    const of = (sitting: string) => journal.state().turns.flatMap((t) => panelTrials(t)).filter((t) => t.sitting === sitting); // prettier-ignore
    const sentences = panelSentences([{ listener: 'Iva', trials: of('1') }, { listener: 'Odo', trials: of('2') }], (id) => `unit ${id}`); // prettier-ignore
    expect(sentences).toEqual([
      {
        about: 'Heat of unit 1, unit 2, unit 3 and unit 4',
        words: expect.stringMatching(/^2 listeners largely agree \(Kendall's W 1\.00\)/) as string,
      },
      {
        about: 'Iva',
        words:
          'Heard unit 1, unit 2, unit 3 and unit 4 twice: 5 of 6 pairs were ordered alike. Whoever orders at random does as well 17 times in 100.',
      },
    ]);
  });
});
