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
