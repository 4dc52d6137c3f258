import type { BandLevelJson } from '#contracts/clip-summary';
import type { CurveChartModel, CurveMark } from './curve-chart-options';

/** Third-octave levels of one clip. */
export interface BandSeries {
  readonly name: string;
  readonly bands: readonly BandLevelJson[];
  /** CSS variable of the colour. */
  readonly colour: string;
  readonly dash: number;
}

/** Third-octave levels over frequency as a chart of curves. */
export function bandChart(
  series: readonly BandSeries[],
  unit = 'dBFS',
  marks: readonly CurveMark[] = [],
): CurveChartModel {
  return {
    axis: 'frequency',
    axisTitle: 'Hz, third octaves',
    unit,
    marks,
    series: series.map(({ name, bands, colour, dash }) => ({
      name,
      colour,
      dash,
      points: bands.map((b) => ({ x: b.centreHz, y: b.levelDbfs })),
    })),
  };
}
