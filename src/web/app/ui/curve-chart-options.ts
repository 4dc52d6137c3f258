import type { ApexOptions } from 'apexcharts';
import { formatNumber } from './format';

/** A curve, or the room between two. */
export interface CurveSeries {
  readonly name: string;
  /** Rising x; y may be missing where nothing is known. */
  readonly points: readonly { readonly x: number; readonly y: number | null }[];
  /** CSS variable of the colour. */
  readonly colour: string;
  /** Length of dashes; 0 is a solid line. Series differ by dash as well as by colour. */
  readonly dash: number;
  /** Points alone, without a line between them. */
  readonly isScatter?: boolean;
}

/** A vertical line with a word at it. */
export interface CurveMark {
  readonly x: number;
  readonly text: string;
  readonly colour: string;
}

/** What a chart of curves shows. */
export interface CurveChartModel {
  /** Both axes of x are logarithmic. */
  readonly axis: 'frequency' | 'distance';
  readonly axisTitle: string;
  readonly unit: string;
  readonly series: readonly CurveSeries[];
  /** Steps of the level grid, dB. */
  readonly grid?: 5 | 10;
  readonly marks?: readonly CurveMark[];
  /** Levels within which nothing needs to be said, drawn as a band. */
  readonly tolerance?: { readonly low: number; readonly high: number; readonly text: string };
  /** Range of x; that of the axis by default. */
  readonly range?: readonly [number, number];
}

/** Colours of the frame, taken from the theme that is on. */
export interface ChartInk {
  readonly ink: string;
  readonly quiet: string;
  readonly rule: string;
  readonly isDark: boolean;
  readonly colour: (name: string) => string;
}

/** 20 Hz–20 kHz in steps of 1, 2, 5: where an axis of frequency has its marks. */
const TICKS = {
  frequency: [20, 50, 100, 200, 500, 1000, 2000, 5000, 10_000, 20_000],
  distance: [0.1, 0.2, 0.5, 1, 2, 5],
} as const;
const RANGES = { frequency: [17.8, 22_400], distance: [0.1, 2] } as const;

export function frequencyLabel(hz: number): string {
  return hz >= 1000 ? `${hz / 1000}k` : String(hz);
}

/** A level range in whole steps that holds all series. */
export function levelRange(series: readonly CurveSeries[], step: number): { min: number; max: number } {
  const levels = series.flatMap((s) => s.points.flatMap((p) => p.y ?? []));
  if (levels.length === 0) return { min: -120, max: 0 };
  const [min, max] = [step * Math.floor(Math.min(...levels) / step), step * Math.ceil(Math.max(...levels) / step)];
  return min === max ? { min: min - step, max: max + step } : { min, max };
}

/**
 * Options of a chart of levels over a logarithmic axis. The chart library has no such axis, so x is log₁₀ on a plain
 * one, with our own marks.
 */
export function curveChartOptions(model: CurveChartModel, ink: ChartInk, title: string): ApexOptions {
  const step = model.grid ?? 10;
  const { min, max } = levelRange(model.series, step);
  const [low, high] = model.range ?? RANGES[model.axis];
  const quiet = { fontWeight: 400, fontSize: '12px', color: ink.quiet };
  return {
    chart: {
      id: title,
      type: 'line',
      height: 280,
      background: 'transparent',
      fontFamily: 'Archivo Variable, sans-serif',
      foreColor: ink.quiet,
      animations: { enabled: false },
      zoom: { enabled: false },
      toolbar: { show: false },
    },
    theme: { mode: ink.isDark ? 'dark' : 'light' },
    series: model.series.map((s) => ({
      name: s.name,
      type: s.isScatter ? 'scatter' : 'line',
      data: s.points.flatMap((p) => (p.y === null ? [] : [{ x: Math.log10(p.x), y: p.y }])),
    })),
    colors: model.series.map((s) => ink.colour(s.colour)),
    stroke: {
      width: model.series.map((s) => (s.isScatter ? 0 : 1.8)),
      curve: 'straight',
      dashArray: model.series.map((s) => s.dash),
    },
    grid: { borderColor: ink.rule, xaxis: { lines: { show: false } } },
    annotations: {
      xaxis: [
        ...TICKS[model.axis]
          .filter((x) => x >= low && x <= high)
          .map((x) => ({
            x: Math.log10(x),
            borderColor: ink.rule,
            strokeDashArray: 0,
            label: {
              text: frequencyLabel(x),
              orientation: 'horizontal',
              position: 'bottom',
              offsetY: 16,
              borderWidth: 0,
              style: { background: 'transparent', color: ink.quiet, fontSize: '11px' },
            },
          })),
        ...(model.marks ?? []).map((mark) => ({
          x: Math.log10(mark.x),
          borderColor: ink.colour(mark.colour),
          strokeDashArray: 2,
          label: {
            text: mark.text,
            orientation: 'vertical',
            position: 'top',
            offsetY: 4,
            borderWidth: 0,
            style: { background: 'transparent', color: ink.ink, fontSize: '11px' },
          },
        })),
      ],
      yaxis: model.tolerance
        ? [
            {
              y: model.tolerance.low,
              y2: model.tolerance.high,
              fillColor: ink.colour('--malachite'),
              opacity: 0.12,
              borderWidth: 0,
              label: {
                text: model.tolerance.text,
                position: 'left',
                textAnchor: 'start',
                borderWidth: 0,
                style: { background: 'transparent', color: ink.quiet, fontSize: '11px' },
              },
            },
          ]
        : [],
    },
    xaxis: {
      type: 'numeric',
      min: Math.log10(low),
      max: Math.log10(high),
      labels: { show: false },
      axisTicks: { show: false },
      axisBorder: { color: ink.rule },
      title: { text: model.axisTitle, offsetY: 4, style: quiet },
      tooltip: { enabled: false },
    },
    yaxis: {
      min,
      max,
      tickAmount: Math.min(12, (max - min) / step),
      labels: { formatter: (value) => formatNumber(value, 0) },
      title: { text: model.unit, style: quiet },
    },
    legend: { position: 'top', horizontalAlign: 'left', labels: { colors: ink.ink } },
    tooltip: {
      shared: true,
      intersect: false,
      x: { formatter: (value) => xLabel(value, model) },
      y: {
        formatter: (value: number | null | undefined) =>
          value === null || value === undefined ? 'not measured' : `${formatNumber(value, 1)} ${model.unit}`,
      },
    },
    markers: { size: model.series.map((s) => (s.isScatter ? 5 : 0)), strokeWidth: 0, hover: { size: 4 } },
  };
}

/** The x nearest to where the pointer is, in the words of the axis. */
function xLabel(log: number, model: CurveChartModel): string {
  const xs = model.series.flatMap((s) => s.points.map((p) => p.x));
  const nearest = xs.reduce(
    (best, x) => (Math.abs(Math.log10(x) - log) < Math.abs(Math.log10(best) - log) ? x : best),
    10 ** log,
  );
  return model.axis === 'distance' ? `${nearest.toFixed(2)} m` : `${frequencyLabel(Number(nearest.toPrecision(3)))} Hz`;
}

/** The data of a chart as CSV (RFC 4180), units in the header; an empty cell is "not measured". */
export function curveCsv(model: CurveChartModel): string {
  const xs = [...new Set(model.series.flatMap((s) => s.points.map((p) => p.x)))].sort((a, b) => a - b);
  const byX = model.series.map((s) => new Map(s.points.map((p) => [p.x, p.y])));
  const quoted = (text: string): string => `"${text.replaceAll('"', '""')}"`;
  const head = [
    model.axis === 'distance' ? 'distance/m' : 'frequency/Hz',
    ...model.series.map((s) => quoted(`${s.name}/${model.unit}`)),
  ];
  const rows = xs.map((x) => [
    Number(x.toPrecision(6)),
    ...byX.map((values) => {
      const y = values.get(x) ?? null;
      return y === null ? '' : y.toFixed(3);
    }),
  ]);
  return [head, ...rows].map((cells) => cells.join(',')).join('\r\n') + '\r\n';
}
