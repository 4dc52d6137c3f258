import { closeSync, fsyncSync, openSync, writeSync } from 'node:fs';
import { repairedHeader, readWavHeader } from '#core/audio/wav-header';
import type { SalvageClipTask } from '#contracts/worker-messages';
import { openBytes } from '../open-clip';

const COPY_BYTES = 1 << 20;

/** Writes the part that is there of a truncated WAV as a sound file: a new header, and the same sample bytes. */
export default function salvageClipTask({ path, into }: SalvageClipTask): void {
  const source = openBytes(path);
  const target = openSync(into, 'wx');
  try {
    const header = readWavHeader(source, { keepPart: true });
    writeSync(target, repairedHeader(source, header));
    const end = header.dataStart + header.format.frames * header.frameBytes;
    const buffer = new Uint8Array(COPY_BYTES);
    for (let at = header.dataStart; at < end;) {
      const got = source.read(buffer.subarray(0, Math.min(COPY_BYTES, end - at)), at);
      writeSync(target, buffer, 0, got);
      at += got;
    }
    if ((end - header.dataStart) % 2 === 1) writeSync(target, new Uint8Array(1));
    fsyncSync(target);
  } finally {
    closeSync(target);
    source.close();
  }
}
