import { STRIDE, type ChannelBlock } from './channel-block';

/** Most columns that a waveform is drawn with. */
const MOST_COLUMNS = 2_048;
const SHORTEST_COLUMN = 2 * STRIDE;

/** A waveform, or a stretch of one. */
export interface WaveformColumns {
  /** Pairs low, high per column, over all channels. */
  readonly pairs: Float32Array<ArrayBuffer>;
  /** Samples that a column covers; the last may be short. */
  readonly framesPerColumn: number;
}

/**
 * Samples that a column covers in the waveform of so many samples.
 *
 * @example
 *   waveformColumn(48_000); // => 64
 */
export function waveformColumn(frames: number): number {
  let column = SHORTEST_COLUMN;
  while (Math.ceil(frames / column) >= MOST_COLUMNS) column *= 2;
  return column;
}

/**
 * The waveform of a clip from those of its stretches, each a whole number of columns but the last: what
 * {@link WaveformPeaks} makes of the whole.
 *
 * @param stretches - in their order, all with columns of one length
 */
export function joinWaveforms(stretches: readonly WaveformColumns[]): WaveformColumns {
  if (stretches.length === 1) return stretches[0];
  const whole = new WaveformPeaks(stretches[0].framesPerColumn);
  for (const { pairs } of stretches) for (let i = 0; i < pairs.length; i += 2) whole.takeColumn(pairs[i], pairs[i + 1]);
  return whole.finish();
}

/**
 * Lowest and highest sample per column of a waveform, for a clip whose length is not known beforehand:
 * columns begin short, and whenever there are too many, neighbours are joined and the column length doubles.
 */
export class WaveformPeaks {
  private readonly low = new Float32Array(MOST_COLUMNS);
  private readonly high = new Float32Array(MOST_COLUMNS);
  private columns = 0;
  private readonly shortest: number;
  /** In strides. */
  private columnLength: number;
  private inColumn = 0;
  private lowest = Infinity;
  private highest = -Infinity;

  /** @param framesPerColumn - to begin with: a power of two, two strides or more */
  constructor(framesPerColumn = SHORTEST_COLUMN) {
    this.columnLength = framesPerColumn / STRIDE;
    this.shortest = this.columnLength;
  }

  /** Takes a column of the length that was begun with. */
  takeColumn(lowest: number, highest: number): void {
    this.take(lowest, highest);
    this.inColumn += this.shortest;
    if (this.inColumn === this.columnLength) this.closeColumn();
  }

  /**
   * Columns begin and end with strides.
   *
   * @param channels - the same block of every channel; the extremes of all of them count
   */
  push(channels: readonly ChannelBlock[]): void {
    const { strides } = channels[0];
    for (let s = 0; s < strides;) {
      const to = Math.min(strides, s + this.columnLength - this.inColumn);
      if (to - s === strides) for (const { bottom, top } of channels) this.take(bottom, top);
      else this.takeStrides(channels, s, to);
      this.inColumn += to - s;
      s = to;
      if (this.inColumn === this.columnLength) this.closeColumn();
    }
  }

  private takeStrides(channels: readonly ChannelBlock[], from: number, to: number): void {
    for (const { lowest, highest } of channels) {
      for (let s = from; s < to; s++) this.take(lowest[s], highest[s]);
    }
  }

  private take(lowest: number, highest: number): void {
    if (lowest < this.lowest) this.lowest = lowest;
    if (highest > this.highest) this.highest = highest;
  }

  /** The last column may be short. */
  finish(): WaveformColumns {
    if (this.inColumn > 0) this.closeColumn();
    const pairs = new Float32Array(2 * this.columns);
    for (let i = 0; i < this.columns; i++) {
      pairs[2 * i] = this.low[i];
      pairs[2 * i + 1] = this.high[i];
    }
    return { pairs, framesPerColumn: this.columnLength * STRIDE };
  }

  private closeColumn(): void {
    this.low[this.columns] = this.lowest;
    this.high[this.columns] = this.highest;
    this.columns++;
    this.inColumn = 0;
    this.lowest = Infinity;
    this.highest = -Infinity;
    if (this.columns === MOST_COLUMNS) this.joinNeighbours();
  }

  private joinNeighbours(): void {
    for (let i = 0; i < MOST_COLUMNS / 2; i++) {
      this.low[i] = Math.min(this.low[2 * i], this.low[2 * i + 1]);
      this.high[i] = Math.max(this.high[2 * i], this.high[2 * i + 1]);
    }
    this.columns = MOST_COLUMNS / 2;
    this.columnLength *= 2;
  }
}
