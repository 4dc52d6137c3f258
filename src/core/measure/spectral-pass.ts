import type { SampleStream } from '../audio/sample-stream';
import { A_TOTAL, BandPowerFrames, bandPowerRoom } from '../dsp/band-power-frames';
import { ChannelBlock } from '../dsp/channel-block';
import { DropOutDetector, dropOutPast } from '../dsp/drop-out-detector';
import type { PowerSpectrum } from '../dsp/welch';
import { meanSquareToDbfs, type Dbfs } from '../units';
import { worstChannel, type DropOuts } from './drop-outs';
import { loudestFrame, type LoudestFrame } from './knocks';
import { meanOf } from './over-channels';
import { meanOverFrames, thirdOctaveLevels, type BandLevel } from './third-octave-spectrum';

/** What the spectra of a clip come to, as the mean of its channels; and its holes. */
export interface ClipSpectra {
  /** VALUES_PER_FRAME band powers per whole frame. */
  readonly bandFrames: Float64Array;
  /** In samples. */
  readonly frameLength: number;
  /** Long-term spectrum of the whole clip in third octaves, and in full resolution. */
  readonly thirdOctave: readonly BandLevel[];
  readonly longTerm: PowerSpectrum;
  readonly loudest: LoudestFrame;
  /** A-weighted level of the whole clip, 20 Hz–20 kHz, AES17. */
  readonly aDbfs: Dbfs;
  readonly dropOuts: DropOuts;
}

/** Takes the spectra of one channel, and looks for holes: about as much work as its levels. */
export class SpectralMeter {
  /** Bytes that one needs behind its block. */
  static readonly room = bandPowerRoom;
  /** Samples from before its block that it asks for. */
  static readonly past = dropOutPast;
  readonly bands: BandPowerFrames;
  readonly dropOuts: DropOutDetector;

  /**
   * @param sampleRate - in hertz
   * @param block - the block that is pushed, with {@link SpectralMeter.room} and past
   */
  constructor(sampleRate: number, block: ChannelBlock) {
    this.bands = new BandPowerFrames(sampleRate, block);
    this.dropOuts = new DropOutDetector(sampleRate, block);
  }

  /** Takes the block as it stands. */
  push(): void {
    this.bands.push();
    this.dropOuts.push();
  }

  finish(): void {
    this.bands.finish();
    this.dropOuts.finish();
  }
}

/**
 * @param channels - one finished meter per channel
 * @param sampleRate - in hertz
 */
export function spectraOf(channels: readonly SpectralMeter[], sampleRate: number): ClipSpectra {
  const [{ bands }] = channels;
  const { frameLength, frames } = bands;
  const bandFrames = meanOf(channels.map((m) => m.bands.values.view()));
  const means = meanOverFrames(bandFrames, 0, frames);
  return {
    bandFrames,
    frameLength,
    thirdOctave: frames === 0 ? [] : thirdOctaveLevels(means),
    longTerm: { powers: meanOf(channels.map((m) => m.bands.meanPowers())), binHz: sampleRate / frameLength, frames },
    loudest: loudestFrame(bandFrames),
    aDbfs: meanSquareToDbfs(means[A_TOTAL]),
    dropOuts: worstChannel(channels.map((m) => m.dropOuts)),
  };
}

/**
 * Spectra and holes of a clip in a pass of their own, so that another thread can take its levels meanwhile.
 *
 * @param stream - the clip; it is read to its end and not closed
 */
export async function spectralPass(stream: SampleStream): Promise<ClipSpectra> {
  const { channels, sampleRate } = stream.format;
  const blocks = Array.from(
    { length: channels },
    () => new ChannelBlock(SpectralMeter.room(sampleRate), SpectralMeter.past(sampleRate)),
  );
  const meters = blocks.map((block) => new SpectralMeter(sampleRate, block));
  for (;;) {
    const next = stream.read(blocks.map((block) => block.next()));
    const count = typeof next === 'number' ? next : await next;
    if (count === 0) break;
    for (const block of blocks) block.scan(count);
    for (const meter of meters) meter.push();
  }
  for (const meter of meters) meter.finish();
  return spectraOf(meters, sampleRate);
}
