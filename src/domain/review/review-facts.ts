import type { GearKind } from '#core/gear/gear-kind';
import { figureText, type FigureLike } from '#core/measure/figure-text';
import { isQuantity, quantity, type QuantityId } from '#core/measure/registry';
import type { MeasuredFact, UnitFacts } from '#core/rules/criterion-points';
import type { KindStanding } from '#core/rules/kind-standing';
import type { Rubric } from '#core/rules/rubric';
import type { RankingInputs } from '#contracts/ranking';
import type { House, Proposal } from '#contracts/review';
import type { SpecimenSheet } from '#contracts/specimen';

/** What proposals and editions are made from: a unit, and its kind beside it. */
export interface ReviewFacts {
  readonly sheet: SpecimenSheet;
  readonly kind: GearKind;
  /** Facts of the unit that is reviewed. */
  readonly own: UnitFacts;
  /** Tested units of its kind, itself with them where it is tested. */
  readonly units: readonly UnitFacts[];
  readonly names: RankingInputs['names'];
  /** Null where its kind has no rules. */
  readonly rubric: Rubric | null;
  readonly standing: KindStanding;
}

/** One rule: what it says of a unit. */
export type ProposingRule = (facts: ReviewFacts, house: House) => Proposal[];

/** The other units of the kind. */
export const othersOf = ({ units, own }: Pick<ReviewFacts, 'units' | 'own'>): readonly UnitFacts[] =>
  units.filter((u) => u.id !== own.id);

/** A measured figure with its spread and unit, as it stands in a sentence. */
export function figureWords(id: QuantityId, figure: FigureLike): string {
  const { value, spread, unit } = figureText(id, figure);
  return [value, spread, unit].filter((part) => part !== '').join(' ');
}

/** A name in the middle of a sentence. */
export const inSentence = (id: QuantityId): string => {
  const { name } = quantity(id);
  const [first, second] = name;
  // "THD" stays, "Rear rejection" does not.
  return second !== undefined && second === second.toUpperCase() ? name : first.toLowerCase() + name.slice(1);
};

/** Measured figures of a unit that say something of it, in the order of the registry. */
export const measuredFigures = (unit: UnitFacts): [QuantityId, MeasuredFact][] =>
  Object.entries(unit.figures).flatMap(([id, fact]): [QuantityId, MeasuredFact][] =>
    isQuantity(id) && fact.value !== null && quantity(id).group !== 'recording' ? [[id, fact]] : [],
  );

/**
 * A proposal that is nothing but a line.
 *
 * @param gist - what has to stay the same for the line to stay true; the whole fact where nothing is said
 */
export function plainProposal(
  part: Proposal['part'],
  rule: Proposal['restsOn']['rule'],
  subject: string,
  text: string,
  fact: string,
  at: string,
  gist = fact,
): Proposal {
  return {
    restsOn: { rule, subject, fact, gist: `${part}: ${gist}` },
    part,
    text,
    use: null,
    suits: null,
    unit: null,
    price: null,
    at,
  };
}
