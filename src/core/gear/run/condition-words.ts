import { formatNumber } from '../../measure/figure-text';
import { quantity } from '../../measure/registry';
import type { GridRow } from './condition-grid';

/** Below this, chance alone would seldom give so large a difference (common practice: one in twenty). */
const MORE_THAN_REPEATS = 0.05;

/**
 * How much a figure depends on what was varied, a sentence for each: "by voice 3.1 dB: Ada −62.0, Bo −58.9; more than
 * repeats (p = 0.003)".
 *
 * @param row - of a grid of conditions
 */
export function effectWords(row: Pick<GridRow, 'quantity' | 'effects'>): string[] {
  const { quantity: id, effects } = row;
  const { unit, decimals } = quantity(id);
  const text = (value: number): string => formatNumber(value, decimals);
  // A difference of levels has no reference any more.
  const between = unit.startsWith('dB') ? 'dB' : unit;
  return effects.map(({ factor, lowest, highest, p }) => {
    const range = `${text(highest.value - lowest.value)} ${between}`;
    return `by ${factor} ${range}: ${lowest.of} ${text(lowest.value)}, ${highest.of} ${text(highest.value)}; ${againstRepeats(p)}`;
  });
}

function againstRepeats(p: number | null): string {
  if (p === null) return 'nothing was repeated, so whether that is more than repeats do is not known';
  const chance = p < 0.001 ? 'p < 0.001' : `p = ${p.toFixed(p < 0.1 ? 3 : 2)}`;
  return p <= MORE_THAN_REPEATS ? `more than repeats (${chance})` : `not more than repeats (${chance})`;
}
