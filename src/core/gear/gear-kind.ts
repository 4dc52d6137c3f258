import type { QuantityId } from '../measure/registry';
import type { AnalysedTake, RunChain, RunFigures } from './run/analysed-take';
import type { RunTable } from './run/run-table';
import type { SheetField } from './sheet/sheet-field';
import type { StepRoleDefinition } from './step-role';

/** A claim of a data sheet as its maker gives it. */
export interface ClaimedFigure {
  readonly quantity: string;
  readonly value: number;
  readonly unit: string;
  readonly condition: string;
}

/** How a claimed figure is brought to the unit it is measured in, and what forbids setting the two beside each other. */
export interface ClaimRule {
  /** Units that makers use, each with what makes it the registry's unit. */
  readonly units: Readonly<Record<string, (value: number) => number>>;
  /** Why a claim under these conditions is another figure than the measured one; null where it is the same. */
  readonly unlike?: (claim: ClaimedFigure) => string | null;
  /**
   * Why nothing can be as good as a claim; null where it is possible.
   *
   * @param claim - as the maker gives it
   * @param value - the same in the registry's unit
   */
  readonly beyond?: (claim: ClaimedFigure, value: number) => string | null;
}

/** Claims that a kind of gear is sold by, by the measured figure that they stand beside. */
export type ClaimRules = Readonly<Partial<Record<QuantityId, ClaimRule>>>;

/** Everything that differs between kinds of gear, and is not a rule or a figure itself. */
export interface GearKind {
  /** As it stands in the database and in run.json. */
  readonly id: string;
  readonly name: string;
  /** What steps of its protocols can be for. */
  readonly roles: readonly StepRoleDefinition[];
  /**
   * Whether it makes no sound of its own and is heard through another unit only: what is recorded without it is that
   * unit's, and a take with it is half of a pair.
   */
  readonly isHeardThroughAnother: boolean;
  /** Where its sweep is heard, in words: "0°", "looped", "on an artificial ear". */
  readonly sweepWhere: string;
  /** What its usual rig cannot tell, in a sentence or two that stand beside what it tells. */
  readonly cannotTell?: string;
  /** Figures that lists show of it, the most telling first. */
  readonly keyFigures: readonly QuantityId[];
  readonly claims: ClaimRules;
  /** A kind of one's own: the one that ships that it is measured like. */
  readonly like?: string;
  /** Name of its hatch; its own where nothing is said. */
  readonly hatch?: string;
  /** Columns of lists, as a person has chosen them; null or missing: its key figures. */
  readonly columns?: readonly string[] | null;
  /** What its data sheets have a place for. */
  readonly sheet: readonly SheetField[];
  /**
   * Figures and curves of one run.
   *
   * @param takes - those that say something of the unit by itself, in order
   * @param chain - what is known of what it was recorded with
   * @param planned - roles that the protocol has steps of
   * @param tables - that were filled in, by the role of their step
   */
  readonly runFigures: (
    takes: readonly AnalysedTake[],
    chain: RunChain,
    planned: ReadonlySet<string>,
    tables?: ReadonlyMap<string, RunTable>,
  ) => RunFigures;
}
