import { drawHeats } from '#core/rules/listening/heats';
import { shuffled } from '#core/stats/shuffle';
import type { PanelEntry, PanelOffers } from '#contracts/live-panel';
import { openTurn, type PanelState } from './panel-state';
import { panelTables, type PanelTable } from './panel-tables';

/** What of a panel decides who is heard next. */
export interface PanelRules {
  /** Items that are compared. */
  readonly items: readonly string[];
  readonly heatSize: number;
  readonly goOn: number;
}

/** A table holds no more: nobody keeps them apart. */
export const MOST_IN_TABLE = 11;

/** Nothing may follow: something is being heard, or the panel is over. */
export const NO_OFFERS: PanelOffers = { heat: null, lone: null, again: [], place: [], isDecided: false };

/** What may follow now; nothing while a turn is being heard. */
export function panelOffers(state: PanelState, rules: PanelRules): PanelOffers {
  if (openTurn(state) !== null) return NO_OFFERS;
  const tables = panelTables(state);
  const { round, left, isFirst, isDecided } = comingRound(tables, rules);
  const groups = groupsOf(left, isFirst, rules, '');
  const place = tables.map((table) => ({
    into: table.turn,
    items:
      table.rows.length >= MOST_IN_TABLE
        ? []
        : rules.items.filter((item) => !table.rows.some((row) => row.item === item)),
  }));
  return {
    heat:
      left.length > 1
        ? { round, left: left.length, size: groups[0].length, isFinal: isFirst && groups.length === 1 }
        : null,
    lone: left.length === 1 ? left[0] : null,
    again: tables.map((t) => t.turn),
    place: place.filter((p) => p.items.length > 0),
    isDecided,
  };
}

/** Draws the heat that {@link panelOffers} offers; the order in which its items are heard is drawn as well. */
export function drawnHeat(state: PanelState, rules: PanelRules, secret: string): PanelEntry & { kind: 'heat' } {
  const { round, left, isFirst } = comingRound(panelTables(state), rules);
  const groups = groupsOf(left, isFirst, rules, secret);
  return {
    kind: 'heat',
    items: shuffled(groups[0], `${secret}/order`),
    round,
    isFinal: isFirst && groups.length === 1,
    again: null,
  };
}

/**
 * Heats of those that are left. Of one more than a heat holds, a full heat is heard, and the last one then goes into its
 * table: where does the fifth go among four? All others are divided evenly.
 */
function groupsOf(left: readonly string[], isFirst: boolean, { heatSize }: PanelRules, secret: string): string[][] {
  if (!isFirst || left.length !== heatSize + 1) return drawHeats(left, heatSize, 'random', secret);
  const drawn = shuffled(left, secret);
  return [drawn.slice(0, heatSize), drawn.slice(heatSize)];
}

/** The same items once more, under other letters: whoever remembers letters remembers nothing. */
export function drawnAgain(state: PanelState, number: number, secret: string): PanelEntry & { kind: 'heat' } {
  const { items, round, isFinal } = state.turns[number - 1];
  let order = shuffled(items, secret);
  for (let i = 1; order.every((item, at) => item === items[at]); i++) order = shuffled(items, `${secret}/${i}`);
  return { kind: 'heat', items: order, round, isFinal, again: number };
}

/** Who is still to be heard in the round that is going on, or in the next. */
function comingRound(
  tables: readonly PanelTable[],
  rules: PanelRules,
): { round: number; left: readonly string[]; isFirst: boolean; isDecided: boolean } {
  const last = Math.max(1, ...tables.map((t) => t.round));
  let candidates: readonly string[] = rules.items;
  for (let round = 1; round <= last; round++) {
    const own = tables.filter((t) => t.round === round);
    // Who came late may have been put straight into a later table.
    const heard = new Set(tables.filter((t) => t.round >= round).flatMap((t) => t.rows.map((r) => r.item)));
    const left = candidates.filter((item) => !heard.has(item));
    if (left.length > 0) return { round, left, isFirst: own.length === 0, isDecided: false };
    if (own.length <= 1) return { round, left: [], isFirst: false, isDecided: own.length === 1 };
    candidates = whoGoesOn(own, candidates.length, rules.goOn);
  }
  return { round: last + 1, left: candidates, isFirst: true, isDecided: false };
}

/** The first of each table, or as many as go on; all who share the last place that goes on. */
function whoGoesOn(tables: readonly PanelTable[], candidates: number, goOn: number): string[] {
  const firsts = (places: number): string[] =>
    tables.flatMap((t) => t.rows.filter((r) => r.place <= places).map((r) => r.item));
  const chosen = firsts(goOn);
  // A round from which everybody goes on would never end.
  return chosen.length < candidates ? chosen : firsts(1);
}
