import { allocateBlock } from '#core/audio/sample-stream';
import { Spectrogram } from '#core/dsp/spectrogram';
import { openClip } from '../open-clip';

/** Order to a worker: draw the spectrogram of a clip's first channel. */
export interface DrawSpectrogramTask {
  readonly path: string;
}

/** Bytes as `Spectrogram` lays them out. */
export interface DrawnSpectrogram {
  readonly columns: number;
  readonly levels: Uint8Array<ArrayBuffer>;
}

export default async function drawSpectrogramTask({ path }: DrawSpectrogramTask): Promise<DrawnSpectrogram> {
  const stream = openClip(path);
  try {
    const { sampleRate, frames, channels } = stream.format;
    const picture = new Spectrogram(sampleRate, frames);
    const block = allocateBlock(channels);
    for (let count = await stream.read(block); count > 0; count = await stream.read(block)) {
      picture.push(block[0], count);
    }
    picture.finish();
    return { columns: picture.columns, levels: picture.levels };
  } finally {
    stream.close();
  }
}
