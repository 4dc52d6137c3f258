import { closeSync, openSync, writeSync } from 'node:fs';
import { join } from 'node:path';
import { allocateBlock } from '#core/audio/sample-stream';
import { encodeSamples } from '#core/audio/sample-codec';
import { BYTES_PER_SAMPLE, type SampleEncoding } from '#core/audio/audio-format';
import { wavHeader, type WavLayout } from '#core/audio/wav-write';
import { openClip } from '../open-clip';

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
  const file = openSync(into, 'wx');
  try {
    const { format } = stream;
    const from = Math.round(startS * format.sampleRate);
    const to = Math.min(format.frames, Math.round(endS * format.sampleRate));
    const encoding = encodingOf(format.encoding);
    writeSync(
      file,
      wavHeader({ encoding, sampleRate: format.sampleRate, channels: format.channels, frames: to - from }),
    );
    const block = allocateBlock(format.channels);
    let at = 0;
    if (stream.seek) {
      stream.seek(from);
      at = from;
    }
    for (let count = await stream.read(block); count > 0 && at < to; count = await stream.read(block)) {
      const first = Math.max(0, from - at);
      const last = Math.min(count, to - at);
      if (last > first) writeSync(file, encodeSamples(encoding, block, first, last - first));
      at += count;
    }
    if (((to - from) * format.channels * BYTES_PER_SAMPLE[encoding]) % 2 === 1) writeSync(file, new Uint8Array(1));
  } finally {
    closeSync(file);
    stream.close();
  }
}

/** Sixteen bits stay sixteen bits; 32-bit integers and everything of a FLAC fit into 24 bits or float. */
function encodingOf(encoding: string): WavLayout['encoding'] {
  if (encoding === 'pcm16' || encoding === 'flac16') return 'pcm16';
  const isFine: boolean = encoding === ('pcm32' satisfies SampleEncoding) || encoding.startsWith('float');
  return isFine ? 'float32' : 'pcm24';
}
