import { BLOCK_FRAMES } from '../audio/sample-stream';
import { STRIDE, type ChannelBlock } from './channel-block';
import {
  Holes,
  LONGEST_REPEAT_S,
  joinedRepeat,
  type DropOutReading,
  type OpenRun,
  type Repeat,
} from './drop-out-reading';

/** A repeat is looked for this far back: buffers of wireless links and sound cards. */
const LONGEST_LAG_S = 0.25;
/** A piece in which fewer samples differ from the one before is next to silence, and equals itself by chance. */
const LEAST_CHANGES = 0.25;
/** A gap counts where sound of at least this magnitude (−70 dBFS) came within 20 ms before it: what nobody hears is no gap. */
const LEAST_SOUND = 3e-4;
const SOUND_BEFORE_S = 0.02;
/** A peak is a candidate where nothing is larger within this many samples to either side. */
const PEAK_REACH = STRIDE;

/** Samples before a block that a repeat of its first sample may reach back to. */
export const dropOutPast = (sampleRate: number): number =>
  Math.round(LONGEST_REPEAT_S * sampleRate) + Math.round(LONGEST_LAG_S * sampleRate) + 2;

/**
 * Finds gaps (runs of one and the same sample value, 5 ms or longer, between sound) and repeats (at least 5 ms of
 * samples that equal what stood up to 250 ms before, bit by bit) in one channel.
 *
 * Repeats are searched from peak to peak: a peak that nothing within ±32 samples exceeds stays such a peak wherever it
 * is copied to, so only peaks of equal value (kernels/repeats.ts) need to be compared sample by sample.
 */
export class DropOutDetector {
  private readonly holes: Holes;
  private readonly longestLag: number;
  /** The block and its past. */
  private readonly ring: Float64Array;
  /** Samples that were taken, those that it was primed with among them; places here count from the first of them. */
  private position = 0;
  private isPrimed = false;
  /** First sample that has not come yet. */
  private stored = 0;
  private runStart = 0;
  private runValue = NaN;
  /** A run that lasts from before the first sample that was pushed. */
  private isHeld = false;
  private firstRunEnd: number | null = null;
  /** Whether sound came shortly before a run that began in an earlier block: it may last longer than the past is kept. */
  private isAfterSound: boolean | null = null;
  /** Places of peaks, and how far back one of equal value stands: what may be repeats. */
  private readonly candidates: Float64Array;
  private repeat: Repeat | null = null;
  /** One that may go on with a repeat of before. */
  private firstRepeat: Repeat | null = null;

  /**
   * @param sampleRate - in hertz
   * @param block - the block that is pushed, with {@link dropOutPast}
   * @param origin - place in the clip of the first sample that it is primed with, or that is pushed
   * @throws RangeError for a block that keeps less
   */
  constructor(
    private readonly sampleRate: number,
    private readonly block: ChannelBlock,
    private readonly origin = 0,
  ) {
    this.candidates = block.part(block.kernel.CANDIDATES, (2 * BLOCK_FRAMES) / STRIDE);
    this.holes = new Holes(sampleRate);
    this.longestLag = Math.round(LONGEST_LAG_S * sampleRate);
    this.ring = block.ring;
    if (this.ring.length < BLOCK_FRAMES + dropOutPast(sampleRate)) throw new RangeError('The block keeps too little of the past'); // prettier-ignore
  }

  /** Takes the block, a full one, as what came before: what is found in it is not this one's. */
  prime(): void {
    const { kernel, count, strides, lowest, highest } = this.block;
    kernel.repeats(strides, this.position, PEAK_REACH, this.longestLag);
    const value = lowest[strides - 1];
    this.isHeld = value === highest[strides - 1];
    this.runValue = this.isHeld ? value : NaN;
    this.isAfterSound = false;
    this.position += count;
    this.isPrimed = true;
  }

  /** Takes the block as it stands: a full one, or the last. */
  push(): void {
    const { kernel, count, strides } = this.block;
    const start = this.position;
    this.stored = start + count;
    if (this.block.flatStrides > 0 || !Number.isNaN(this.runValue)) this.followRuns(start);
    if (!Number.isNaN(this.runValue)) this.isAfterSound ??= this.isSoundBefore(this.runStart);
    const pairs = kernel.repeats(strides, start, PEAK_REACH, this.longestLag);
    for (let i = 0; i < 2 * pairs; i += 2) {
      const at = this.candidates[i];
      // Peaks inside a repeat that was found already tell nothing new.
      if (!this.repeat || at >= this.repeat.end - this.origin) this.compare(at, this.candidates[i + 1]);
    }
    this.position += count;
  }

  /** What was found so far; what is still open among it. */
  read(): DropOutReading {
    const { holes, isHeld, firstRunEnd, firstRepeat, repeat } = this;
    const isOpen = !isHeld && !Number.isNaN(this.runValue);
    return {
      holes: { found: holes.found, count: holes.count },
      isHeld,
      firstRunEnd,
      openRun: isOpen ? { start: this.origin + this.runStart, isAfterSound: this.isAfterSound ?? false } : null,
      repeats: [firstRepeat, repeat].filter((r) => r !== null),
    };
  }

  private followRuns(start: number): void {
    const { samples, count, strides, lowest, highest } = this.block;
    for (let s = 0; s < strides; s++) {
      const from = s * STRIDE;
      const value = lowest[s];
      const isFlat = value === highest[s];
      if (isFlat && value === this.runValue) continue;
      if (!Number.isNaN(this.runValue)) this.endRun(samples, from, Math.min(count, from + STRIDE), start);
      if (isFlat) this.beginRun(start + from, value);
    }
  }

  /** A gap of 5 ms holds at least one whole flat stride: from there its true beginning is looked for backwards. */
  private beginRun(at: number, value: number): void {
    let begin = at;
    while (begin > 0 && at - begin < STRIDE && this.ring[(begin - 1) % this.ring.length] === value) begin--;
    this.runStart = begin;
    this.runValue = value;
    this.isAfterSound = null;
  }

  private endRun(samples: Float64Array, from: number, to: number, start: number): void {
    let end = from;
    while (end < to && samples[end] === this.runValue) end++;
    this.runValue = NaN;
    const place = this.origin + start + end;
    if (this.isHeld) this.firstRunEnd = place;
    else this.holes.takeRun(this.lastRun(start + end), place);
    this.isHeld = false;
  }

  private lastRun(end: number): OpenRun {
    const isLong = end - this.runStart >= this.holes.shortest;
    const isAfterSound = isLong && (this.isAfterSound ?? this.isSoundBefore(this.runStart));
    return { start: this.origin + this.runStart, isAfterSound };
  }

  private isSoundBefore(end: number): boolean {
    const { ring } = this;
    const held = ring[end % ring.length];
    for (let i = Math.max(0, end - Math.round(SOUND_BEFORE_S * this.sampleRate)); i < end; i++) {
      if (Math.abs(ring[i % ring.length] - held) >= LEAST_SOUND) return true;
    }
    return false;
  }

  /** How far the signal equals itself at a lag, around one sample; notes it when long enough. */
  private compare(at: number, lag: number): void {
    const { ring } = this;
    const size = ring.length;
    const same = (i: number): boolean => ring[i % size] === ring[(i - lag) % size];
    const { shortest, longestRepeat } = this.holes;
    const available = Math.min(this.stored, at + longestRepeat + 1);
    let end = at + 1;
    while (end < available && same(end)) end++;
    let begin = at;
    while (begin - 1 - lag >= 0 && at - begin <= longestRepeat && same(begin - 1)) begin--;
    const length = end - begin;
    if (length < shortest) return;
    let changes = 0;
    for (let i = begin + 1; i < end; i++) if (ring[i % size] !== ring[(i - 1) % size]) changes++;
    if (changes < LEAST_CHANGES * length) return;
    this.follow({ start: this.origin + begin, end: this.origin + end, lag });
  }

  private follow(next: Repeat): void {
    const { repeat } = this;
    const whole = repeat && joinedRepeat(repeat, next);
    if (repeat && !whole) {
      if (this.isPrimed && !this.firstRepeat) this.firstRepeat = repeat;
      else this.holes.takeRepeat(repeat);
    }
    this.repeat = whole ?? next;
  }
}
