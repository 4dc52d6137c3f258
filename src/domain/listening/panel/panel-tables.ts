import type { PanelTableRow } from '#contracts/live-panel';
import { putIn } from '../put-in';
import type { PanelState, PanelTurn } from './panel-state';

/** The running table of one heat: who stands where among those that were heard together. */
export interface PanelTable {
  /** The heat that it began with. */
  readonly turn: number;
  readonly round: number;
  readonly rows: readonly PanelTableRow[];
}

/**
 * A table for each heat that was closed. Its places are by the mean over all orders, those of a second hearing
 * included; equal means share a place. Whoever was put in later stands where the middle one of the listeners put it.
 *
 * @param leftOut - sittings whose orders do not count any more; where all of a turn are, its table stays as it was heard
 */
export function panelTables(
  { turns }: Pick<PanelState, 'turns'>,
  leftOut: ReadonlySet<string> = new Set(),
): PanelTable[] {
  const closed = turns.filter((t) => t.status === 'closed').map((t) => withoutOrders(t, leftOut));
  return closed
    .filter((t) => t.kind === 'heat' && t.again === null)
    .map((heat) => {
      const hearings = closed.filter((t) => t.number === heat.number || t.again === heat.number);
      const means = byMeanPlace(hearings.flatMap((t) => [...t.orders.values()]));
      const rows = closed.filter((t) => t.into === heat.number).reduce(withPlaced, means);
      return { turn: heat.number, round: heat.round, rows };
    });
}

function withoutOrders(turn: PanelTurn, leftOut: ReadonlySet<string>): PanelTurn {
  const orders = new Map([...turn.orders].filter(([sitting]) => !leftOut.has(sitting)));
  return orders.size === 0 ? turn : { ...turn, orders };
}

/** Items by their mean place in orders of the same items, equal ones sharing theirs. */
export function byMeanPlace(orders: readonly (readonly string[])[]): PanelTableRow[] {
  const items = orders.at(0) ?? [];
  const means = items
    // Sums are whole numbers: equal ones are equal.
    .map((item) => ({ item, sum: orders.reduce((sum, order) => sum + order.indexOf(item) + 1, 0) }))
    .sort((a, b) => a.sum - b.sum);
  return means.map(({ item, sum }) => ({
    item,
    place: means.findIndex((m) => m.sum === sum) + 1,
    meanPlace: sum / orders.length,
  }));
}

/**
 * Where listeners put one more: the middle of their places. Of an even number the one further down, where the two in
 * the middle differ: a newcomer has to earn its place. Common practice, no source.
 */
export function middlePlace(turn: Pick<PanelTurn, 'items' | 'orders'>): number {
  const item = turn.items.at(-1) ?? '';
  const places = [...turn.orders.values()].map((order) => order.indexOf(item)).sort((a, b) => a - b);
  return places.at(Math.floor(places.length / 2)) ?? turn.items.length - 1;
}

/** Behind the same one as in the table that was heard, wherever that stands today. */
function withPlaced(rows: readonly PanelTableRow[], turn: PanelTurn): PanelTableRow[] {
  const item = turn.items.at(-1) ?? '';
  const before = turn.items.slice(0, -1).at(middlePlace(turn) - 1);
  const isFirst = middlePlace(turn) === 0;
  const at = isFirst ? 0 : rows.findIndex((r) => r.item === before) + 1;
  const order = putIn(
    rows.map((r) => r.item),
    item,
    at,
  );
  // Who shared a place before still does, where nobody stands between them now.
  let place = 0;
  return order.map((id, i) => {
    const [own, last] = [rows.find((r) => r.item === id), rows.find((r) => r.item === order[i - 1])];
    if (!(own && last && own.place === last.place)) place = i + 1;
    return { item: id, place, meanPlace: own?.meanPlace ?? null };
  });
}
