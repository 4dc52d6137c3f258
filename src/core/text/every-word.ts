/**
 * Whether a text holds every word that was typed, in any order and in either case; nothing typed finds everything.
 *
 * @example
 * hasEveryWord('Oarlock Purser · A', 'purs OAR') // → true
 * @example
 * hasEveryWord('Oarlock Purser · A', 'purser winch') // → false
 */
export function hasEveryWord(text: string, typed: string): boolean {
  const found = text.toLowerCase();
  return typed
    .toLowerCase()
    .split(/\s+/)
    .every((word) => found.includes(word));
}
