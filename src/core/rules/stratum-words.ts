import type { RankedUnit } from './rank';

/** Never 100: draws are few. */
const percent = (p: number): string => `${Math.min(99, Math.floor(100 * p))} %`;

/**
 * What a stratum is, computed from the figures beside it: the rule holds its first unit against the first of the one
 * before; of neighbours it says only what their own probability says.
 *
 * @param ranked - best first
 * @param stratum - number
 */
export function stratumWords(ranked: readonly RankedUnit[], stratum: number): string {
  const members = ranked.filter((u) => u.stratum === stratum);
  const last = members.at(-1);
  if (!last) return '';
  const count = members.length === 1 ? 'One unit' : `${members.length} units`;
  const hasNext = ranked.some((u) => u.place === last.place + 1);
  const who = members.length === 1 ? 'it' : 'the last of them';
  return hasNext && last.beatsNext !== null
    ? `${count}; ${who} beats the next one down with ${percent(last.beatsNext)}`
    : count;
}

/**
 * How a unit stands to the one above and to the one below, each by their own probability.
 *
 * @param unit - in question
 * @param ranked - best first
 * @param nameOf - of a unit
 */
export function neighbourWords(
  unit: RankedUnit,
  ranked: readonly RankedUnit[],
  nameOf: (id: string) => string,
): string[] {
  const sentences: string[] = [];
  const above = ranked.find((u) => u.place === unit.place - 1);
  const below = ranked.find((u) => u.place === unit.place + 1);
  if (above && above.beatsNext !== null)
    sentences.push(`The next one up, ${nameOf(above.id)}, beats it with a probability of ${percent(above.beatsNext)}.`);
  if (below && unit.beatsNext !== null)
    sentences.push(
      `It beats the next one down, ${nameOf(below.id)}, with a probability of ${percent(unit.beatsNext)}.`,
    );
  return sentences;
}
