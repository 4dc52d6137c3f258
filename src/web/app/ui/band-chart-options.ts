import type { ApexOptions } from 'apexcharts';
import type { BandLevelJson } from '#contracts/clip-summary';
import { formatNumber } from './format';

/** A curve over third octaves. */
export interface BandSeries {
  readonly name: string;
  readonly bands: readonly BandLevelJson[];
  /** CSS colour. */
  readonly colour: string;
  /** Length of dashes; 0 is a solid line. Series differ by dash as well as by colour. */
  readonly dash: number;
}

/** Colours of the frame, taken from the theme that is on. */
export interface ChartInk {
  readonly ink: string;
  readonly quiet: string;
  readonly rule: string;
  readonly isDark: boolean;
}

/** 20 Hz–20 kHz in steps of 1, 2, 5: where an axis of frequency has its marks. */
const TICKS_HZ = [20, 50, 100, 200, 500, 1000, 2000, 5000, 10_000, 20_000];

export function frequencyLabel(hz: number): string {
  return hz >= 1000 ? `${hz / 1000}k` : String(hz);
}

/** A level range in whole tens that holds all series. */
export function levelRange(series: readonly BandSeries[]): { min: number; max: number } {
  const levels = series.flatMap((s) => s.bands.flatMap((b) => b.levelDbfs ?? []));
  if (levels.length === 0) return { min: -120, max: 0 };
  return { min: 10 * Math.floor(Math.min(...levels) / 10), max: 10 * Math.ceil(Math.max(...levels) / 10) };
}

/**
 * Options of a chart of third-octave levels over a logarithmic frequency axis. The chart library has no such axis, so
 * x is log₁₀ f on a plain one, with our own marks.
 */
export function bandChartOptions(series: readonly BandSeries[], ink: ChartInk, title: string): ApexOptions {
  const { min, max } = levelRange(series);
  return {
    chart: {
      type: 'line',
      height: 280,
      background: 'transparent',
      fontFamily: 'Archivo Variable, sans-serif',
      foreColor: ink.quiet,
      animations: { enabled: false },
      zoom: { enabled: false },
      toolbar: {
        tools: {
          download: true,
          zoom: false,
          zoomin: false,
          zoomout: false,
          pan: false,
          reset: false,
          selection: false,
        },
        export: {
          csv: { filename: title, headerCategory: 'log10(Hz)' },
          svg: { filename: title },
          png: { filename: title },
        },
      },
    },
    theme: { mode: ink.isDark ? 'dark' : 'light' },
    series: series.map((s) => ({
      name: s.name,
      data: s.bands.flatMap((b) => (b.levelDbfs === null ? [] : [{ x: Math.log10(b.centreHz), y: b.levelDbfs }])),
    })),
    colors: series.map((s) => s.colour),
    stroke: { width: 1.8, curve: 'straight', dashArray: series.map((s) => s.dash) },
    grid: { borderColor: ink.rule, xaxis: { lines: { show: false } } },
    annotations: {
      xaxis: TICKS_HZ.map((hz) => ({
        x: Math.log10(hz),
        borderColor: ink.rule,
        strokeDashArray: 0,
        label: {
          text: frequencyLabel(hz),
          orientation: 'horizontal',
          position: 'bottom',
          offsetY: 16,
          borderWidth: 0,
          style: { background: 'transparent', color: ink.quiet, fontSize: '11px' },
        },
      })),
    },
    xaxis: {
      type: 'numeric',
      min: Math.log10(17.8),
      max: Math.log10(22_400),
      labels: { show: false },
      axisTicks: { show: false },
      axisBorder: { color: ink.rule },
      title: { text: 'Hz, third octaves', offsetY: 4, style: { fontWeight: 400, fontSize: '12px', color: ink.quiet } },
      tooltip: { enabled: false },
    },
    yaxis: {
      min,
      max,
      tickAmount: (max - min) / 10,
      labels: { formatter: (value) => formatNumber(value, 0) },
      title: { text: 'dBFS', style: { fontWeight: 400, fontSize: '12px', color: ink.quiet } },
    },
    legend: { position: 'top', horizontalAlign: 'left', labels: { colors: ink.ink } },
    tooltip: {
      x: { formatter: (value) => `${frequencyLabel(nominalOf(value, series))} Hz` },
      y: { formatter: (value) => `${formatNumber(value, 1)} dBFS` },
    },
    markers: { size: 0 },
  };
}

function nominalOf(log: number, series: readonly BandSeries[]): number {
  const bands = series.flatMap((s) => s.bands);
  const nearest = bands.reduce<BandLevelJson | null>(
    (best, b) =>
      !best || Math.abs(Math.log10(b.centreHz) - log) < Math.abs(Math.log10(best.centreHz) - log) ? b : best,
    null,
  );
  return nearest?.centreHz ?? 10 ** log;
}
