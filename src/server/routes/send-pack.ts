import type { Request, Response } from 'express';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { Pack } from '../publish/sent-zip';

/** Where a transfer goes on, as its header says; null for the whole. What is no range of ours is answered with the whole. */
export function rangeFrom(header: string | undefined, length: number): number | 'beyond' | null {
  const from = /^bytes=(\d{1,15})-(\d{0,15})$/.exec(header ?? '');
  if (!from || (from[2] !== '' && Number(from[2]) < length - 1)) return null;
  const first = Number(from[1]);
  return first < length ? first : 'beyond';
}

/** Lets the first bytes go by. */
function without(bytes: number): Transform {
  let left = bytes;
  return new Transform({
    transform(chunk: Buffer, _encoding, done) {
      const skipped = Math.min(left, chunk.length);
      left -= skipped;
      done(null, skipped < chunk.length ? chunk.subarray(skipped) : undefined);
    },
  });
}

/** Sends a pack as it is read; one that broke off goes on where it ended, as long as it is the same (RFC 9110, 14). */
export async function sendPack(pack: Pack, request: Request, response: Response): Promise<void> {
  const tag = `"${pack.tag}"`;
  response.attachment(pack.name).type('application/zip');
  response.setHeader('ETag', tag);
  response.setHeader('Accept-Ranges', 'bytes');
  const isSame = request.headers['if-range'] === undefined || request.headers['if-range'] === tag;
  const from = isSame ? rangeFrom(request.headers.range, pack.bytes) : null;
  if (from === 'beyond') {
    response.setHeader('Content-Range', `bytes */${pack.bytes}`);
    response.status(416).end();
    return;
  }
  response.setHeader('Content-Length', pack.bytes - (from ?? 0));
  if (from !== null) {
    response.status(206);
    response.setHeader('Content-Range', `bytes ${from}-${pack.bytes - 1}/${pack.bytes}`);
  }
  try {
    await pipeline(await pack.stream(), without(from ?? 0), response);
  } catch (error) {
    // The other side has gone: it comes back for the rest. Anything else breaks the transfer off, too, and is told.
    if ((error as NodeJS.ErrnoException).code !== 'ERR_STREAM_PREMATURE_CLOSE') throw error;
  }
}
