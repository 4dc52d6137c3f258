import { A_TOTAL, frameLength } from '../dsp/band-power-frames';
import { joinDropOuts } from '../dsp/drop-out-reading';
import type { PowerSpectrum } from '../dsp/welch';
import { meanSquareToDbfs, type Dbfs } from '../units';
import type { DeepReadings } from './channel-meters';
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

/**
 * @param channels - readings of the whole clip
 * @param sampleRate - in hertz
 */
export function spectraOf(channels: readonly DeepReadings[], sampleRate: number): ClipSpectra {
  const [{ frames }] = channels;
  const size = frameLength(sampleRate);
  const bandFrames = meanOf(channels.map((c) => c.bands));
  const means = meanOverFrames(bandFrames, 0, frames);
  const meanPowers = channels.map((c) => c.powerSum.map((p) => p / Math.max(1, frames)));
  return {
    bandFrames,
    frameLength: size,
    thirdOctave: frames === 0 ? [] : thirdOctaveLevels(means),
    longTerm: { powers: meanOf(meanPowers), binHz: sampleRate / size, frames },
    loudest: loudestFrame(bandFrames),
    aDbfs: meanSquareToDbfs(means[A_TOTAL]),
    dropOuts: worstChannel(channels.map((c) => joinDropOuts(c.dropOuts, sampleRate))),
  };
}
