import { describe, expect, it } from 'vitest';
import type { PanelTurnPage } from '#contracts/live-panel';
import { newer } from '../../../data/newest';
import { gapOf } from '../../../ui/letter-order';
import { shareWords, yearsOf } from '../../words/word-texts';
import { asSent, isPerformed, withDesign } from '../test-draft';
import { closingDoubts, drawWords, meanText, noteMoment, placeText } from './panel-words';

const TURN: PanelTurnPage = { number: 1, title: 'Heat 1', kind: 'heat', round: 1, isFinal: false, again: null, into: null, items: ['7', '8', '9'], status: 'open', reason: null, openedAt: '', now: null, heard: { A: 2 }, wishes: [], orders: [{ sitting: '1', items: ['7', '8', '9'] }] }; // prettier-ignore
const LISTENERS = [
  { sitting: '1', name: 'Iva', isOut: false },
  { sitting: '2', name: 'Odo', isOut: false },
  { sitting: '3', name: 'Mirre', isOut: true },
];

describe('the screen of whoever leads a panel', () => {
  it('says what a draw means', () => {
    const words = (size: number, left: number, round: number, isFinal: boolean): string => drawWords({ size, left, round, isFinal }); // prettier-ignore
    expect(words(4, 9, 1, false)).toBe('Draw a heat: 4 of the 9 that were not heard yet');
    expect(words(3, 5, 2, false)).toBe('Draw a heat: 3 of the 5 that go on');
    expect(words(2, 2, 1, false)).toBe('Draw a heat of 2');
    expect(words(3, 3, 2, true)).toBe('Draw the final: 3 meet');
    expect(words(4, 4, 1, true)).toBe('Draw the order: all 4 in one heat');
  });

  it('doubts a closing: who gave no order, what clips were never on, what is asked for; nobody who was left out', () => {
    expect(closingDoubts(TURN, LISTENERS, true)).toEqual(['no order from Odo', 'B, C were never on']);
    // Who performs hears themselves: what is on need not be pressed.
    expect(closingDoubts(TURN, LISTENERS, false)).toEqual(['no order from Odo']);
    const wishes = [{ letter: 'C', sitting: '1' }, { letter: 'C', sitting: null }]; // prettier-ignore
    const all = { ...TURN, heard: { A: 1, B: 1 }, wishes, orders: [...TURN.orders, { sitting: '2', items: [] }] };
    expect(closingDoubts(all, LISTENERS, true)).toEqual(['C was never on', 'C asked for again']);
    expect(closingDoubts({ ...all, wishes: [], heard: { A: 1, B: 1, C: 1 } }, LISTENERS, true)).toEqual([]);
  });

  it('shows shared places as shared, and means where there are any', () => {
    const rows = [{ item: '1', place: 1, meanPlace: 1.25 }, { item: '2', place: 1, meanPlace: 1.25 }, { item: '3', place: 3, meanPlace: null }]; // prettier-ignore
    expect(rows.map((r) => placeText(r, rows))).toEqual(['1=', '1=', '3']);
    expect(rows.map(meanText)).toEqual(['mean 1.3', 'mean 1.3', 'put in']);
  });

  it('notes the moment by the clock of the room, and where in the clip', () => {
    const at = new Date(2025, 4, 24, 9, 5, 7).toISOString();
    expect(noteMoment({ at, clipS: null })).toBe('09:05:07');
    expect(noteMoment({ at, clipS: 2.46 })).toBe('09:05:07, 2.5 s into it');
  });

  it('names the gaps of a table', () => {
    expect([0, 1, 2].map((at) => gapOf(['A', 'B'], 'C', at))).toEqual([
      'C is better than A',
      'C goes between A and B',
      'C goes behind B',
    ]);
  });
});

describe('of two answers to one page', () => {
  it('the one of which more is known is the newer, and of equal ones the later', () => {
    const [old, young, same] = [{ length: 3 }, { length: 4 }, { length: 4 }];
    expect(newer(null, old)).toBe(old);
    expect(newer(young, old)).toBe(young);
    expect(newer(old, young)).toBe(young);
    expect(newer(young, same)).toBe(same);
  });
});

describe('a draft of a panel', () => {
  const draft = { name: 'x', design: 'heats' as const, takes: ['1', '2'], units: ['5', '6'], yardstick: '1', sighted: true }; // prettier-ignore

  it('is performed at first, blind, and sends units or clips, never both', () => {
    const panel = withDesign(draft, 'panel', '2025-01-01');
    expect(panel).toMatchObject({ panel: { source: 'performed', goOn: 1 }, sighted: false, pack: null });
    expect(asSent(panel)).toMatchObject({ takes: [], yardstick: null, units: ['5', '6'] });
    const played = { ...panel, panel: { source: 'played' as const, goOn: 2 } };
    expect([isPerformed(panel), isPerformed(played)]).toEqual([true, false]);
    expect(asSent(played)).toMatchObject({ takes: ['1', '2'], yardstick: '1', units: [] });
    // Back and forth keeps how it is held as long as it is a panel, and nothing of it otherwise.
    expect(withDesign(played, 'panel', '2025-01-01').panel).toEqual({ source: 'played', goOn: 2 });
    expect(withDesign(played, 'heats', '2025-01-01').panel).toBeNull();
  });
});

describe('words of the vocabulary', () => {
  it('say years, and shares with what they leave open', () => {
    expect(yearsOf({ first: '2023-01-02', last: '2023-12-31' })).toBe('2023');
    expect(yearsOf({ first: '2023-01-02', last: '2025-01-01' })).toBe('2023–2025');
    const unit = { id: '1', name: 'x', said: 3, heard: 4, share: 0.75, share90: [0.3456, 0.9444] as [number, number] };
    expect(shareWords(unit)).toBe('3 of 4 answers: 75 % (35–94 %)');
    expect(shareWords({ ...unit, said: 6, share: 1 })).toBe('6× in 4 answers: 100 % (35–94 %)');
    expect(shareWords({ ...unit, share: null, share90: null })).toBe('said 3×; nobody was asked for words of it');
  });
});
