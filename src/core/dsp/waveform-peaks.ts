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
  private columnLength = 64;
  private inColumn = 0;
  private lowest = Infinity;
  private highest = -Infinity;

  /**
   * @param block - one array per channel; the extremes of all of them count
   * @param count - frames in the block
   */
  push(block: readonly Float64Array[], count: number): void {
    for (let from = 0; from < count; ) {
      const to = Math.min(count, from + this.columnLength - this.inColumn);
      for (const samples of block) {
        for (let i = from; i < to; i++) {
          const x = samples[i];
          if (x < this.lowest) this.lowest = x;
          if (x > this.highest) this.highest = x;
        }
      }
      this.inColumn += to - from;
      from = to;
      if (this.inColumn === this.columnLength) this.closeColumn();
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
    return { pairs, framesPerColumn: this.columnLength };
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
