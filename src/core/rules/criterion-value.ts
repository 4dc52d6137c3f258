import { gearKind } from '../gear/kinds';
import { unitsOf } from '../gear/sheet/sheet-units';
import { quantity } from '../measure/registry';
import { cellKey, hasFeature, type UnitFacts } from './criterion-points';
import { pricePoints } from './price-rule';
import type { Criterion } from './rubric';

/**
 * The number that a criterion's curve is read at for a unit: a figure, a price, log odds, a number of the sheet, a cell,
 * a count of features.
 *
 * @returns null where there is none, and for criteria without a curve
 */
export function criterionValue(criterion: Criterion, unit: UnitFacts): number | null {
  switch (criterion.kind) {
    case 'measured':
      return unit.figures[criterion.quantity]?.value ?? null;
    case 'price': {
      const verdict = pricePoints(unit, criterion);
      return verdict.points === null ? null : verdict.total;
    }
    case 'heard':
      return unit.heard?.logWorth ?? null;
    case 'sheet-number': {
      const value = unit.sheet?.[criterion.field];
      return typeof value === 'number' ? value : null;
    }
    case 'table':
      return unit.cells?.[cellKey(criterion)] ?? null;
    case 'features': {
      const has = criterion.features.map((f) => hasFeature(f, unit.sheet ?? {}));
      return has.every((h) => h === undefined) ? null : has.filter((h) => h === true).length;
    }
    case 'by-hand':
    case 'sheet-word':
      return null;
  }
}

/** What the axis of a criterion's curve is: a name and a unit; null for criteria without a curve. */
export function criterionAxis(criterion: Criterion, kind: string): { name: string; unit: string } | null {
  switch (criterion.kind) {
    case 'measured': {
      const { name, unit } = quantity(criterion.quantity);
      return { name, unit };
    }
    case 'price':
      return { name: 'Price', unit: criterion.currency };
    case 'heard':
      return { name: 'Log odds against the middle unit', unit: '' };
    case 'sheet-number': {
      const field = gearKind(kind).sheet.find((f) => f.id === criterion.field);
      return { name: field?.name ?? criterion.field, unit: field?.type === 'number' ? unitsOf(field.unit)[0] : '' };
    }
    case 'table':
      return { name: `${criterion.row}, ${criterion.column}`, unit: '' };
    case 'features':
      return { name: 'Features that it has', unit: '' };
    case 'by-hand':
    case 'sheet-word':
      return null;
  }
}
