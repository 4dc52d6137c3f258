import { shuffled } from '../../stats/shuffle';

/** How clips are put into heats. */
export type Seeding = 'random' | 'seeded';

/** How many heats so many things make: of one alone there is none, whoever is left over joins another. */
const heatsOf = (things: number, size: number): number =>
  Math.max(1, Math.min(Math.ceil(things / size), Math.floor(things / 2)));

/**
 * Splits things into heats of about one size, never of one alone: of an odd number in twos, three meet in one heat.
 *
 * @param ids - things; for seeded heats, strongest first
 * @param size - wanted, 2–6
 * @param seeding - random, or the strong spread over all heats by walking to and fro
 * @param seed - of the chance
 */
export function drawHeats<T>(ids: readonly T[], size: number, seeding: Seeding, seed: string): T[][] {
  if (ids.length <= size) return [[...ids]];
  const count = heatsOf(ids.length, size);
  const heats: T[][] = Array.from({ length: count }, () => []);
  const order = seeding === 'random' ? shuffled(ids, seed) : ids;
  order.forEach((id, i) => {
    const round = Math.floor(i / count);
    heats[round % 2 === 0 ? i % count : count - 1 - (i % count)].push(id);
  });
  return heats;
}

/**
 * Who meets next: the winners of a round, again in heats while they are more than one heat.
 *
 * @param orders - of the round that was answered, each best first
 * @param size - of a heat
 * @param seed - of the chance
 * @returns the heats of the next round; none after a final
 */
export function nextRound<T>(orders: readonly (readonly T[])[], size: number, seed: string): T[][] {
  if (orders.length <= 1) return [];
  return drawHeats(
    orders.map((order) => order[0]),
    size,
    'random',
    seed,
  );
}

/**
 * How many heats a test has in all, its later rounds included.
 *
 * @param things - how many
 * @param size - of a heat
 */
export function heatCount(things: number, size: number): number {
  const heats = heatsOf(things, size);
  return heats === 1 ? 1 : heats + heatCount(heats, size);
}
