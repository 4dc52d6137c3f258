import { STRIDE, type ChannelBlock } from './channel-block';

/** Most columns that a waveform is drawn with. */
const MOST_COLUMNS = 2_048;

/**
 * Lowest and highest sample per column of a waveform, for a clip whose length is not known beforehand:
 * columns begin short, and whenever there are too many, neighbours are joined and the column length doubles.
 */
export class WaveformPeaks {
  private readonly low = new Float32Array(MOST_COLUMNS);
  private readonly high = new Float32Array(MOST_COLUMNS);
  private columns = 0;
  /** In strides. */
  private columnLength = 2;
  private inColumn = 0;
  private lowest = Infinity;
  private highest = -Infinity;

  /**
   * Columns begin and end with strides.
   *
   * @param channels - the same block of every channel; the extremes of all of them count
   */
  push(channels: readonly ChannelBlock[]): void {
    for (let s = 0; s < channels[0].strides; s++) {
      for (const { lowest, highest } of channels) {
        if (lowest[s] < this.lowest) this.lowest = lowest[s];
        if (highest[s] > this.highest) this.highest = highest[s];
      }
      if (++this.inColumn === this.columnLength) this.closeColumn();
    }
  }

  /** @returns pairs low, high per column, and how many frames one column covers */
  finish(): { readonly pairs: Float32Array<ArrayBuffer>; readonly framesPerColumn: number } {
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
