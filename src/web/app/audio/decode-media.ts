import { encodeSamples } from '#core/audio/sample-encoder';
import { wavHeader } from '#core/audio/wav-write';

/** A sound that the browser cannot decode either. */
export class UndecodableError extends Error {
  override readonly name = 'UndecodableError';
}

/**
 * Decodes the sound of a compressed file or a film with the browser's own decoder, at the rate that it was recorded
 * at: nothing is resampled. Memory grows with the decoded sound; the browser keeps large parts on the disk.
 *
 * @param file - as it was chosen
 * @param onProgress - called with the share that is decoded, 0…1
 * @returns a WAV of 32-bit floats
 * @throws UndecodableError where no decoder is there for it
 */
export async function decodeMedia(file: File, onProgress: (share: number) => void): Promise<File> {
  // Films are rare: what reads them is fetched when the first one comes.
  const { ADTS, AudioSampleSink, BlobSource, Input, MATROSKA, MP3, MP4, OGG, QTFF, WEBM } = await import('mediabunny');
  const input = new Input({ source: new BlobSource(file), formats: [MP4, QTFF, MATROSKA, WEBM, OGG, MP3, ADTS] });
  try {
    const track = await input.getPrimaryAudioTrack();
    if (!track || !(await track.canDecode()))
      throw new UndecodableError('This browser has no decoder for the sound of this file either.');
    const durationS = await track.computeDuration();
    const parts: BlobPart[] = [];
    let shape: { readonly sampleRate: number; readonly channels: number } | null = null;
    let frames = 0;
    for await (const sample of new AudioSampleSink(track).samples()) {
      shape ??= { sampleRate: sample.sampleRate, channels: sample.numberOfChannels };
      const block = Array.from({ length: shape.channels }, (_, planeIndex) => {
        const samples = new Float32Array(sample.numberOfFrames);
        sample.copyTo(samples, { planeIndex, format: 'f32-planar' });
        return samples;
      });
      // What lies before the beginning is the encoder's own run-in.
      const skipped = Math.min(sample.numberOfFrames, Math.max(0, Math.round(-sample.timestamp * shape.sampleRate)));
      const count = sample.numberOfFrames - skipped;
      sample.close();
      parts.push(encodeSamples('float32', block.map((b) => b.subarray(skipped)), 0, count)); // prettier-ignore
      frames += count;
      onProgress(Math.min(1, frames / (durationS * shape.sampleRate)));
    }
    if (!shape || frames === 0) throw new UndecodableError('The file holds no sound.');
    const header = wavHeader({ encoding: 'float32', ...shape, frames });
    return new File([header, ...parts], file.name.replace(/\.[^.]*$/, '.wav'), { lastModified: file.lastModified });
  } finally {
    input.dispose();
  }
}
