/** An answer to a question of a placing, as it is sent. */
export interface SentAnswer {
  /** Best first. */
  readonly order: readonly string[];
  /** In the order in which the clips were offered. */
  readonly offered: readonly string[];
  readonly isTie: boolean;
  /** What the level match left of each clip, in LU, in the order in which they were offered. */
  readonly residualsLu: readonly number[];
}

/** The answer as it is kept: a pair as it was offered with its outcome, an order as it was answered. */
export interface PlacedAnswer {
  readonly specimens: readonly string[];
  /** Null for an order. */
  readonly outcome: 1 | 0.5 | 0 | null;
  readonly tiesAllowed: boolean;
  /** Place of hearing, residual level, and whether a name was shown. */
  readonly circumstances: readonly (readonly [number, number, 0 | 1])[];
}

/**
 * What an answer to a question of a placing says, or why it says nothing.
 *
 * @param specimenId - the unit that is placed
 * @param sent - the answer
 */
export function placedAnswer(specimenId: string, sent: SentAnswer): PlacedAnswer | { readonly refusal: string } {
  const { order, offered, isTie, residualsLu } = sent;
  const isSame = new Set([...order, ...offered]).size === order.length;
  if (!isSame || offered.length !== order.length || !order.includes(specimenId))
    return { refusal: 'The answer has to order the clips that were offered, this unit among them.' };
  if (isTie && order.length !== 2) return { refusal: 'Only a pair can be left undecided.' };
  const isPair = order.length === 2;
  const specimens = isPair ? offered : order;
  return {
    specimens,
    outcome: !isPair ? null : isTie ? 0.5 : order[0] === offered[0] ? 1 : 0,
    tiesAllowed: isPair,
    circumstances: specimens.map((id) => {
      const place = offered.indexOf(id);
      return [place, residualsLu.at(place) ?? 0, 0] as const;
    }),
  };
}
