import { bestAssociation, type HeldAgainst } from '#core/stats/best-association';

/** Order to a worker: which figure goes best with how often a word is said. */
export interface AssociateWordTask {
  readonly shares: readonly number[];
  readonly figures: readonly HeldAgainst<string>[];
  readonly seed: string;
}

export default ({ shares, figures, seed }: AssociateWordTask) => bestAssociation(shares, figures, seed);
