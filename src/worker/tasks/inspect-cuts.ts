import { ChannelBlock } from '#core/dsp/channel-block';
import { FramePowerMeter } from '#core/dsp/frame-power';
import { ToneFrames } from '#core/dsp/tone-frames';
import { CUT_SETTINGS, cutRecording, type CutMethod } from '#core/measure/recording-cuts';
import type { Stretch } from './cut-clip';
import { openClip } from '../open-clip';

/** Order to a worker: find the takes of a long recording. */
export interface FindCutsTask {
  readonly path: string;
  readonly method: CutMethod;
  /** A pause at least this long is a take of its own; null: none is. */
  readonly silenceS: number | null;
}

/** One pass over the file. */
export default async function inspectCuts({ path, method, silenceS }: FindCutsTask): Promise<Stretch[]> {
  const stream = openClip(path);
  try {
    const { sampleRate, channels } = stream.format;
    const blocks = Array.from({ length: channels }, () => new ChannelBlock());
    const meters = blocks.map((block) => new FramePowerMeter(sampleRate, block));
    const tones = new ToneFrames(sampleRate, CUT_SETTINGS.toneHz);
    const read = async (): Promise<number> => stream.read(blocks.map((block) => block.next()));
    for (let count = await read(); count > 0; count = await read()) {
      meters.forEach((meter, c) => {
        blocks[c].scan(count);
        meter.push();
      });
      tones.push(blocks[0].samples, count);
    }
    const powers = meters[0].kWeighted.view().slice();
    for (const meter of meters.slice(1)) meter.kWeighted.view().forEach((p, i) => (powers[i] += p));
    return cutRecording(powers, Uint8Array.from(tones.marks), method, silenceS);
  } finally {
    stream.close();
  }
}
