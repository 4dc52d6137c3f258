import { closeSync, fsyncSync, openSync, writeSync } from 'node:fs';
import { encodeSamples } from '#core/audio/sample-encoder';
import { wavHeader } from '#core/audio/wav-write';

/** Space that the largest header takes; a plain one is padded to it. */
const layoutOf = (sampleRate: number, channels: number, frames: number) =>
  ({ encoding: 'float32', sampleRate, channels, frames }) as const;

/** A WAV of 32-bit floats whose length is known at its end only: decoded sound may go beyond full scale. */
export class FloatWav {
  frames = 0;
  private readonly descriptor: number;

  constructor(
    path: string,
    private readonly sampleRate: number,
    private readonly channels: number,
  ) {
    this.descriptor = openSync(path, 'wx');
    writeSync(this.descriptor, wavHeader(layoutOf(sampleRate, channels, 0)));
  }

  /** @param block - one array per channel, equally long */
  add(block: readonly Float32Array[]): void {
    const count = block[0].length;
    if (count === 0) return;
    writeSync(this.descriptor, encodeSamples('float32', block, 0, count));
    this.frames += count;
  }

  /** Writes the length into the header, and closes the file. */
  end(): void {
    const header = wavHeader(layoutOf(this.sampleRate, this.channels, this.frames));
    writeSync(this.descriptor, header, 0, header.length, 0);
    fsyncSync(this.descriptor);
    this.close();
  }

  close(): void {
    closeSync(this.descriptor);
  }
}
