import type { NewCounting, NewVariant } from '#contracts/variant';
import { unitName } from '#contracts/unit-name';
import { nameSchema } from '#contracts/common';
import { variantLabel, variantRefusal } from '#domain/catalogue/variant-rules';
import type { Clock } from '../platform/clock';
import type { Database } from '../platform/db/database';
import type { EventHub } from '../platform/event-hub';
import { Failure } from '../platform/failure';
import { addUnitOfModel, findVariant, noteCounting, setVariant, variantsOf, type VariantRow } from './queries/variant';

/** Units in several configurations: each has runs and figures of its own, and one of them, or each, stands in rankings. */
export class Variants {
  constructor(
    private readonly database: Database,
    private readonly hub: EventHub,
    private readonly clock: Clock,
  ) {}

  /**
   * Notes another configuration of a unit.
   *
   * @throws Failure `not-found`, `invalid-request` where it is a configuration itself, or there is a unit of that name
   */
  async add(id: string, { configuration, varies }: NewVariant): Promise<{ id: string }> {
    const main = await this.unit(id);
    const refusal = variantRefusal({ unit: null, of: main, variants: 0 });
    if (refusal !== null) throw refused(refusal);
    const label = variantLabel(main.label, configuration);
    if (!nameSchema.safeParse(label).success)
      throw refused(`“${label}” is too long for a label; say the configuration in fewer words`);
    const added = await this.database.transaction(async (tx) => {
      const unit = await addUnitOfModel(tx, id, label);
      if (unit !== null) await setVariant(tx, unit, { of: id, configuration, varies });
      return unit;
    });
    if (added === null)
      throw refused(`there is a unit ${unitName({ ...main, label })} already; open it, and say there what it is a configuration of`); // prettier-ignore
    this.tell([id, added]);
    return { id: added };
  }

  /**
   * Says which configuration stands in rankings.
   *
   * @throws Failure `not-found`, `invalid-request` where it is none of the unit's
   */
  async count(id: string, { counts }: NewCounting): Promise<void> {
    const unit = await this.unit(id);
    const main = unit.variant_of ?? unit.id;
    const members = [main, ...(await variantsOf(this.database, main)).map((v) => v.id)];
    if (counts !== 'each' && !members.includes(counts))
      throw refused('that unit is no configuration of this one', 'counts');
    await noteCounting(this.database, main, counts === 'each' ? null : counts, this.clock.today());
    this.tell(members);
  }

  private async unit(id: string): Promise<VariantRow> {
    const unit = await findVariant(this.database, id);
    if (!unit) throw new Failure('not-found', `There is no unit with the number ${id}.`);
    return unit;
  }

  private tell(units: readonly string[]): void {
    for (const unit of units) this.hub.specimenChanged(unit);
  }
}

const refused = (message: string, field = 'configuration'): Failure =>
  new Failure('invalid-request', `Nothing was noted: ${message}.`, [{ file: null, field, message }]);
