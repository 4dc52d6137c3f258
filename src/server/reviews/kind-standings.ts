import { gearKind } from '#core/gear/kinds';
import type { KindStanding } from '#core/rules/kind-standing';
import type { RankedUnit } from '#core/rules/rank';
import type { UnitFacts } from '#core/rules/criterion-points';
import type { RankingInputs } from '#contracts/ranking';
import type { SpecimenRow } from '#contracts/specimen';
import type { ReviewFacts } from '#domain/review/review-facts';
import type { Catalogue } from '../catalogue/catalogue';
import { Memory, type Memories } from '../platform/memory';
import type { WorkerPool } from '../platform/worker-pool';

/** Kinds, and units of kinds without rules, whose standing is remembered. */
const MOST_REMEMBERED = 32;

/** A unit with everything that proposals and editions are made from. */
export class KindStandings {
  /** By what they follow from: the catalogue gives the same object as long as nothing of it has changed. */
  private readonly known: Memory<object, KindStanding>;
  private readonly uses: Memory<RankingInputs, readonly (readonly RankedUnit[])[]>;

  constructor(
    private readonly catalogue: Catalogue,
    private readonly pool: WorkerPool,
    memories: Memories,
  ) {
    this.known = new Memory(memories, 'how the units of a kind stand to each other', [], MOST_REMEMBERED);
    this.uses = new Memory(memories, 'rankings of a kind for its uses', [], MOST_REMEMBERED);
  }

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

  /** The ranking of a kind for each of its uses. */
  forUses(inputs: RankingInputs): Promise<readonly (readonly RankedUnit[])[]> {
    const { units, rubric } = inputs;
    return this.uses.of(inputs, () => this.pool.run('rank-for-uses', { units, rubric }));
  }

  private standing(key: object, units: readonly UnitFacts[], rubric: ReviewFacts['rubric']): Promise<KindStanding> {
    return this.known.of(key, () => this.pool.run('kind-standing', { units, rubric }));
  }
}
