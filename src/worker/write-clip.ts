import { closeSync, fsyncSync, openSync, writeSync } from 'node:fs';
import { BYTES_PER_SAMPLE, type AudioFormat, type SampleEncoding } from '#core/audio/audio-format';
import { encodeSamples } from '#core/audio/sample-encoder';
import { wavHeader, type WavLayout } from '#core/audio/wav-write';

/** Sixteen bits stay sixteen bits; 32-bit integers and everything of a FLAC fit into 24 bits or float. */
export function encodingOf(encoding: string): WavLayout['encoding'] {
  if (encoding === 'pcm16' || encoding === 'flac16') return 'pcm16';
  const isFine: boolean = encoding === ('pcm32' satisfies SampleEncoding) || encoding.startsWith('float');
  return isFine ? 'float32' : 'pcm24';
}

/** A WAV whose length is known, written block by block as another clip is read: samples are copied, not changed. */
export class ClipCopy {
  private readonly descriptor: number;
  private readonly encoding: WavLayout['encoding'];

  /**
   * @param path - of the new file
   * @param format - of the clip that is copied
   * @param channels - of the copy
   * @param frames - of the copy
   */
  constructor(
    path: string,
    { encoding, sampleRate }: Pick<AudioFormat, 'encoding' | 'sampleRate'>,
    private readonly channels: number,
    private readonly frames: number,
  ) {
    this.encoding = encodingOf(encoding);
    this.descriptor = openSync(path, 'wx');
    writeSync(this.descriptor, wavHeader({ encoding: this.encoding, sampleRate, channels, frames }));
  }

  /** Adds frames `from` … `to` of a block. */
  add(block: readonly Float64Array[], from: number, to: number): void {
    if (to > from) writeSync(this.descriptor, encodeSamples(this.encoding, block, from, to - from));
  }

  end(): void {
    const isOdd = (this.frames * this.channels * BYTES_PER_SAMPLE[this.encoding]) % 2 === 1;
    if (isOdd) writeSync(this.descriptor, new Uint8Array(1));
    fsyncSync(this.descriptor);
  }

  close(): void {
    closeSync(this.descriptor);
  }
}
