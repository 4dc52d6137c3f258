import { letterOf, lettersOf } from '#core/rules/listening/letters';
import type { PanelSeat } from '#contracts/live-panel';
import { turnTitle } from './panel-refusal';
import { openTurn, type PanelState } from './panel-state';

/** Whose page it is, and what it says beside the turn. */
export interface SeatOf {
  readonly question: string;
  readonly isOpen: boolean;
  /** Null for the screen in the room. */
  readonly sitting: { readonly id: string; readonly name: string } | null;
}

/** What listeners see of a panel: letters. Nothing of who is behind them, and nothing of what others say. */
export function seatView(state: PanelState, { question, isOpen, sitting }: SeatOf): PanelSeat {
  const turn = isOpen ? openTurn(state) : null;
  const own = sitting === null ? undefined : turn?.orders.get(sitting.id);
  return {
    question,
    listener: sitting?.name ?? null,
    isOpen,
    length: state.lengthFor(sitting?.id ?? null) + (isOpen ? 0 : 1),
    turn:
      turn === null
        ? null
        : {
            number: turn.number,
            kind: turn.kind,
            title: turnTitle(turn, state),
            letters: lettersOf(turn.items),
            now: turn.now,
            order: own?.map((item) => letterOf(turn.items.indexOf(item))) ?? null,
            wishes: turn.wishes.flatMap((w) => (sitting !== null && w.sitting === sitting.id ? [w.letter] : [])),
            notes: state.notes
              .filter((n) => sitting !== null && n.sitting === sitting.id && n.turn === turn.number)
              .map(({ entry, letter, words, free }) => ({ entry, letter, words, free })),
          },
  };
}
