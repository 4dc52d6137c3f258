import type { DropOut, DropOutList } from '../dsp/drop-out-reading';
import { measured, type Measurement } from './measurement';

/** Holes of a clip. */
export interface DropOuts {
  /** In order of time, of the worst channel; at most some hundred are listed. */
  readonly listed: readonly DropOut[];
  readonly count: number;
}

/** The channel with the most holes stands for the clip: links usually lose all channels at once. */
export function worstChannel(channels: readonly DropOutList[]): DropOuts {
  const worst = channels.reduce((a, b) => (b.count > a.count ? b : a));
  return { listed: [...worst.found].sort((a, b) => a.startS - b.startS), count: worst.count };
}

/** The figure with its condition. */
export function dropOutMeasurement(dropOuts: DropOuts): Measurement {
  const longest = dropOuts.listed.reduce((s, d) => Math.max(s, d.lengthS), 0);
  return measured('dropOuts', dropOuts.count, 'gaps and repeats of 5 ms or more, worst channel', {
    settings: dropOuts.count === 0 ? {} : { longestMs: Math.round(1e5 * longest) / 100 },
  });
}
