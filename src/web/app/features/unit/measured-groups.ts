import { QUANTITY_IDS, quantity, type QuantityId } from '#core/measure/registry';
import { QUANTITY_GROUPS, type QuantityGroup } from '#core/measure/quantities/quantity-definition';
import { compareClaim } from '#core/gear/claim-comparison';
import type { UnitFacts } from '#core/rules/criterion-points';
import type { MeasurementJson, UnitMeasurement } from '#contracts/measurement';
import type { Claim } from '#contracts/run-document';
import { formatNumber } from '../../ui/format';

/** A claim beside a figure, in words. */
export interface ClaimText {
  readonly text: string;
  /** Why it cannot be compared, or how far apart they are. */
  readonly remark: string;
  readonly isComparable: boolean;
}

/** One figure of the unit with its claim and its place. */
export interface MeasuredRow {
  readonly id: QuantityId;
  readonly name: string;
  readonly measurement: UnitMeasurement;
  readonly claim: ClaimText | null;
  /** The same figure of all other units. */
  readonly others: readonly number[];
}

/** Figures that belong together in a reviewer's mind. */
export interface MeasuredGroup {
  readonly group: QuantityGroup;
  readonly title: string;
  readonly rows: readonly MeasuredRow[];
}

/**
 * The figures of a run, grouped as a reviewer thinks of a unit, in the order of the registry.
 *
 * @param measurements - of the run that counts
 * @param claims - of the data sheet
 * @param units - facts of all units of the category
 * @param self - this unit's id
 */
export function measuredGroups(
  measurements: readonly UnitMeasurement[],
  claims: readonly Claim[],
  units: readonly UnitFacts[],
  self: string,
): MeasuredGroup[] {
  const byId = new Map(measurements.map((m) => [m.quantity, m]));
  return (Object.keys(QUANTITY_GROUPS) as QuantityGroup[]).flatMap((group) => {
    const rows = QUANTITY_IDS.filter((id) => quantity(id).group === group).flatMap((id): MeasuredRow[] => {
      const measurement = byId.get(id);
      if (!measurement) return [];
      const claim = claims.find((c) => c.quantity === id);
      return [
        {
          id,
          name: quantity(id).name,
          measurement,
          claim: claim ? claimText(claim, measurement) : null,
          others: units.flatMap((u) => {
            const value = u.id === self ? null : (u.figures[id]?.value ?? null);
            return value === null ? [] : [value];
          }),
        },
      ];
    });
    return rows.length === 0 ? [] : [{ group, title: QUANTITY_GROUPS[group], rows }];
  });
}

/** A claim beside the figure that it is of. */
export function claimText(claim: Claim, measurement: MeasurementJson): ClaimText {
  const condition = claim.condition ? ` (${claim.condition})` : '';
  const text = `claimed ${formatNumber(claim.value, Number.isInteger(claim.value) ? 0 : 1)} ${claim.unit}${condition}`;
  const comparison = compareClaim(claim, measurement.value);
  if (!comparison.comparable) return { text, remark: comparison.reason, isComparable: false };
  if (comparison.differenceInUnit === null) return { text, remark: 'not measured', isComparable: true };
  if (measurement.bound !== 'exact') {
    return { text, remark: 'only a limit was measured: see its condition', isComparable: false };
  }
  const { decimals, unit } = quantity(measurement.quantity);
  const difference = formatNumber(comparison.differenceInUnit, decimals);
  const isNone = Number(difference.replace('−', '-')) === 0;
  return {
    text,
    remark: `measured ${formatNumber(measurement.value ?? 0, decimals)} ${unit}; ${isNone ? 'no difference' : `difference ${difference.startsWith('−') ? '' : '+'}${difference} ${unit}`}`,
    isComparable: true,
  };
}
