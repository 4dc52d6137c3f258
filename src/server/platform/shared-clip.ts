import { statSync } from 'node:fs';
import { MessageChannel, type MessagePort } from 'node:worker_threads';

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

/**
 * Measures a clip in two halves that talk with each other, whoever runs them.
 *
 * @param takeSpectra - starts "read-spectra" with its end of the talk
 * @param takeLevels - starts "analyse-clip" with the other end
 * @returns what the latter gives
 * @throws what the first half throws before all else: that the spectra did not come says less than why
 */
export async function inHalves<Result>(
  takeSpectra: (levels: MessagePort) => Promise<void>,
  takeLevels: (spectra: MessagePort) => Promise<Result>,
): Promise<Result> {
  const { port1, port2 } = new MessageChannel();
  const spectra = takeSpectra(port2);
  // Where it could not even start, nobody else closes it.
  spectra.catch(() => port2.close());
  const [half, whole] = await Promise.allSettled([spectra, takeLevels(port1)]);
  if (half.status === 'rejected') throw half.reason;
  if (whole.status === 'rejected') throw whole.reason;
  return whole.value;
}

/** Bytes of a file; 0 where there is none: whoever opens it says so. */
export const bytesOf = (path: string): number => statSync(path, { throwIfNoEntry: false })?.size ?? 0;
