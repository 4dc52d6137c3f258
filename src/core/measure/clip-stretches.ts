import { BLOCK_FRAMES, type SampleStream } from '../audio/sample-stream';
import { frameLength } from '../dsp/band-power-frames';
import { FRAMES_PER_SECOND } from '../dsp/frame-power';

/** A piece of a clip that is measured on its own: samples `from` … `to` − 1 of each channel. */
export interface Stretch {
  readonly from: number;
  /** Infinity for the end of the clip. */
  readonly to: number;
}

/** Samples, of all channels together, from which on a clip is long: ten minutes and a half of one channel at 48 kHz. */
const LONG_SAMPLES = 30e6;
/** About so long is a stretch: short enough for many threads, long enough that what is read twice costs nothing. */
const STRETCH_S = 60;
/** Rates whose frames meet more rarely are measured in one stretch. */
const LONGEST_STRETCH_S = 300;
/** Filters settle within it: that of 20 Hz, the slowest, to 10⁻²¹. */
const SETTLING_S = 1;

/**
 * The stretches in which a clip is measured. A short one is a single stretch; a long one is cut where frames of 20 ms and
 * those of the spectra begin, so that all frames of the clip lie in one stretch each. Where it is cut depends on the clip
 * alone, never on who measures it, and so do the figures.
 *
 * @param stream - the clip; one that cannot go on to a sample without reading what lies before it is a single stretch
 * @param longFrom - samples, of all channels together, from which on a clip is long
 */
export function clipStretches(
  stream: Pick<SampleStream, 'format' | 'seek'>,
  longFrom = LONG_SAMPLES,
): readonly Stretch[] {
  const { format } = stream;
  const { frames, channels, sampleRate } = format;
  const grid = stretchGrid(sampleRate);
  if (!stream.seek || frames * channels < longFrom || grid > LONGEST_STRETCH_S * sampleRate)
    return [{ from: 0, to: Infinity }];
  const length = grid * Math.max(1, Math.round((STRETCH_S * sampleRate) / grid));
  const count = Math.ceil(frames / length);
  return Array.from({ length: count }, (_, i) => ({
    from: i * length,
    to: i === count - 1 ? Infinity : (i + 1) * length,
  }));
}

/**
 * Samples from one place to the next where frames of 20 ms and those of the spectra (with those of consonants, which are
 * whole parts of them) begin together.
 *
 * @param sampleRate - in hertz, a whole number
 */
function stretchGrid(sampleRate: number): number {
  const frames = sampleRate / commonDivisor(sampleRate, FRAMES_PER_SECOND);
  const spectra = frameLength(sampleRate) / 2;
  return (frames * spectra) / commonDivisor(frames, spectra);
}

const commonDivisor = (a: number, b: number): number => (b === 0 ? a : commonDivisor(b, a % b));

/**
 * Samples that the meters of a stretch are primed with: whole blocks.
 *
 * @param sampleRate - in hertz
 */
export const samplesBefore = (sampleRate: number): number =>
  BLOCK_FRAMES * Math.ceil((SETTLING_S * sampleRate) / BLOCK_FRAMES);
