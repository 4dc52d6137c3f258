/**
 * A sentence begins with a capital letter; the rest stays as it is.
 *
 * @param text - of any length
 */
export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
