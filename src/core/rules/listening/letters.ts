/**
 * The letter under which something is offered, by its place: it says nothing of what it is.
 *
 * @param place - 0 for the first, up to 25
 *
 * @example
 *   letterOf(2); // => 'C'
 */
export const letterOf = (place: number): string => String.fromCharCode(65 + place);

/**
 * What stands under a letter.
 *
 * @param things - in the order of their letters
 * @param letter - one of A to Z
 * @returns null for a letter that none of them has, and for what is no letter
 *
 * @example
 *   atLetter(['x', 'y'], 'B'); // => 'y'
 */
export function atLetter<T>(things: readonly T[], letter: string): T | null {
  return /^[A-Z]$/.test(letter) ? (things.at(letter.charCodeAt(0) - 65) ?? null) : null;
}

/** Letters of things, in their order. */
export const lettersOf = (things: readonly unknown[]): string[] => things.map((_, place) => letterOf(place));
