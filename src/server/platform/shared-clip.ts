import { statSync } from 'node:fs';
import { MessageChannel, type MessagePort } from 'node:worker_threads';
import type { SharedStretches } from '#worker/shared-stretches';
import { noneTaken, takeNoMore } from '#worker/taken-count';

/** Some six minutes of one channel at 48 kHz and 24 bits: for less no thread is worth starting. */
const BYTES_PER_THREAD = 50e6;

/** Who shares a clip, and how it is cut: all of it can be less in a test. */
export interface Sharing {
  readonly bytesPerThread?: number;
  readonly longFrom?: number;
}

/**
 * How many threads help the one that measures a clip: as many as stand idle, where there is enough for each.
 *
 * @param bytes - of its file
 * @param clips - that are being measured, with this one
 * @param threads - that measure
 */
export const helpersFor = (
  bytes: number,
  clips: number,
  threads: number,
  { bytesPerThread = BYTES_PER_THREAD }: Sharing = {},
): number => Math.max(0, Math.min(threads - clips, Math.floor(bytes / bytesPerThread) - 1));

/**
 * Measures a clip with helpers.
 *
 * @param helpers - how many
 * @param sharing - how the clip is cut
 * @param help - starts "read-stretches" with its end of the talk
 * @param measure - starts "analyse-clip" with the other ends
 * @returns what the latter gives
 */
export function withHelpers<Result>(
  helpers: number,
  { longFrom }: Sharing,
  help: (shared: SharedStretches, to: MessagePort) => Promise<void>,
  measure: (shared: SharedStretches, others: readonly MessagePort[]) => Promise<Result>,
): Promise<Result> {
  const shared = { taken: noneTaken(), longFrom };
  const talks = Array.from({ length: helpers }, () => new MessageChannel());
  for (const { port2 } of talks) {
    // What a helper does not bring is measured by the one that was asked, and refused by it. Where the helper could not
    // even start, nobody else closes its end.
    help(shared, port2).catch(() => port2.close());
  }
  // Where it was refused, or its thread died, nobody needs what is left of the clip.
  return measure(
    shared,
    talks.map(({ port1 }) => port1),
  ).finally(() => takeNoMore(shared.taken));
}

/** Bytes of a file; 0 where there is none: whoever opens it says so. */
export const bytesOf = (path: string): number => statSync(path, { throwIfNoEntry: false })?.size ?? 0;
