/** Lowest level that the bar shows. */
export const BAR_FLOOR_DBFS = -60;

/** Place on a level bar, 0…1: decibels evenly from −60 to 0 dBFS. */
export function barShare(dbfs: number): number {
  if (!Number.isFinite(dbfs)) return 0;
  return Math.max(0, Math.min(1, (dbfs - BAR_FLOOR_DBFS) / -BAR_FLOOR_DBFS));
}

/** What the level means, for people who do not see colours. */
export function levelWord(
  peakDbfs: number,
  window: { readonly lowDbfs: number; readonly highDbfs: number } | null,
  clippedRuns: number,
): string {
  if (clippedRuns > 0 || peakDbfs >= -0.01) return 'clipped';
  if (!Number.isFinite(peakDbfs)) return 'nothing';
  if (!window) return peakDbfs > -1 ? 'no room left' : 'level';
  if (peakDbfs > window.highDbfs) return 'too loud';
  if (peakDbfs < window.lowDbfs) return 'too soft';
  return 'in the window';
}
