import { STRIDE, type ChannelBlock } from './channel-block';

/** Equal samples in a row at the extreme that count as one clipped run (AES17 leaves the number to the user; 3 is common practice, no source). */
const CLIPPED_RUN = 3;
/** A flat top further below full scale than 20 dB is a coarse sine or digital silence, not clipping. */
const LOWEST_CLIP = 0.1;

/**
 * Extremes and clipped runs of one channel. A clipped run is three or more equal samples in a row at the highest or
 * the lowest value of the clip, so that a clip turned down after it was clipped is still found out.
 * Only blocks that reach an extreme found so far are looked at, and of these the strides that do, sample by sample.
 */
export class LevelMeter {
  private readonly top = new ExtremeRuns();
  private readonly bottom = new ExtremeRuns();

  /** Runs at the highest value plus runs at the lowest value so far. */
  get clippedRuns(): number {
    return this.top.clippedRuns + this.bottom.clippedRuns;
  }

  /** Largest magnitude so far; 0 before the first sample. */
  get peak(): number {
    return this.top.extreme === -Infinity ? 0 : Math.max(Math.abs(this.top.extreme), Math.abs(this.bottom.extreme));
  }

  /** @param block - full, or the last one */
  push(block: ChannelBlock): void {
    const { samples, count, strides, highest, lowest } = block;
    if (block.top < this.top.extreme && -block.bottom < this.bottom.extreme) {
      this.top.length = 0;
      this.bottom.length = 0;
      return;
    }
    for (let s = 0; s < strides; s++) {
      const end = Math.min(count, (s + 1) * STRIDE);
      if (highest[s] >= this.top.extreme) this.top.scan(samples, s * STRIDE, end, 1);
      else this.top.length = 0;
      if (-lowest[s] >= this.bottom.extreme) this.bottom.scan(samples, s * STRIDE, end, -1);
      else this.bottom.length = 0;
    }
  }
}

/** Runs of equal samples at the highest value of a signal (turned over for the lowest one). */
class ExtremeRuns {
  extreme = -Infinity;
  private runs = 0;
  /** Length of the run that the last sample belongs to. */
  length = 0;

  get clippedRuns(): number {
    return this.extreme >= LOWEST_CLIP ? this.runs : 0;
  }

  scan(samples: Float64Array, from: number, to: number, sign: 1 | -1): void {
    for (let i = from; i < to; i++) {
      const x = sign * samples[i];
      if (x < this.extreme) this.length = 0;
      else if (x === this.extreme) {
        if (++this.length === CLIPPED_RUN) this.runs++;
      } else {
        this.extreme = x;
        this.length = 1;
        this.runs = 0;
      }
    }
  }
}
