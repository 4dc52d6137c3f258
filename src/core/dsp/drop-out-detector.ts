import { BLOCK_FRAMES } from '../audio/sample-stream';
import { STRIDE, type ChannelBlock } from './channel-block';

/** A hole in a signal: the link held its last value (or zero), or played the same piece once more. */
export interface DropOut {
  readonly kind: 'gap' | 'repeat';
  readonly startS: number;
  readonly lengthS: number;
}

/** Shorter holes are not counted (measurements.md E; the limit is common practice, no source). */
export const SHORTEST_DROP_OUT_S = 0.005;
/** A repeat is looked for this far back: buffers of wireless links and sound cards. */
const LONGEST_LAG_S = 0.25;
/** A signal that equals itself for longer is periodic (a test tone), not a repeated buffer. */
const LONGEST_REPEAT_S = 0.3;
/** Most drop-outs that are listed; the count goes on. */
const MOST_LISTED = 500;
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
  readonly found: DropOut[] = [];
  count = 0;
  private readonly shortest: number;
  private readonly longestLag: number;
  private readonly longestRepeat: number;
  /** The block and its past. */
  private readonly ring: Float64Array;
  private position = 0;
  /** First sample that has not come yet. */
  private stored = 0;
  private runStart = 0;
  private runValue = NaN;
  /** Whether sound came shortly before a run that began in an earlier block: it may last longer than the past is kept. */
  private isAfterSound: boolean | null = null;
  /** Places of peaks, and how far back one of equal value stands: what may be repeats. */
  private readonly candidates: Float64Array;
  private repeatEnd = 0;
  private repeatStart = 0;
  private repeatLag = 0;

  /**
   * @param sampleRate - in hertz
   * @param block - the block that is pushed, with {@link dropOutPast}
   * @throws RangeError for a block that keeps less
   */
  constructor(
    private readonly sampleRate: number,
    private readonly block: ChannelBlock,
  ) {
    this.candidates = block.part(block.kernel.CANDIDATES, (2 * BLOCK_FRAMES) / STRIDE);
    this.shortest = Math.ceil(SHORTEST_DROP_OUT_S * sampleRate);
    this.longestLag = Math.round(LONGEST_LAG_S * sampleRate);
    this.longestRepeat = Math.round(LONGEST_REPEAT_S * sampleRate);
    this.ring = block.ring;
    if (this.ring.length < BLOCK_FRAMES + dropOutPast(sampleRate)) throw new RangeError('The block keeps too little of the past'); // prettier-ignore
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
      if (at >= this.repeatEnd) this.compare(at, this.candidates[i + 1]);
    }
    this.position += count;
  }

  /** Closes what the end of the clip leaves open; a gap that lasts to the end is the end of the recording, not a hole. */
  finish(): void {
    this.closeRepeat();
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
    const length = start + end - this.runStart;
    const isGap = length >= this.shortest && (this.isAfterSound ?? this.isSoundBefore(this.runStart));
    if (isGap) this.note('gap', this.runStart, length);
    this.runValue = NaN;
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
    const available = Math.min(this.stored, at + this.longestRepeat + 1);
    let end = at + 1;
    while (end < available && same(end)) end++;
    let begin = at;
    while (begin - 1 - lag >= 0 && at - begin <= this.longestRepeat && same(begin - 1)) begin--;
    const length = end - begin;
    if (length < this.shortest) return;
    let changes = 0;
    for (let i = begin + 1; i < end; i++) if (ring[i % size] !== ring[(i - 1) % size]) changes++;
    if (changes < LEAST_CHANGES * length) return;
    if (lag === this.repeatLag && begin <= this.repeatEnd) this.repeatEnd = Math.max(this.repeatEnd, end);
    else {
      this.closeRepeat();
      this.repeatStart = begin;
      this.repeatLag = lag;
      this.repeatEnd = end;
    }
  }

  private closeRepeat(): void {
    const length = this.repeatEnd - this.repeatStart;
    if (length >= this.shortest && length <= this.longestRepeat) this.note('repeat', this.repeatStart, length);
    this.repeatStart = this.repeatEnd;
  }

  private note(kind: DropOut['kind'], start: number, length: number): void {
    this.count++;
    if (this.found.length < MOST_LISTED) {
      this.found.push({ kind, startS: start / this.sampleRate, lengthS: length / this.sampleRate });
    }
  }
}
