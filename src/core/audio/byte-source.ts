/**
 * Random access to the bytes of a file, synchronous because it is only used inside workers:
 * node:fs in a worker thread, FileReaderSync in a web worker, an array in tests.
 */
export interface ByteSource {
  readonly size: number;
  /** Fills `into` from `position` on; returns how many bytes were there (less only at the end). */
  read(into: Uint8Array, position: number): number;
}

/** A ByteSource over bytes already in memory. */
export function bytesInMemory(bytes: Uint8Array): ByteSource {
  return {
    size: bytes.length,
    read(into, position) {
      const part = bytes.subarray(position, position + into.length);
      into.set(part);
      return part.length;
    },
  };
}
