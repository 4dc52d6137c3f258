import { atLetter } from '#core/rules/listening/letters';
import type { PanelEntry, PanelNote } from '#contracts/live-panel';
import { putIn } from '../put-in';

/** An entry of a panel’s journal, with its number, who it is of, and when it was made. */
export interface KeptEntry {
  readonly id: string;
  readonly sitting: string | null;
  /** ISO 8601. */
  readonly at: string;
  readonly entry: PanelEntry;
}

/** Something that is heard together, once: a heat, or one more that is put into a table. */
export interface PanelTurn {
  /** 1 for the first. */
  readonly number: number;
  readonly kind: 'heat' | 'place';
  readonly round: number;
  readonly isFinal: boolean;
  readonly again: number | null;
  readonly into: number | null;
  /** By their letters: the first is A. Of a place, the table and then the one that is put in. */
  readonly items: readonly string[];
  readonly status: 'open' | 'closed' | 'dropped';
  readonly reason: string | null;
  readonly openedAt: string;
  /** Letter that is on. */
  readonly now: string | null;
  readonly heard: Readonly<Partial<Record<string, number>>>;
  /** Not met yet. */
  readonly wishes: readonly { readonly letter: string; readonly sitting: string | null }[];
  /** Items best first, by the sitting that gave the order. */
  readonly orders: ReadonlyMap<string, readonly string[]>;
}

/** A panel as its journal says it is. */
export interface PanelState {
  readonly turns: readonly PanelTurn[];
  /** Oldest first. */
  readonly notes: readonly PanelNote[];
  /** How much has happened; of two answers to one page, the one of which more is known is the newer. */
  readonly length: number;
  /** The same, as far as one who listens may know it: what was led, and what they did themselves. */
  readonly lengthFor: (sitting: string | null) => number;
}

/** What listeners see happen. */
const LED: ReadonlySet<PanelEntry['kind']> = new Set(['heat', 'place', 'now', 'closed', 'dropped']);

/** The turn that is being heard; null between turns. */
export const openTurn = ({ turns }: PanelState): PanelTurn | null => turns.find((t) => t.status === 'open') ?? null;

/** Reads a journal from its first entry to its last. */
export function panelState(entries: readonly KeptEntry[]): PanelState {
  const takenBack = new Set(entries.flatMap(({ entry }) => (entry.kind === 'taken-back' ? [entry.entry] : [])));
  let turns: PanelTurn[] = [];
  const notes: PanelNote[] = [];
  const change = (by: (turn: PanelTurn) => Partial<PanelTurn>): void => {
    turns = turns.map((turn) => (turn.status === 'open' ? { ...turn, ...by(turn) } : turn));
  };
  for (const { id, sitting, at, entry } of entries)
    switch (entry.kind) {
      case 'heat':
      case 'place':
        turns = [...turns, opened(entry, turns.length + 1, at)];
        break;
      case 'now':
        change((turn) => heardNow(turn, entry.letter));
        break;
      case 'wish':
        change(({ wishes }) =>
          wishes.some((w) => w.letter === entry.letter && w.sitting === sitting)
            ? {}
            : { wishes: [...wishes, { letter: entry.letter, sitting }] },
        );
        break;
      case 'order':
        change((turn) => ordered(turn, sitting, itemsOfLetters(turn, entry.letters)));
        break;
      case 'placed':
        change((turn) => ordered(turn, sitting, putIn(turn.items.slice(0, -1), turn.items.at(-1) ?? '', entry.at)));
        break;
      case 'closed':
        change(() => ({ status: 'closed', now: null, wishes: [] }));
        break;
      case 'dropped':
        change(() => ({ status: 'dropped', reason: entry.reason, now: null, wishes: [] }));
        break;
      case 'said': {
        const item = atLetter(turns.find((t) => t.number === entry.turn)?.items ?? [], entry.letter);
        const { turn, letter, words, free, clipS } = entry;
        if (item !== null && !takenBack.has(id))
          notes.push({ entry: id, at, sitting, turn, letter, item, words, free, clipS });
        break;
      }
      case 'taken-back':
        break;
    }
  return {
    turns,
    notes,
    length: entries.length,
    lengthFor: (sitting) => entries.filter((e) => LED.has(e.entry.kind) || (sitting !== null && e.sitting === sitting)).length, // prettier-ignore
  };
}

function opened(entry: PanelEntry & { kind: 'heat' | 'place' }, number: number, at: string): PanelTurn {
  const isHeat = entry.kind === 'heat';
  return {
    number,
    kind: entry.kind,
    round: entry.round,
    isFinal: isHeat && entry.isFinal,
    again: isHeat ? entry.again : null,
    into: isHeat ? null : entry.into,
    items: isHeat ? entry.items : [...entry.table, entry.item],
    status: 'open',
    reason: null,
    openedAt: at,
    now: null,
    heard: {},
    wishes: [],
    orders: new Map(),
  };
}

/** A letter is on: who wished to hear it again, does. */
function heardNow(turn: PanelTurn, letter: string | null): Partial<PanelTurn> {
  if (letter === null) return { now: null };
  return {
    now: letter,
    heard: { ...turn.heard, [letter]: (turn.heard[letter] ?? 0) + 1 },
    wishes: turn.wishes.filter((w) => w.letter !== letter),
  };
}

const ordered = ({ orders }: PanelTurn, sitting: string | null, items: readonly string[]): Partial<PanelTurn> =>
  sitting === null ? {} : { orders: new Map([...orders, [sitting, items]]) };

const itemsOfLetters = ({ items }: PanelTurn, letters: readonly string[]): string[] =>
  letters.flatMap((letter) => atLetter(items, letter) ?? []);
