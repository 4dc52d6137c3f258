import type { Category } from '#contracts/common';
import type { Varies } from '#contracts/variant';

/** A row of the list of all specimens, before prices, figures and rank are joined to it. */
export interface SpecimenBase {
  readonly id: string;
  readonly maker: string;
  readonly model: string;
  readonly label: string;
  readonly category: Category;
  readonly on_desk: boolean;
  readonly first_tested: string | null;
  readonly last_tested: string | null;
  /** The review that was published last, else the one that was begun last. */
  readonly review_id: string | null;
  /** Day of its newest edition. */
  readonly published_on: string | null;
  readonly takes: number;
  readonly failed: number;
  readonly waiting: number;
  /** The unit that it is a configuration of, in words, and what it differs by. */
  readonly variant_of: string | null;
  readonly configuration: string;
  readonly varies: Varies | null;
  /** How many configurations there are of it. */
  readonly variants: number;
  /** Whether it stands in rankings, of those that are one unit. */
  readonly counts: boolean;
}

/** Points as they are kept. */
export interface GivenPoints {
  readonly specimen_id: string;
  readonly criterion: string;
  readonly value: number;
  readonly reason: string | null;
  readonly date: string;
}

/** A reading of a unit that was read more than once in the same way. */
export interface RepeatedReading {
  readonly quantity: string;
  /** Unit, protocol version and rig: readings of one group differ in the day alone. */
  readonly group: string;
  readonly value: number;
  readonly uncertainty: number | null;
}
