/** Bands whose upper limits differ by more than this ratio are unlike. */
const LARGEST_RATIO = 1.05;

const areAlike = (a: number, b: number): boolean => Math.max(a, b) <= LARGEST_RATIO * Math.min(a, b);

/**
 * The bandwidth that most of a catalogue's figures were read in; of two that are equally frequent the wider.
 *
 * @param limits - upper limits in hertz, one per figure
 * @returns null without any
 */
export function usualBandwidth(limits: readonly number[]): number | null {
  let best: { readonly hz: number; readonly count: number } | null = null;
  const counts = new Map<number, number>();
  for (const hz of limits) counts.set(hz, (counts.get(hz) ?? 0) + 1);
  for (const hz of [...counts.keys()].sort((a, b) => b - a)) {
    let count = 0;
    for (const [other, times] of counts) if (areAlike(hz, other)) count += times;
    if (!best || count > best.count) best = { hz, count };
  }
  return best?.hz ?? null;
}

/**
 * Why a figure of one bandwidth is not ranked among those of another: the same noise reads lower over less of it.
 *
 * @param hz - upper limit of the figure; null where it has none
 * @param usual - of the others
 * @returns null where they are alike
 */
export function unlikeBandwidth(hz: number | null, usual: number | null): string | null {
  if (hz === null || usual === null || areAlike(hz, usual)) return null;
  const text = (limit: number): string => `${(limit / 1000).toFixed(1).replace(/\.0$/, '')} kHz`;
  return `read up to ${text(hz)}, the others up to ${text(usual)}: over less of the band the same noise reads lower`;
}
