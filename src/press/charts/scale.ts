/** Room for a chart's axes. */
export const MARGIN = { left: 44, right: 14, top: 12, bottom: 30 } as const;

/** Frequencies of the ticks of a logarithmic axis, 1-2-5. */
export const HZ_TICKS = [20, 50, 100, 200, 500, 1000, 2000, 5000, 10_000, 20_000] as const;
export const hzLabel = (hz: number): string => (hz >= 1000 ? `${hz / 1000}k` : String(hz));

/** Places of a value on an axis. */
export type Axis = (value: number) => number;

export function linear(from: number, to: number, at: number, until: number): Axis {
  const span = to - from || 1;
  return (value) => at + ((value - from) / span) * (until - at);
}

export const logarithmic = (from: number, to: number, at: number, until: number): Axis => {
  const inner = linear(Math.log10(from), Math.log10(to), at, until);
  return (value) => inner(Math.log10(value));
};

/** Round values that an axis is marked at: 1, 2 or 5 times a power of ten, about as many as asked for. */
export function ticks(from: number, to: number, about: number): number[] {
  const raw = Math.max(1e-9, (to - from) / about);
  const power = 10 ** Math.floor(Math.log10(raw));
  const step = power * ([1, 2, 5, 10].find((s) => s * power >= raw) ?? 10);
  const first = Math.ceil(from / step - 1e-9);
  const last = Math.floor(to / step + 1e-9);
  return Array.from({ length: Math.max(0, last - first + 1) }, (_, i) => (first + i) * step);
}

/** A line through points, to a tenth of a pixel. */
export const path = (points: readonly (readonly [number, number])[]): string =>
  points.map(([x, y], i) => `${i === 0 ? 'M' : 'L'}${x.toFixed(1)} ${y.toFixed(1)}`).join('');
