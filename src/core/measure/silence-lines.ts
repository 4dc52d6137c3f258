import { itu468Gain } from '../dsp/itu468-weighting';
import { quasiPeak } from '../dsp/quasi-peak';
import { spectralFilter } from '../dsp/spectral-filter';
import { welch, type PowerSpectrum } from '../dsp/welch';
import { mean } from '../stats/moments';
import { meanSquareToDbfs, type Dbfs } from '../units';
import { hum, type Hum } from './hum';
import { interference, type Interference } from './interference';
import { measured, notMeasured, type Measurement } from './measurement';
import { meanOf } from './over-channels';
import { leastAboveFloorDb, localFloor, tonalLines } from './tonal-lines';

/** Longest stretch of silence that is looked at closely: enough to resolve any line, and a bound on memory. */
export const CLOSE_LOOK_S = 30;
/** Longest frame: 0.7 Hz between bins at 48 kHz, finer than the mains wander within it. */
const LONGEST_FRAME_S = 1.4;
/** The beginning of the stretch is faded in so that cutting it out does not click in the detector. */
const FADE_S = 0.02;

/** What a close look at the silent part finds. */
export interface SilenceLines {
  /** Quasi-peak, BS.468 weighted, highest channel; a full-scale sine at 1 kHz reads 0. */
  readonly itu468Dbfs: Dbfs;
  readonly hum: Hum;
  readonly interference: Interference;
  /** Narrow spectrum, mean of the channels. */
  readonly spectrum: PowerSpectrum;
  /** Weakest line between 1 and 10 kHz that would have been found. */
  readonly limitDbfs: Dbfs;
}

/**
 * Lines and quasi-peak noise of a silent stretch that is held in memory.
 *
 * @param channels - the stretch, one array per channel, half a second or more; they are used up
 * @param sampleRate - in hertz
 * @returns null where the stretch is too short for a frame of a third of a second
 */
export function silenceLines(channels: readonly Float64Array[], sampleRate: number): SilenceLines | null {
  const longest = 2 ** Math.floor(Math.log2(LONGEST_FRAME_S * sampleRate));
  const frameLength = Math.min(longest, 2 ** Math.floor(Math.log2(channels[0].length)));
  if (frameLength < sampleRate / 3) return null;
  for (const samples of channels) centre(samples, sampleRate);
  const spectra = channels.map((samples) => welch(samples, sampleRate, frameLength));
  const spectrum: PowerSpectrum = { ...spectra[0], powers: meanOf(spectra.map((s) => s.powers)) };
  const lines = tonalLines(spectrum, 20, Math.min(20_000, 0.45 * sampleRate));
  const mains = hum(lines, spectrum);
  const readings = channels.map((s) => quasiPeak(spectralFilter(s, sampleRate, itu468Gain), sampleRate));
  const floor = localFloor(spectrum, Math.round(Math.min(3000, sampleRate / 8) / spectrum.binHz));
  const least = leastAboveFloorDb(spectrum.frames, spectrum.powers.length);
  return {
    itu468Dbfs: meanSquareToDbfs(Math.max(...readings) ** 2),
    hum: mains,
    interference: interference(lines, mains, spectrum.binHz),
    spectrum,
    limitDbfs: meanSquareToDbfs(1.5 * floor * 10 ** (least / 10)),
  };
}

/** Takes the offset off, and fades in. */
function centre(samples: Float64Array, sampleRate: number): void {
  const offset = mean(samples);
  const fade = FADE_S * sampleRate;
  for (let i = 0; i < samples.length; i++) samples[i] -= offset;
  for (let i = 0; i < Math.min(fade, samples.length); i++) samples[i] *= 0.5 - 0.5 * Math.cos((Math.PI * i) / fade);
}

/** The quasi-peak figure with its condition. */
export function quasiPeakMeasurement(found: SilenceLines | null): Measurement {
  const condition =
    'ITU-R 468 weighted, quasi-peak, longest undisturbed pause (or all of a steady clip), highest channel';
  if (!found) return notMeasured('silenceItu468', condition, 'The clip holds no silent part that is long enough.');
  return Number.isFinite(found.itu468Dbfs)
    ? measured('silenceItu468', found.itu468Dbfs, condition)
    : notMeasured('silenceItu468', condition, 'The pause is digital silence.');
}
