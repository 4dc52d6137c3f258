import type { SampleStream } from '../audio/sample-stream';
import type { ChannelBlock } from '../dsp/channel-block';
import { WaveformPeaks, joinWaveforms, waveformColumn, type WaveformColumns } from '../dsp/waveform-peaks';
import { frameLength } from '../dsp/band-power-frames';
import { MeteredChannel, joinChannel, type ChannelReadings, type Depth } from './channel-meters';
import { clipStretches, samplesBefore, type Stretch } from './clip-stretches';

/** What all meters read, of a stretch or of a whole clip. */
export interface ClipReadings {
  /** Samples of each channel. */
  readonly frames: number;
  readonly channels: readonly ChannelReadings[];
  readonly waveform: WaveformColumns;
}

/** Blocks from one telling of what is done to the next. */
const TOLD_EVERY = 64;

/** Measures stretches of a clip, in any order, each as if nobody had measured another. */
export class StretchReader {
  private readonly channels: readonly MeteredChannel[];
  private readonly blocks: readonly ChannelBlock[];

  /**
   * @param stream - the clip; it is not closed
   * @param depth - what is measured
   * @param onProgress - called now and then with the share of the clip that lies behind, 0…1
   */
  constructor(
    private readonly stream: SampleStream,
    depth: Depth,
    private readonly onProgress?: (share: number) => void,
  ) {
    const { channels, sampleRate } = stream.format;
    this.channels = Array.from({ length: channels }, () => new MeteredChannel(sampleRate, depth));
    this.blocks = this.channels.map(({ block }) => block);
  }

  /**
   * Measures a stretch.
   *
   * @param stretch - one that begins with the clip, or of a stream that can seek
   * @throws whatever reading throws
   */
  async read(stretch: Stretch): Promise<ClipReadings> {
    const { blocks, stream } = this;
    const { sampleRate, frames: known } = stream.format;
    const { from, to } = stretch;
    const before = from === 0 ? 0 : samplesBefore(sampleRate);
    // Somebody else may have read of it.
    stream.seek?.(from - before);
    const channels = this.channels.map((channel) => channel.begin(stretch, before));
    const isWhole = from === 0 && to === Infinity;
    // A stretch is a whole number of columns, and a column of the whole clip a whole number of those.
    const column = Math.min(frameLength(sampleRate) / 2, waveformColumn(known));
    const waveform = isWhole ? new WaveformPeaks() : new WaveformPeaks(column);
    for (let primed = 0; primed < before;) {
      const next = this.fill();
      const count = typeof next === 'number' ? next : await next;
      if (count === 0) break;
      for (const meters of channels) meters.prime(count);
      primed += count;
    }
    let frames = 0;
    for (let reads = 0; from + frames < to; reads++) {
      const next = this.fill();
      const count = Math.min(typeof next === 'number' ? next : await next, to - from - frames);
      if (count === 0) break;
      for (const meters of channels) meters.push(count);
      waveform.push(blocks);
      frames += count;
      if (reads % TOLD_EVERY === 0 && known > 0) this.onProgress?.((from + frames) / known);
    }
    return { frames, channels: channels.map((meters) => meters.finish()), waveform: waveform.finish() };
  }

  /** The next block of every channel. */
  private fill(): number | Promise<number> {
    return this.stream.read(this.blocks.map((block) => block.next()));
  }
}

/**
 * The readings of a whole clip.
 *
 * @param stretches - those of all its stretches, in their order
 */
export const joinStretches = (stretches: readonly ClipReadings[]): ClipReadings => ({
  frames: stretches.reduce((s, r) => s + r.frames, 0),
  channels: stretches[0].channels.map((_, c) => joinChannel(stretches.map((r) => r.channels[c]))),
  waveform: joinWaveforms(stretches.map((r) => r.waveform)),
});

/**
 * Measures a whole clip, stretch by stretch.
 *
 * @param stream - it is read to its end and not closed
 * @param depth - what is measured
 * @param onProgress - called now and then with the share that is done, 0…1
 */
export async function clipReadings(
  stream: SampleStream,
  depth: Depth,
  onProgress?: (share: number) => void,
): Promise<ClipReadings> {
  const reader = new StretchReader(stream, depth, onProgress);
  const readings: ClipReadings[] = [];
  for (const stretch of clipStretches(stream)) readings.push(await reader.read(stretch));
  return joinStretches(readings);
}
