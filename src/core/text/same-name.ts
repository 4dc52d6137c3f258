/**
 * Whether a name that was typed is meant to be another one: capitals, blanks and signs between the words do not count, so
 * that a point between the parts need not be found on the keyboard.
 *
 * @param typed - as typed
 * @param name - as it is written
 *
 * @example
 *   isSameName('oarlock purser a', 'Oarlock Purser · A'); // => true
 * @example
 *   isSameName('oarlock purser', 'Oarlock Purser · A'); // => false
 */
export function isSameName(typed: string, name: string): boolean {
  return wordsOf(typed) === wordsOf(name);
}

const wordsOf = (text: string): string =>
  text
    .normalize('NFKC')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}+#]+/gu, ' ')
    .trim();
