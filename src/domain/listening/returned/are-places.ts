/** Whether numbers are 1, 2, 3 … each once: then they may be places, of which 1 is the best. */
export const arePlaces = (numbers: readonly number[]): boolean =>
  numbers.length > 1 && [...numbers].sort((a, b) => a - b).every((n, i) => n === i + 1);
