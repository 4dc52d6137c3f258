import type { Stretch } from '../../data/sessions';

/** A take is at least this long. */
export const LEAST_STRETCH_S = 0.1;
const hundredths = (seconds: number): number => Math.round(100 * seconds) / 100;

/** Marks with one edge of a stretch pulled elsewhere: it stays in the recording, and the stretch keeps its order. */
export function pulled(
  marks: readonly Stretch[],
  index: number,
  edge: keyof Stretch,
  toS: number,
  durationS: number,
): Stretch[] {
  return marks.map((mark, i) => {
    if (i !== index) return mark;
    const least = edge === 'startS' ? 0 : mark.startS + LEAST_STRETCH_S;
    const most = edge === 'startS' ? mark.endS - LEAST_STRETCH_S : durationS;
    return { ...mark, [edge]: hundredths(Math.min(most, Math.max(least, toS))) };
  });
}

/** Marks with one stretch more, in the widest gap between them; null where there is none. */
export function withStretch(marks: readonly Stretch[], durationS: number): Stretch[] | null {
  const edges = [0, ...marks.flatMap((m) => [m.startS, m.endS]), durationS];
  const gaps = Array.from({ length: edges.length / 2 }, (_, i) => ({ startS: edges[2 * i], endS: edges[2 * i + 1] }));
  const [widest] = gaps.sort((a, b) => b.endS - b.startS - (a.endS - a.startS));
  if (widest.endS - widest.startS < LEAST_STRETCH_S) return null;
  const added = { startS: hundredths(widest.startS), endS: hundredths(widest.endS) };
  return [...marks, added].sort((a, b) => a.startS - b.startS);
}

/** Marks without one of them. */
export const withoutStretch = (marks: readonly Stretch[], index: number): Stretch[] =>
  marks.filter((_, i) => i !== index);
