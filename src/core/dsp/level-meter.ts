/** Equal samples in a row at the extreme that count as one clipped run (AES17 leaves the number to the user; 3 is common practice, no source). */
const CLIPPED_RUN = 3;

/**
 * Extremes, sums and clipped runs of one channel, in one walk.
 * A clipped run is three or more equal samples in a row at the highest or the lowest value of the clip,
 * so that a clip turned down after it was clipped is still found out.
 */
export class LevelMeter {
  highest = -Infinity;
  lowest = Infinity;
  /** Sum of samples. */
  sum = 0;
  /** Sum of squares. */
  sumOfSquares = 0;
  count = 0;
  private topLength = 0;
  private topRuns = 0;
  private bottomLength = 0;
  private bottomRuns = 0;

  /** Runs at the highest value plus runs at the lowest value so far. */
  get clippedRuns(): number {
    return this.topRuns + this.bottomRuns;
  }

  /** Largest magnitude so far; 0 before the first sample. */
  get peak(): number {
    return this.count === 0 ? 0 : Math.max(Math.abs(this.highest), Math.abs(this.lowest));
  }

  /**
   * @param samples - full scale ±1
   * @param count - how many of them to take
   */
  push(samples: Float64Array, count: number): void {
    let { highest, lowest, topLength, topRuns, bottomLength, bottomRuns } = this;
    let sum = 0;
    let squares = 0;
    for (let i = 0; i < count; i++) {
      const x = samples[i];
      sum += x;
      squares += x * x;
      if (x < highest) topLength = 0;
      else if (x === highest) {
        if (++topLength === CLIPPED_RUN) topRuns++;
      } else {
        highest = x;
        topLength = 1;
        topRuns = 0;
      }
      if (x > lowest) bottomLength = 0;
      else if (x === lowest) {
        if (++bottomLength === CLIPPED_RUN) bottomRuns++;
      } else {
        lowest = x;
        bottomLength = 1;
        bottomRuns = 0;
      }
    }
    this.sum += sum;
    this.sumOfSquares += squares;
    this.count += count;
    Object.assign(this, { highest, lowest, topLength, topRuns, bottomLength, bottomRuns });
  }
}
