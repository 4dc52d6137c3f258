import { PLAIN_PATHS } from '#contracts/http';
import type { Chunk } from './outbox';

/** What became of a chunk. */
export type Delivery = 'arrived' | 'refused' | 'unreachable';

/** Sends one chunk to the server. */
export async function sendChunk({ recording, frame, bytes }: Chunk): Promise<Delivery> {
  const path = PLAIN_PATHS.chunk.replace(':id', recording).replace(':frame', String(frame));
  try {
    const response = await fetch(path, {
      method: 'POST',
      headers: { 'content-type': 'application/octet-stream' },
      body: bytes as Uint8Array<ArrayBuffer>,
    });
    if (response.ok) return 'arrived';
    // A recording that the server does not know any more will not be known later either.
    return response.status < 500 ? 'refused' : 'unreachable';
  } catch {
    return 'unreachable';
  }
}
