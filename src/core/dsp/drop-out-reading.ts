/** A hole in a signal: the link held its last value (or zero), or played the same piece once more. */
export interface DropOut {
  readonly kind: 'gap' | 'repeat';
  readonly startS: number;
  readonly lengthS: number;
}

/** Shorter holes are not counted (measurements.md E; the limit is common practice, no source). */
export const SHORTEST_DROP_OUT_S = 0.005;
/** A signal that equals itself for longer is periodic (a test tone), not a repeated buffer. */
export const LONGEST_REPEAT_S = 0.3;
/** Most drop-outs that are listed; the count goes on. */
const MOST_LISTED = 500;

/** A piece that equals what stood `lag` before it; all in samples, from the beginning of the clip. */
export interface Repeat {
  readonly start: number;
  readonly end: number;
  readonly lag: number;
}

/** A run of one value: where it began, and whether sound came shortly before it. */
export interface OpenRun {
  readonly start: number;
  readonly isAfterSound: boolean;
}

/** What was found in a stretch of a clip. What reaches over its edges is judged together with its neighbours. */
export interface DropOutReading {
  /** Those that lie within it. */
  readonly holes: DropOutList;
  /** Whether one run lasts from before its beginning to its end. */
  readonly isHeld: boolean;
  /** Where a run ended that lasted when it began. */
  readonly firstRunEnd: number | null;
  /** One that lasted when it ended. */
  readonly openRun: OpenRun | null;
  /** Repeats that may go on beyond its edges, in their order: two at most. */
  readonly repeats: readonly Repeat[];
}

/** Drop-outs of one channel in the order in which they were found, the first {@link MOST_LISTED} of them listed. */
export interface DropOutList {
  readonly found: readonly DropOut[];
  readonly count: number;
}

/** Judges what may be a hole, and keeps it. */
export class Holes implements DropOutList {
  readonly found: DropOut[] = [];
  count = 0;
  readonly shortest: number;
  readonly longestRepeat: number;

  constructor(private readonly sampleRate: number) {
    this.shortest = Math.ceil(SHORTEST_DROP_OUT_S * sampleRate);
    this.longestRepeat = Math.round(LONGEST_REPEAT_S * sampleRate);
  }

  /**
   * @param run - its beginning
   * @param end - its end
   */
  takeRun(run: OpenRun, end: number): void {
    const { start, isAfterSound } = run;
    if (isAfterSound && end - start >= this.shortest) this.note('gap', start, end - start);
  }

  /** What equals itself for longer than a buffer lasts is no repeat. */
  takeRepeat({ start, end }: Repeat): void {
    const length = end - start;
    if (length >= this.shortest && length <= this.longestRepeat) this.note('repeat', start, length);
  }

  /** Takes over what was judged already. */
  takeAll({ found, count }: DropOutList): void {
    this.count += count;
    this.found.push(...found.slice(0, MOST_LISTED - this.found.length));
  }

  private note(kind: DropOut['kind'], start: number, length: number): void {
    this.count++;
    if (this.found.length < MOST_LISTED) {
      this.found.push({ kind, startS: start / this.sampleRate, lengthS: length / this.sampleRate });
    }
  }
}

/**
 * Drop-outs of a channel.
 *
 * @param stretches - what was found in all stretches of a clip, in their order
 * @param sampleRate - in hertz
 */
export function joinDropOuts(stretches: readonly DropOutReading[], sampleRate: number): DropOutList {
  const holes = new Holes(sampleRate);
  let run: OpenRun | null = null;
  let repeat: Repeat | null = null;
  for (const { holes: within, isHeld, firstRunEnd, openRun, repeats } of stretches) {
    if (run && firstRunEnd !== null) holes.takeRun(run, firstRunEnd);
    if (!isHeld) run = openRun;
    const [first, last] = repeats;
    if (first) {
      const whole: Repeat | null = repeat && joinedRepeat(repeat, first);
      if (repeat && !whole) holes.takeRepeat(repeat);
      repeat = whole ?? first;
    }
    if (repeat && last) {
      holes.takeRepeat(repeat);
      repeat = last;
    }
    holes.takeAll(within);
  }
  // A gap that lasts to the end is the end of the recording, not a hole.
  if (repeat) holes.takeRepeat(repeat);
  return holes;
}

/** Two repeats as one, where the second goes on with the first. */
export function joinedRepeat(first: Repeat, second: Repeat): Repeat | null {
  const { start, end, lag } = first;
  return second.lag === lag && second.start <= end ? { start, end: Math.max(end, second.end), lag } : null;
}
