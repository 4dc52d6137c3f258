import { gearKind } from '#core/gear/kinds';
import type { Rubric } from '#core/rules/rubric';
import type { SpecimenSheet } from '#contracts/specimen';
import { countingRun, priceGap } from '#domain/catalogue/counting-run';

/** A part of a unit's sheet, and what it still lacks; '' where it is complete. */
export interface SheetPart {
  readonly id: string;
  readonly label: string;
  readonly missing: string;
}

/**
 * The parts of a unit's sheet in the order of the work.
 *
 * @param rubric - by which the unit is scored; null while it is asked for, and where there is none
 */
export function sheetOutline(sheet: SpecimenSheet, rubric: Rubric | null): SheetPart[] {
  const { row, runs, prices } = sheet;
  const takes = runs.flatMap((r) => r.takes);
  const figures = countingRun(runs)?.run.measurements ?? [];
  const [failed, unmeasured] = [
    takes.filter((t) => t.analysis.status === 'failed').length,
    figures.filter((m) => m.value === null).length,
  ];
  // What is not noted with a configuration is noted with its unit.
  const isVariant = row.family !== null && row.family.main !== row.id;
  // What is typed into tables, or heard through another unit, gives no figure of its own.
  const hasTables = runs.some((r) => r.tables.some((t) => t.cells.length > 0));
  const { keyFigures, isHeardThroughAnother } = gearKind(row.category);
  const needsFigures = keyFigures.length > 0 && !isHeardThroughAnother;
  const count = (n: number, what: string): string => (n > 0 ? `${n} ${what}` : '');
  return [
    { id: 'intake', label: 'Intake', missing: '' },
    { id: 'configurations', label: 'Configurations', missing: '' },
    {
      id: 'data-sheet',
      label: 'Data sheet',
      missing: isVariant || sheet.sheet.some((e) => e.value !== null) ? '' : 'empty',
    },
    { id: 'photographs', label: 'Photographs', missing: '' },
    { id: 'prices', label: 'Prices', missing: isVariant && prices.length === 0 ? '' : priceGap(prices, rubric) },
    { id: 'relations', label: 'Beside it', missing: '' },
    { id: 'takes', label: 'Takes', missing: takes.length === 0 && !hasTables ? 'no takes' : count(failed, 'failed') },
    {
      id: 'measured',
      label: 'Measured',
      missing: figures.length === 0 ? (needsFigures ? 'no figures' : '') : count(unmeasured, 'missing'),
    },
    { id: 'heard', label: 'Heard', missing: row.heardAnswers === 0 ? 'by nobody yet' : '' },
    { id: 'character', label: 'Character and use', missing: '' },
    {
      id: 'points',
      label: 'Points',
      missing: row.hasRules ? count(row.missingPoints.length, 'missing') : 'no rules yet',
    },
    { id: 'place', label: 'Place', missing: row.place === null && row.family?.counts !== false ? 'not ranked' : '' },
    { id: 'reviews', label: 'Reviews', missing: '' },
  ];
}
