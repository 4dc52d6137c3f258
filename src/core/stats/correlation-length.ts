import { mean } from './moments';

/** Lags are followed to at most this share of the values: beyond it there is too little to tell. */
const LONGEST_SHARE = 1 / 4;

/**
 * How many successive values hang together: 1 + 2·Σ ρₖ, by which the variance of a mean exceeds that of independent
 * values. The sum ends before the first sum of two neighbouring lags that is not positive (initial positive sequence,
 * Geyer, Statistical Science 7, 1992).
 *
 * @param values - in the order of time
 * @returns 1 or more; 1 for fewer than four values, or equal ones
 */
export function correlationLength(values: readonly number[]): number {
  const count = values.length;
  if (count < 4) return 1;
  const middle = mean(values);
  const rest = values.map((v) => v - middle);
  const power = rest.reduce((s, r) => s + r * r, 0);
  if (power === 0) return 1;
  const correlation = (lag: number): number => {
    let sum = 0;
    for (let i = lag; i < count; i++) sum += rest[i] * rest[i - lag];
    return sum / power;
  };
  let length = 1;
  for (let lag = 1; lag + 1 <= LONGEST_SHARE * count; lag += 2) {
    const pair = correlation(lag) + correlation(lag + 1);
    if (pair <= 0) break;
    length += 2 * pair;
  }
  return length;
}
