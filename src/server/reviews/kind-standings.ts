import { gearKind } from '#core/gear/kinds';
import type { KindStanding } from '#core/rules/kind-standing';
import type { UnitFacts } from '#core/rules/criterion-points';
import type { RankingInputs } from '#contracts/ranking';
import type { SpecimenRow } from '#contracts/specimen';
import type { ReviewFacts } from '#domain/review/review-facts';
import type { Catalogue } from '../catalogue/catalogue';
import type { WorkerPool } from '../platform/worker-pool';

/** A unit with everything that proposals and editions are made from. */
export class KindStandings {
  /** By what they follow from: the catalogue gives the same object as long as nothing of it has changed. */
  private readonly known = new WeakMap<object, Promise<KindStanding>>();

  constructor(
    private readonly catalogue: Catalogue,
    private readonly pool: WorkerPool,
  ) {}

  /** @throws Failure `not-found` */
  async factsOf(unit: string): Promise<ReviewFacts> {
    const facts = await this.withoutSheet(unit);
    return { ...facts, sheet: await this.catalogue.sheet(facts.row.id) };
  }

  /**
   * The same without what takes questions of its own for each unit.
   *
   * @throws Failure `not-found`
   */
  async withoutSheet(unit: string): Promise<Omit<ReviewFacts, 'sheet'> & { readonly row: SpecimenRow }> {
    const { row, own, inputs, alike } = await this.catalogue.amongItsKind(unit);
    const units: readonly UnitFacts[] = inputs?.units ?? alike;
    const rubric = inputs?.rubric ?? null;
    return {
      row,
      kind: gearKind(row.category),
      own,
      units,
      names: inputs?.names ?? {},
      rubric,
      standing: await this.standing(inputs ?? own, units, rubric),
    };
  }

  /** How the units of a kind stand to each other. */
  ofKind(inputs: RankingInputs): Promise<KindStanding> {
    return this.standing(inputs, inputs.units, inputs.rubric);
  }

  private standing(key: object, units: readonly UnitFacts[], rubric: ReviewFacts['rubric']): Promise<KindStanding> {
    const known = this.known.get(key);
    if (known) return known;
    const made = this.pool.run('kind-standing', { units, rubric });
    this.known.set(key, made);
    // A failure is not kept: the next question asks again.
    made.catch(() => this.known.delete(key));
    return made;
  }
}
