import { lettersOf } from '#core/rules/listening/letters';
import type { PanelNote, PanelOffers, PanelPage, PanelTableRow, PanelTurnPage } from '#contracts/live-panel';

/** What drawing the next heat means. */
export function drawWords({ size, left, round, isFinal }: NonNullable<PanelOffers['heat']>): string {
  if (isFinal) return round === 1 ? `Draw the order: all ${size} in one heat` : `Draw the final: ${size} meet`;
  const who = round === 1 ? 'that were not heard yet' : 'that go on';
  return size === left ? `Draw a heat of ${size}` : `Draw a heat: ${size} of the ${left} ${who}`;
}

/** What whoever closes a turn may not have meant. */
export function closingDoubts(turn: PanelTurnPage, listeners: PanelPage['listeners'], isPlayed: boolean): string[] {
  const missing = listeners.filter((l) => !l.isOut && !turn.orders.some((o) => o.sitting === l.sitting));
  const unheard = lettersOf(turn.items).filter((letter) => (turn.heard[letter] ?? 0) === 0);
  return [
    ...(missing.length > 0 ? [`no order from ${missing.map((l) => l.name).join(', ')}`] : []),
    ...(isPlayed && unheard.length > 0
      ? [`${unheard.join(', ')} ${unheard.length === 1 ? 'was' : 'were'} never on`]
      : []),
    ...(turn.wishes.length > 0 ? [`${[...new Set(turn.wishes.map((w) => w.letter))].join(', ')} asked for again`] : []),
  ];
}

/** When something was said: by the clock of the room, and where in the clip. */
export function noteMoment({ at, clipS }: Pick<PanelNote, 'at' | 'clipS'>): string {
  const clock = new Date(at).toLocaleTimeString('en-GB', { hour12: false });
  return clipS === null ? clock : `${clock}, ${clipS.toFixed(1)} s into it`;
}

/** A place in a table, shared ones said to be. */
export function placeText(row: PanelTableRow, rows: readonly PanelTableRow[]): string {
  return rows.filter((r) => r.place === row.place).length > 1 ? `${row.place}=` : String(row.place);
}

/** Why a mean place is there, or is not. */
export const meanText = ({ meanPlace }: PanelTableRow): string =>
  meanPlace === null ? 'put in' : `mean ${meanPlace.toFixed(1)}`;
