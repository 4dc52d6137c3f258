import type { Session } from '#contracts/session';

/** A drawn layer: one session. */
export interface Layer {
  readonly session: Session;
  readonly top: number;
  readonly height: number;
}

export interface YearMark {
  readonly year: string;
  readonly top: number;
}

const PX_PER_TAKE = 2.5;
const THINNEST = 4;
const THICKEST = 40;
const LEAST_GAP = 2;
const DAY_MS = 86_400_000;

/**
 * Places the layers: newest on top, thickness by the number of takes, and what height is left shared out over the
 * gaps by their length, so that a gap in time is a gap on the screen. With more sessions than fit, it grows longer.
 *
 * @param sessions - newest first
 * @param height - what is there, in pixels
 */
export function layOutCoreLog(
  sessions: readonly Session[],
  height: number,
): { layers: Layer[]; years: YearMark[]; height: number } {
  const heights = sessions.map((s) => Math.min(THICKEST, Math.max(THINNEST, s.takes * PX_PER_TAKE)));
  const days = sessions.map((s, i) => (i === 0 ? 0 : (Date.parse(sessions[i - 1].date) - Date.parse(s.date)) / DAY_MS));
  const solid = heights.reduce((a, b) => a + b, 0) + LEAST_GAP * Math.max(0, sessions.length - 1);
  const allDays = days.reduce((a, b) => a + b, 0);
  const pxPerDay = allDays > 0 ? Math.max(0, height - solid) / allDays : 0;
  const layers: Layer[] = [];
  const years: YearMark[] = [];
  let top = 0;
  sessions.forEach((session, i) => {
    if (i > 0) top += LEAST_GAP + days[i] * pxPerDay;
    const year = session.date.slice(0, 4);
    if (i === 0 || year !== sessions[i - 1].date.slice(0, 4)) years.push({ year, top });
    layers.push({ session, top, height: heights[i] });
    top += heights[i];
  });
  return { layers, years, height: top };
}

/**
 * The day at a height of the log: inside a layer that of its session, between two of them in proportion, above the newest
 * the newest, below the oldest the oldest.
 *
 * @param layers - as laid out, newest first
 * @param y - pixels from the top
 * @returns ISO 8601; null where there are no layers
 */
export function dayAt(layers: readonly Layer[], y: number): string | null {
  const at = layers.findIndex((layer) => y <= layer.top + layer.height);
  if (at < 0) return layers.at(-1)?.session.date ?? null;
  const layer = layers[at];
  if (at === 0 || y >= layer.top) return layer.session.date;
  const above = layers[at - 1];
  const from = above.top + above.height;
  const share = (y - from) / Math.max(1e-9, layer.top - from);
  const [newer, older] = [Date.parse(above.session.date), Date.parse(layer.session.date)];
  // A gap lies between its two days.
  const day = Math.min(newer - DAY_MS, Math.max(older, newer - share * (newer - older)));
  return new Date(Math.max(older, day)).toISOString().slice(0, 10);
}

/** The height of a day: the top of the newest layer that is not later, or in the gap above it. */
export function heightOfDay(layers: readonly Layer[], day: string): number | null {
  const at = layers.findIndex((layer) => layer.session.date <= day);
  if (at < 0) return null;
  const layer = layers[at];
  if (at === 0 || layer.session.date === day) return layer.top;
  const above = layers[at - 1];
  const from = above.top + above.height;
  const [newer, older] = [Date.parse(above.session.date), Date.parse(layer.session.date)];
  return from + ((newer - Date.parse(day)) / (newer - older)) * (layer.top - from);
}
