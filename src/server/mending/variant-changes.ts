import { unitName } from '#contracts/unit-name';
import { variantRefusal } from '#domain/catalogue/variant-rules';
import { findVariant, setVariant, variantsOf, type VariantRow } from '../catalogue/queries/variant';
import type { Queryable } from '../platform/db/database';
import { Failure } from '../platform/failure';
import { refused, type ChangeOf, type PreparedChange } from './prepared-change';

/** A unit that stood by itself is another one in another configuration, or stands by itself again. */
export async function changeVariant(db: Queryable, change: ChangeOf<'unit-variant'>): Promise<PreparedChange> {
  const { unit: id, variant } = change;
  const unit = await found(db, id);
  const before = variantOf(unit);
  if (isSame(before, variant))
    throw refused(variant ? 'That is noted already.' : `${unitName(unit)} stands by itself already.`);
  const of = variant && (await found(db, variant.of));
  const refusal = of && variantRefusal({ unit, of, variants: (await variantsOf(db, id)).length });
  if (refusal !== null) throw refused(`${refusal.charAt(0).toUpperCase()}${refusal.slice(1)}.`);
  const families = [variant?.of, before?.of].filter((m) => m !== undefined);
  const others = await Promise.all(families.map((main) => variantsOf(db, main)));
  return {
    before: { kind: 'unit-variant', unit: id, variant: before },
    text:
      variant && of
        ? `${unitName(unit)} is ${unitName(of)} in another configuration: ${variant.configuration}`
        : `${unitName(unit)} stands by itself`,
    specimens: [...new Set([id, ...families, ...others.flat().map((v) => v.id)])],
    runs: [],
    apply: (tx) => setVariant(tx, id, variant),
  };
}

async function found(db: Queryable, id: string): Promise<VariantRow> {
  const unit = await findVariant(db, id);
  if (!unit) throw new Failure('not-found', `There is no unit with the number ${id}.`);
  return unit;
}

type Variant = ChangeOf<'unit-variant'>['variant'];

const isSame = (a: Variant, b: Variant): boolean =>
  a?.of === b?.of && a?.configuration === b?.configuration && a?.varies === b?.varies;

const variantOf = ({ variant_of, configuration, varies }: VariantRow): Variant =>
  variant_of === null || varies === null ? null : { configuration, varies, of: variant_of };
