/** A Float64Array that grows by doubling: a list of numbers without boxing. */
export class GrowingFloats {
  private buffer = new Float64Array(1024);
  length = 0;

  push(value: number): void {
    if (this.length === this.buffer.length) {
      const larger = new Float64Array(2 * this.buffer.length);
      larger.set(this.buffer);
      this.buffer = larger;
    }
    this.buffer[this.length++] = value;
  }

  /** Begins anew. */
  clear(): void {
    this.length = 0;
  }

  /** The values so far, as a view that the next push may leave behind. */
  view(): Float64Array {
    return this.buffer.subarray(0, this.length);
  }
}
