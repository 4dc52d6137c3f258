import { join } from 'node:path';
import { allocateBlock } from '#core/audio/sample-stream';
import { openClip } from '../open-clip';
import { ClipCopy } from '../write-clip';

/** A stretch of a recording, in seconds. */
export interface Stretch {
  readonly startS: number;
  readonly endS: number;
}

/** Order to a worker: cut a long recording into takes. */
export interface CutClipTask {
  readonly path: string;
  readonly stretches: readonly Stretch[];
  /** Folder that the pieces are written to. */
  readonly into: string;
}

/** A piece that was written. */
export interface CutPiece extends Stretch {
  readonly path: string;
}

/** Samples are copied, not changed. */
export default async function cutClip({ path, stretches, into }: CutClipTask): Promise<CutPiece[]> {
  const pieces: CutPiece[] = [];
  for (const [i, { startS, endS }] of stretches.entries()) {
    const piece = join(into, `${String(i + 1).padStart(3, '0')}.wav`);
    await copyStretch(path, startS, endS, piece);
    pieces.push({ startS, endS, path: piece });
  }
  return pieces;
}

async function copyStretch(path: string, startS: number, endS: number, into: string): Promise<void> {
  const stream = openClip(path);
  const { format } = stream;
  const from = Math.round(startS * format.sampleRate);
  const to = Math.min(format.frames, Math.round(endS * format.sampleRate));
  const copy = new ClipCopy(into, format, format.channels, to - from);
  try {
    const block = allocateBlock(format.channels);
    let at = 0;
    if (stream.seek) {
      stream.seek(from);
      at = from;
    }
    for (let count = await stream.read(block); count > 0 && at < to; count = await stream.read(block)) {
      copy.add(block, Math.max(0, from - at), Math.min(count, to - at));
      at += count;
    }
    copy.end();
  } finally {
    copy.close();
    stream.close();
  }
}
