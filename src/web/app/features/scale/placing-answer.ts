/**
 * An answer to a question of placing, best first, by the letters under which clips are offered.
 *
 * @param codes - letters of the offer, in its order
 * @param preferred - of a pair; null for no preference
 */
export function pairAnswer(
  codes: readonly string[],
  preferred: string | null,
): { codes: readonly string[]; isTie: boolean } {
  if (preferred === null) return { codes, isTie: true };
  return { codes: [preferred, ...codes.filter((c) => c !== preferred)], isTie: false };
}

/** Adds a letter to an order, or takes it out again. */
export const toggledInOrder = (order: readonly string[], code: string): readonly string[] =>
  order.includes(code) ? order.filter((c) => c !== code) : [...order, code];

/** Units behind letters, in the order of the letters. */
export const specimensOf = (
  codes: readonly string[],
  offered: readonly { readonly code: string; readonly specimenId: string }[],
): string[] => codes.flatMap((code) => offered.find((o) => o.code === code)?.specimenId ?? []);
