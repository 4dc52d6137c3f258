import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { clipScript } from '#press/press';
import type { PackFile } from './sent-zip';

/** A whole number of threes: base64 of the parts is base64 of the whole. */
const PART_BYTES = 3 * 65_536;

async function* scriptParts(href: string, clip: string): AsyncGenerator<Buffer> {
  const { before, after } = clipScript(href);
  yield Buffer.from(before);
  // A stream may give less than it was asked for: what is over three waits for the next part.
  let rest = Buffer.alloc(0);
  for await (const read of createReadStream(clip, { highWaterMark: PART_BYTES })) {
    const bytes = Buffer.concat([rest, read as Buffer]);
    const whole = bytes.length - (bytes.length % 3);
    rest = bytes.subarray(whole);
    yield Buffer.from(bytes.toString('base64', 0, whole), 'latin1');
  }
  yield Buffer.from(rest.toString('base64') + after);
}

/** A clip as a script that hands its bytes over, sent as it is read. */
export async function scriptFile(href: string, clip: string): Promise<PackFile> {
  const { before, after } = clipScript(href);
  const base64 = 4 * Math.ceil((await stat(clip)).size / 3);
  const hash = createHash('sha256');
  for await (const part of scriptParts(href, clip)) hash.update(part);
  return {
    path: href,
    bytes: Buffer.byteLength(before) + base64 + Buffer.byteLength(after),
    sha256: hash.digest('hex'),
    open: () => Readable.from(scriptParts(href, clip)),
  };
}
