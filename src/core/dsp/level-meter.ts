import { STRIDE, type ChannelBlock } from './channel-block';

/** Equal samples in a row at the extreme that count as one clipped run (AES17 leaves the number to the user; 3 is common practice, no source). */
const CLIPPED_RUN = 3;
/** A flat top further below full scale than 20 dB is a coarse sine or digital silence, not clipping. */
const LOWEST_CLIP = 0.1;

/** Highest value of a signal, or of the signal turned over, and how many runs of three or more samples stand at it. */
export interface ExtremeReading {
  /** −∞ before the first sample. */
  readonly extreme: number;
  readonly runs: number;
}

/** What a {@link LevelMeter} has found. */
export interface LevelReading {
  readonly top: ExtremeReading;
  /** Of the signal turned over. */
  readonly bottom: ExtremeReading;
}

/** Largest magnitude; 0 before the first sample. */
export const peakOf = ({ top, bottom }: LevelReading): number =>
  top.extreme === -Infinity ? 0 : Math.max(Math.abs(top.extreme), Math.abs(bottom.extreme));

/** Runs at the highest value plus runs at the lowest value. */
export const clippedRunsOf = ({ top, bottom }: LevelReading): number =>
  [top, bottom].reduce((s, { extreme, runs }) => s + (extreme >= LOWEST_CLIP ? runs : 0), 0);

/** Readings of stretches that follow each other, each primed with what came before it. */
export function joinLevels(parts: readonly LevelReading[]): LevelReading {
  const join = (side: readonly ExtremeReading[]): ExtremeReading => {
    const extreme = Math.max(...side.map((s) => s.extreme));
    return { extreme, runs: side.reduce((sum, s) => sum + (s.extreme === extreme ? s.runs : 0), 0) };
  };
  return { top: join(parts.map((p) => p.top)), bottom: join(parts.map((p) => p.bottom)) };
}

/**
 * Extremes and clipped runs of one channel. A clipped run is three or more equal samples in a row at the highest or
 * the lowest value of the clip, so that a clip turned down after it was clipped is still found out.
 * Only blocks that reach an extreme found so far are looked at, and of these the strides that do, sample by sample.
 */
export class LevelMeter {
  readonly top = new ExtremeRuns();
  readonly bottom = new ExtremeRuns();

  /** Runs at the highest value plus runs at the lowest value so far. */
  get clippedRuns(): number {
    return clippedRunsOf(this);
  }

  /** Largest magnitude so far; 0 before the first sample. */
  get peak(): number {
    return peakOf(this);
  }

  /** What was found so far. */
  read(): LevelReading {
    const reading = ({ extreme, runs }: ExtremeRuns): ExtremeReading => ({ extreme, runs });
    return { top: reading(this.top), bottom: reading(this.bottom) };
  }

  /**
   * Takes the end of what came before: a run that begins there is not counted twice, nor lost where it goes on.
   *
   * @param block - the last full block before the first that is pushed
   */
  prime(block: ChannelBlock): void {
    const { samples, count } = block;
    this.top.prime(samples, count - CLIPPED_RUN, count, 1);
    this.bottom.prime(samples, count - CLIPPED_RUN, count, -1);
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
  runs = 0;
  /** Length of the run that the last sample belongs to. */
  length = 0;

  /** Samples that somebody else has counted. */
  prime(samples: Float64Array, from: number, to: number, sign: 1 | -1): void {
    this.scan(samples, from, to, sign);
    this.runs = 0;
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
