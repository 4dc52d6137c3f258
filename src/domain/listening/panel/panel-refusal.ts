import { lettersOf } from '#core/rules/listening/letters';
import type { PanelCommand } from '#contracts/live-panel';
import { panelOffers, type PanelRules } from './panel-offers';
import { openTurn, type PanelState, type PanelTurn } from './panel-state';

/** Who asks, and what else the panel knows. */
export interface PanelCircle {
  readonly rules: PanelRules;
  /** Sittings of the panel. */
  readonly sittings: readonly string[];
  /** Of a listener’s own page: nothing of others is theirs to change. Null for the one who leads. */
  readonly own: string | null;
}

const NO_TURN = 'Nothing is being heard at the moment.';

/**
 * Why something cannot be done in a panel now; null where it can.
 *
 * @param state - as the journal says
 * @param command - what is asked for
 * @param circle - who asks, and of what panel
 */
export function panelRefusal(state: PanelState, command: PanelCommand, circle: PanelCircle): string | null {
  const turn = openTurn(state);
  switch (command.kind) {
    case 'heat':
    case 'again':
    case 'place':
      return turn === null
        ? notOffered(state, command, circle.rules)
        : `${turnTitle(turn, state)} is not closed yet: close it, or leave it out, first.`;
    case 'now':
      return turn === null ? NO_TURN : command.letter === null ? null : noSuchLetter(turn, command.letter);
    case 'wish':
      return turn === null ? NO_TURN : (strange(command.sitting, circle) ?? noSuchLetter(turn, command.letter));
    case 'order':
    case 'placed':
      return turn === null ? 'This turn is closed: its orders stand.' : (strange(command.sitting, circle) ?? unfit(turn, command)); // prettier-ignore
    case 'said': {
      const about = state.turns.find((t) => t.number === command.turn && t.status !== 'dropped');
      if (!about) return 'There is no such turn.';
      if (command.words.length === 0 && command.free === '') return 'Nothing was said.';
      return strange(command.sitting, circle) ?? noSuchLetter(about, command.letter);
    }
    case 'take-back': {
      const note = state.notes.find((n) => n.entry === command.entry);
      if (!note) return 'There is no such note, or it was taken back already.';
      return circle.own === null || note.sitting === circle.own ? null : 'This was said by somebody else.';
    }
    case 'close':
      if (turn === null) return NO_TURN;
      return turn.orders.size > 0
        ? null
        : 'Nobody has given an order yet. If it is not to count, leave the turn out, with a reason.';
    case 'drop':
      return turn === null ? NO_TURN : null;
    case 'take':
      return circle.rules.items.includes(command.item) ? null : 'This unit is not in the panel.';
    case 'came':
    case 'add':
      return null;
  }
}

function notOffered(
  state: PanelState,
  command: PanelCommand & { kind: 'heat' | 'again' | 'place' },
  rules: PanelRules,
): string | null {
  const offers = panelOffers(state, rules);
  if (command.kind === 'again')
    return offers.again.includes(command.turn) ? null : 'Only a heat that was closed can be heard again.';
  if (command.kind === 'place')
    return offers.place.some((p) => p.into === command.into && p.items.includes(command.item))
      ? null
      : 'It stands in this table already, or there is no such table.';
  if (offers.heat !== null) return null;
  return offers.lone === null
    ? 'Everything has been heard: the last heat was the final.'
    : 'One is left over, and there is no heat for one: put it into a table.';
}

function unfit(turn: PanelTurn, command: PanelCommand & { kind: 'order' | 'placed' }): string | null {
  if (command.kind === 'placed') {
    if (turn.kind !== 'place') return 'This turn asks for an order.';
    return command.at < turn.items.length ? null : 'The table has no such place.';
  }
  if (turn.kind !== 'heat') return 'This turn asks for a place in the table.';
  const letters = lettersOf(turn.items);
  return [...command.letters].sort().join() === letters.join()
    ? null
    : `An order names each of ${letters.join(', ')} once.`;
}

const strange = (sitting: string | null, { sittings }: PanelCircle): string | null =>
  sitting === null || sittings.includes(sitting) ? null : 'This listener is not in the panel.';

const noSuchLetter = (turn: PanelTurn, letter: string): string | null =>
  lettersOf(turn.items).includes(letter) ? null : `There is no ${letter} in this turn.`;

const FINAL = 'Final';

/** What a turn is called by those who are there; it says nothing of who is in it. */
export function turnTitle(turn: PanelTurn, { turns }: Pick<PanelState, 'turns'>): string {
  if (turn.again !== null) return `${turnTitle(turns[turn.again - 1], { turns })}, second hearing`;
  const same = turns.filter((t) => t.kind === turn.kind && t.again === null && t.round === turn.round && t.into === turn.into); // prettier-ignore
  // One that was left out gives its number to the next.
  const number = same.filter((t) => t.number <= turn.number && (t.status !== 'dropped' || t === turn)).length;
  if (turn.into !== null) {
    const into = turnTitle(turns[turn.into - 1], { turns });
    return `One more for ${into === FINAL ? 'the final' : into}${number > 1 ? ` (${number})` : ''}`;
  }
  if (turn.isFinal && turn.round > 1) return FINAL;
  return turn.round === 1 ? `Heat ${number}` : `Round ${turn.round}, heat ${number}`;
}
