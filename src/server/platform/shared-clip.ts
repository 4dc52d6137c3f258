import { statSync } from 'node:fs';

/** Some twelve minutes of one channel at 48 kHz and 24 bits. */
const LONG_BYTES = 100e6;

/**
 * Whether two threads share a clip, one for its levels and one for its spectra: where it is long, and one would stand
 * idle. Its samples are read twice for that, which is not worth it for what is quick.
 *
 * @param bytes - of its file
 * @param clips - that are being measured, with this one
 * @param threads - that measure
 * @param longFrom - from how many bytes on a clip is long
 */
export const isShared = (bytes: number, clips: number, threads: number, longFrom = LONG_BYTES): boolean =>
  bytes >= longFrom && clips < threads;

/** Bytes of a file; 0 where there is none: whoever opens it says so. */
export const bytesOf = (path: string): number => statSync(path, { throwIfNoEntry: false })?.size ?? 0;
