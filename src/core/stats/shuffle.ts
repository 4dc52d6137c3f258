import { seededBits, uniform } from './random';

/**
 * A random order (Fisher & Yates, in Durstenfeld's form), the same for the same seed on every machine.
 *
 * @param items - stay as they are
 * @param seed - any text
 * @returns a new list
 */
export function shuffled<T>(items: readonly T[], seed: string): T[] {
  const bits = seededBits(seed);
  const order = [...items];
  for (let i = order.length - 1; i > 0; i--) {
    const j = Math.floor(uniform(bits) * (i + 1));
    [order[i], order[j]] = [order[j], order[i]];
  }
  return order;
}
