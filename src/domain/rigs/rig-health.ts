import { scatterBetween } from '#core/measure/another-reading';
import { isQuantity, quantity, type QuantityId } from '#core/measure/registry';
import { comparableFigure } from '#core/rules/comparability';
import { agreement, type Agreement, type ControlFigure } from '#core/rules/rig-agreement';
import { mean } from '#core/stats/moments';
import { roleOf, type Protocol } from '#contracts/protocol';
import type { RigHealth } from '#contracts/rig';

/** A figure of a control unit, exact, on one day. */
export interface ControlFigureRow {
  readonly day: string;
  readonly run_id: string;
  readonly purpose: 'opening' | 'unit' | 'closing';
  readonly rig: string | null;
  readonly rig_id: string | null;
  readonly quantity: string;
  readonly value: number;
  readonly uncertainty: number | null;
  readonly protocol: string;
  readonly protocol_version: number;
}

/** Decibels only: frequencies and angles move in jumps. */
const isLevel = (id: string): id is QuantityId => isQuantity(id) && /dB|LU/.test(quantity(id).unit);

/**
 * What the figures of a control unit say of the rig on one day: each held against the same figure of earlier days, on
 * this rig where it has a history of its own.
 *
 * @param rows - all of the unit, oldest first
 * @param today - those of the day, at least one
 * @param rigId - the rig of that day
 * @param protocols - all versions of all protocols
 */
export function rigHealth(
  rows: readonly ControlFigureRow[],
  today: readonly ControlFigureRow[],
  rigId: string,
  protocols: readonly Protocol[],
): Pick<RigHealth, 'verdict' | 'note' | 'figures' | 'drift'> {
  const day = today[0].day;
  const earlier = rows.filter((r) => r.day < day);
  const hasOwn = earlier.some((r) => r.rig_id === rigId);
  const history = hasOwn ? earlier.filter((r) => r.rig_id === rigId) : earlier;
  const ids = [...new Set(today.map((r) => r.quantity))].filter(isLevel);
  const pairs = ids.map((id) => {
    const now = today.filter((r) => r.quantity === id);
    return { id, now, comparable: history.filter((r) => r.quantity === id && isComparable(r, now[0], id, protocols)) };
  });
  const judgedTogether = pairs.filter((p) => p.comparable.length > 0).length;
  const figures = pairs.map(({ id, now, comparable }) => {
    const days = [...new Set(comparable.map((r) => r.day))].map((d) =>
      meanFigure(comparable.filter((r) => r.day === d)),
    );
    const expected = scatterBetween(id, now[0].value, null);
    return {
      quantity: id,
      ...agreement(days, meanFigure(now), { expected, figures: judgedTogether }),
      history: comparable.map((r) => ({ day: r.day, rig: r.rig, value: r.value })),
    };
  });
  const judged = figures.filter((f) => f.verdict !== 'no-history');
  const off = judged.filter((f) => f.verdict === 'off').length;
  const verdict = judged.length === 0 ? 'no-history' : off > 0 ? 'off' : 'agrees';
  return { verdict, note: noteOf(judged.length, off, hasOwn, history), figures, drift: driftOf(today, figures) };
}

function noteOf(judged: number, off: number, hasOwn: boolean, history: readonly ControlFigureRow[]): string {
  if (judged === 0)
    return 'The control unit has no history yet; from the next session on it tells whether the rig has changed.';
  const days = new Set(history.map((h) => h.day)).size;
  const base = `${off} of ${judged} figures of the control unit lie outside the limits that ${days} earlier ${days === 1 ? 'session gives' : 'sessions give'}; a rig that has not changed is called off once in 20 sessions, over all ${judged} figures together`;
  return hasOwn
    ? `${base}.`
    : `${base}. This is the first session of a changed rig: what is off is what the change did.`;
}

function isComparable(
  a: ControlFigureRow,
  b: ControlFigureRow,
  id: QuantityId,
  protocols: readonly Protocol[],
): boolean {
  const find = (r: ControlFigureRow): Protocol | undefined =>
    protocols.find((p) => p.id === r.protocol && p.version === r.protocol_version);
  const [from, to] = [find(a), find(b)];
  if (!from || !to) return false;
  const roles = quantity(id).steps;
  return comparableFigure(protocols, from, to, (s) => roles.includes(roleOf(s as Protocol['steps'][number])))
    .comparable;
}

function meanFigure(rows: readonly ControlFigureRow[]): ControlFigure {
  const uncertainties = rows.map((r) => r.uncertainty).filter((u) => u !== null);
  return {
    value: mean(rows.map((r) => r.value)),
    uncertainty: uncertainties.length === 0 ? null : mean(uncertainties) / Math.sqrt(rows.length),
  };
}

/** What changed between opening and closing of one day. */
function driftOf(
  today: readonly ControlFigureRow[],
  figures: readonly (Agreement & { quantity: string })[],
): RigHealth['drift'] {
  return figures.flatMap(({ quantity: id, limit }) => {
    const at = (purpose: string): ControlFigureRow | undefined =>
      today.find((r) => r.quantity === id && r.purpose === purpose);
    const [opening, closing] = [at('opening'), at('closing')];
    return opening && closing && limit !== null
      ? [{ quantity: id, opening: opening.value, closing: closing.value, limit }]
      : [];
  });
}
