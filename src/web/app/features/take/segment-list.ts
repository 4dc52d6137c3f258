import type { NumberSheet } from '#core/text/read-number';
import type { Segments } from '#contracts/segments';
import { SHEETS } from '../../ui/field/number-sheets';

/** Kinds of segments, in the order of the list. */
export const SEGMENT_KINDS = ['speech', 'silence', 'events'] as const;
export type SegmentKind = (typeof SEGMENT_KINDS)[number];

/** What each kind is called and drawn with; a word stands beside every colour. */
export const KIND_LOOK: Readonly<Record<SegmentKind, { readonly name: string; readonly colour: string }>> = {
  speech: { name: 'Speech', colour: '--azurite' },
  silence: { name: 'Silence', colour: '--malachite' },
  events: { name: 'Event', colour: '--ochre' },
};

/** Shortest segment that a person can make; shorter ones are slips of the hand. */
export const SHORTEST_S = 0.05;
/** Length of a segment that is added by a button. */
const NEW_S = 1;

/** One segment with its place in the lists. */
export interface SegmentRow {
  readonly id: string;
  readonly kind: SegmentKind;
  readonly index: number;
  readonly startS: number;
  readonly endS: number;
}

/** All segments in the order of time. */
export function segmentRows(segments: Segments): SegmentRow[] {
  return SEGMENT_KINDS.flatMap((kind) =>
    segments[kind].map(({ startS, endS }, index) => ({ id: `${kind}-${index}`, kind, index, startS, endS })),
  ).sort((a, b) => a.startS - b.startS);
}

/** What the fields for the edges of a segment take: within the clip (its end as the field shows it counts as its end), and not turned over. */
export function edgeSheets(
  { startS, endS }: Pick<SegmentRow, 'startS' | 'endS'>,
  durationS: number,
): { readonly start: NumberSheet; readonly end: NumberSheet } {
  return {
    start: { ...SHEETS.place, least: 0, most: floorMs(endS - SHORTEST_S) },
    end: { ...SHEETS.place, least: ceilMs(startS + SHORTEST_S), most: ceilMs(durationS) },
  };
}

// To the millisecond, on the side that is allowed; what binary fractions leave does not make another one.
const floorMs = (s: number): number => Math.floor(1000 * s + 1e-6) / 1000;
const ceilMs = (s: number): number => Math.ceil(1000 * s - 1e-6) / 1000;

/**
 * Moves the edges of a segment, within the clip and never turned over.
 *
 * @param row - the segment
 * @param startS - wanted start
 * @param endS - wanted end
 * @param durationS - length of the clip
 */
export function moved(segments: Segments, row: SegmentRow, startS: number, endS: number, durationS: number): Segments {
  const start = Math.max(0, Math.min(startS, durationS - SHORTEST_S));
  const end = Math.min(durationS, Math.max(endS, start + SHORTEST_S));
  return {
    ...segments,
    [row.kind]: segments[row.kind].map((s, i) => (i === row.index ? { startS: start, endS: end } : s)),
  };
}

export function without(segments: Segments, row: SegmentRow): Segments {
  return { ...segments, [row.kind]: segments[row.kind].filter((_, i) => i !== row.index) };
}

/** Adds a segment at a moment (usually where the cursor stands). */
export function added(segments: Segments, kind: SegmentKind, atS: number, durationS: number): Segments {
  const startS = Math.max(0, Math.min(atS, durationS - SHORTEST_S));
  const segment = { startS, endS: Math.min(durationS, startS + NEW_S) };
  return { ...segments, [kind]: [...segments[kind], segment].sort((a, b) => a.startS - b.startS) };
}
