import { QUANTITY_IDS, quantity, type QuantityId } from '#core/measure/registry';
import type { CompareLane, CompareTable, LaneDifference } from '#contracts/compare';
import type { CurveChartModel, CurveSeries } from '../../ui/curve-chart-options';
import { formatNumber } from '../../ui/format';

/** Colour and dash of each lane: series differ by both. */
export const LANE_LOOKS = [
  { colour: '--azurite', dash: 0 },
  { colour: '--realgar', dash: 5 },
  { colour: '--malachite', dash: 2 },
  { colour: '--ochre', dash: 8 },
  { colour: '--ink', dash: 3 },
  { colour: '--cinnabar', dash: 10 },
  { colour: '--quiet', dash: 0 },
  { colour: '--azurite-text', dash: 12 },
] as const;

/** How lanes are called while they are compared: names, or letters while they are hidden. */
export type LaneName = (index: number) => string;

export function spectrumModel(table: CompareTable, name: LaneName): CurveChartModel {
  return laneModel(table, name, (lane) => lane.spectrum, 'dB, at −23 LUFS');
}

export function noiseModel(table: CompareTable, name: LaneName): CurveChartModel {
  return laneModel(table, name, (lane) => lane.noise ?? [], 'dB, at −23 LUFS of speech');
}

function laneModel(
  table: CompareTable,
  name: LaneName,
  bands: (lane: CompareLane) => CompareLane['spectrum'],
  unit: string,
): CurveChartModel {
  return {
    axis: 'frequency',
    axisTitle: 'Hz',
    unit,
    series: table.lanes.map((lane, i) => ({
      name: name(i),
      ...LANE_LOOKS[i],
      points: bands(lane).map(({ centreHz, db }) => ({ x: centreHz, y: db })),
    })),
  };
}

/** Differences against the zero lane; what the samples do not support is left out. */
export function differenceModel(
  table: CompareTable,
  zero: number,
  differences: ReadonlyMap<string, LaneDifference>,
  name: LaneName,
): CurveChartModel {
  const series = table.lanes.flatMap((lane, i): CurveSeries[] => {
    const found = differences.get(lane.takeId);
    return i === zero || !found
      ? []
      : [
          {
            name: name(i),
            ...LANE_LOOKS[i],
            points: found.points.map(({ hz, db, trusted }) => ({ x: hz, y: trusted ? db : null })),
          },
        ];
  });
  const line: CurveSeries = { name: `${name(zero)} (zero line)`, ...LANE_LOOKS[zero], points: [{ x: 20, y: 0 }, { x: 20_000, y: 0 }] }; // prettier-ignore
  return { axis: 'frequency', axisTitle: 'Hz', unit: 'dB', grid: 5, series: [line, ...series] };
}

/** What the delays between channels of one recording come to, in words. */
export function delayLines(
  table: CompareTable,
  zero: number,
  differences: ReadonlyMap<string, LaneDifference>,
  name: LaneName,
): string[] {
  return table.lanes.flatMap((lane, i) => {
    const delayMs = differences.get(lane.takeId)?.delayMs ?? null;
    if (i === zero || delayMs === null) return [];
    const text = formatNumber(Math.abs(delayMs), 2);
    const when = Number(text) === 0 ? 'at the same moment as' : `${text} ms ${delayMs > 0 ? 'later' : 'earlier'} than`;
    return [`${name(i)} comes ${when} ${name(zero)}`];
  });
}

/** A row of the small table: one quantity over all lanes. */
export interface FigureRow {
  readonly quantity: string;
  readonly cells: readonly {
    readonly value: number | null;
    readonly uncertainty: number | null;
    /** Differs from the zero lane by more than the uncertainty of the difference (k = 2). */
    readonly differs: boolean;
  }[];
}

/** Coverage of 95 % (JCGM 100:2008, 6.3.3). */
const COVERAGE = 2;

/**
 * Figures of all lanes; a difference counts where it exceeds its expanded uncertainty. A figure whose uncertainty is
 * not known is never said to differ.
 *
 * @param lanes - of the comparison
 * @param zero - index of the zero lane
 */
export function figureRows(lanes: readonly CompareLane[], zero: number): FigureRow[] {
  const ids = [...new Set(lanes.flatMap((lane) => Object.keys(lane.figures)))];
  return ids.flatMap((quantity): FigureRow[] => {
    const base = lanes[zero]?.figures[quantity];
    const cells = lanes.map((lane, i) => {
      const figure = lane.figures[quantity];
      const [value, uncertainty] = [figure?.value ?? null, figure?.uncertainty ?? null];
      const known = i !== zero && value !== null && uncertainty !== null && base?.value !== null && base?.value !== undefined && base.uncertainty !== null; // prettier-ignore
      const differs =
        known && Math.abs(value - (base.value ?? 0)) > COVERAGE * Math.hypot(uncertainty, base.uncertainty ?? 0);
      return { value, uncertainty, differs };
    });
    return cells.filter((c) => c.value !== null).length > 1 ? [{ quantity, cells }] : [];
  });
}

/** A row with the name, unit and definition of its quantity. */
export interface DescribedRow extends FigureRow {
  readonly title: string;
  readonly unit: string;
  readonly decimals: number;
  readonly definition: string;
}

/**
 * Rows as they are shown. Level and length of a recording say nothing of the unit; a quantity of an older version of
 * this program is shown by its id.
 *
 * @param zero - column that the others are held against
 */
export function describedRows(rows: readonly FigureRow[], zero: number): DescribedRow[] {
  return rows.flatMap((row): DescribedRow[] => {
    const known = isQuantity(row.quantity) ? quantity(row.quantity) : null;
    if (known?.group === 'recording') return [];
    const decimals = known?.decimals ?? 1;
    const shown = (value: number | null): string => (value === null ? '' : formatNumber(value, decimals));
    const base = shown(row.cells[zero]?.value ?? null);
    return [
      {
        quantity: row.quantity,
        // Two figures that read the same are not said to differ, however sure it is.
        cells: row.cells.map((cell) => ({ ...cell, differs: cell.differs && shown(cell.value) !== base })),
        title: known?.name ?? row.quantity,
        unit: known?.unit ?? '',
        decimals,
        definition: known?.definition ?? '',
      },
    ];
  });
}

const isQuantity = (id: string): id is QuantityId => (QUANTITY_IDS as readonly string[]).includes(id);
