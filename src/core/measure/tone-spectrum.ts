import { sharedFramePairPlan } from '../dsp/shared-plan';
import { aWeightingPower } from '../dsp/weighting-curves';

/**
 * Seven-term Blackman-Harris window, periodic: side lobes below −180 dB, so that harmonics at −140 dB stand free of
 * the tone (Albrecht 2001; coefficients from memory, their side lobes checked in the test).
 */
export function blackmanHarris7(length: number): Float64Array {
  const terms = [
    0.27105140069342, -0.43329793923448, 0.21812299954311, -0.06592544638803, 0.01081174209837, -0.00077658482522,
    0.00001388721735,
  ];
  return Float64Array.from({ length }, (_, i) =>
    terms.reduce((s, a, k) => s + a * Math.cos((2 * Math.PI * k * i) / length), 0),
  );
}

/** Bins to either side that the window spreads a sine over. */
const REACH = 7;
/** Samples per frame: bins of less than a hertz, so that side bands 60 Hz from a carrier stand free of it. */
export const TONE_FRAME = 65_536;

/** Power by frequency of a steady signal. Sums of bins are mean squares: a full-scale sine is ½. */
export interface ToneSpectrum {
  readonly powers: Float64Array;
  readonly binHz: number;
  /** Upper limit of what is read, hertz. */
  readonly highHz: number;
}

/** What a take of steady tones is read from: all of it, and either half of it. */
export interface ToneSpectra {
  readonly whole: ToneSpectrum;
  /** By the frames that lie in one half alone; null for a take that is shorter than two frames. */
  readonly halves: readonly [ToneSpectrum, ToneSpectrum] | null;
}

/** Window of a frame, and the scale that makes |X|² under it one-sided mean squares; made once. */
let window: { readonly samples: Float64Array; readonly scale: number } | null = null;

function frameWindow(): { readonly samples: Float64Array; readonly scale: number } {
  if (window) return window;
  const samples = blackmanHarris7(TONE_FRAME);
  window = { samples, scale: 2 / (TONE_FRAME * samples.reduce((s, w) => s + w * w, 0)) };
  return window;
}

/** From one frame to the next. */
const HOP = TONE_FRAME / 4;

/**
 * Mean power of overlapping frames of one channel (a quarter of a frame apart, seven-term Blackman-Harris), one-sided,
 * as the samples arrive; of the whole take, and of its halves. Frames lie in the middle of the take, whatever is left
 * over at its ends.
 */
export class ToneSpectrumMeter {
  private readonly buffer = new Float64Array(TONE_FRAME + HOP);
  /** Of the frames of the first half, of the second, and of those between. */
  private readonly sums = Array.from({ length: 3 }, () => ({ powers: new Float64Array(TONE_FRAME / 2), frames: 0 }));
  private readonly frames: number;
  /** Samples that are passed over before the first frame. */
  private skipped: number;
  private filled = 0;
  /** Frames that were taken. */
  private taken = 0;
  private readonly start: number;

  /**
   * @param sampleRate - in hertz
   * @param length - samples of the take, at least 65,536
   * @throws RangeError for fewer samples
   */
  constructor(
    private readonly sampleRate: number,
    private readonly length: number,
  ) {
    if (length < TONE_FRAME) throw new RangeError(`A tone of at least ${TONE_FRAME} samples is needed.`);
    this.frames = Math.floor((length - TONE_FRAME) / HOP) + 1;
    this.start = this.skipped = Math.floor((length - TONE_FRAME - (this.frames - 1) * HOP) / 2);
  }

  /**
   * @param samples - full scale ±1
   * @param count - how many of them to take
   */
  push(samples: Float64Array, count: number): void {
    let from = Math.min(this.skipped, count);
    this.skipped -= from;
    while (from < count && this.taken < this.frames) {
      const part = Math.min(count - from, this.buffer.length - this.filled);
      this.buffer.set(samples.subarray(from, from + part), this.filled);
      this.filled += part;
      from += part;
      if (this.filled === this.buffer.length) this.transform(Math.min(2, this.frames - this.taken));
    }
  }

  /** @throws RangeError where fewer samples came than one frame takes */
  spectra(): ToneSpectra {
    // One frame may still wait for its fellow.
    if (this.taken < this.frames && this.filled >= TONE_FRAME) {
      this.buffer.fill(0, TONE_FRAME);
      this.transform(1);
    }
    if (this.taken === 0) throw new RangeError(`A tone of at least ${TONE_FRAME} samples is needed.`);
    const [first, second, between] = this.sums;
    const hasHalves = first.frames > 0 && second.frames > 0;
    return {
      whole: this.meanOf(first, second, between),
      halves: hasHalves ? [this.meanOf(first), this.meanOf(second)] : null,
    };
  }

  private meanOf(...sums: readonly { readonly powers: Float64Array; readonly frames: number }[]): ToneSpectrum {
    const frames = sums.reduce((n, s) => n + s.frames, 0);
    const powers = new Float64Array(TONE_FRAME / 2);
    for (const sum of sums) for (let k = 1; k < powers.length; k++) powers[k] += sum.powers[k];
    for (let k = 1; k < powers.length; k++) powers[k] /= frames;
    return { powers, binHz: this.sampleRate / TONE_FRAME, highHz: Math.min(20_000, 0.49 * this.sampleRate) };
  }

  /** @param count - frames that count of the two that go through one transform together */
  private transform(count: number): void {
    const { samples, scale } = frameWindow();
    const fft = sharedFramePairPlan(TONE_FRAME, samples);
    fft.samples.set(this.buffer);
    fft.framePair(scale, HOP);
    for (let i = 0; i < count; i++) {
      const from = this.start + this.taken * HOP;
      const isFirst = 2 * (from + TONE_FRAME) <= this.length;
      this.add(isFirst ? 0 : 2 * from >= this.length ? 1 : 2, fft.powers[i]);
      this.taken++;
    }
    this.buffer.copyWithin(0, 2 * HOP);
    this.filled -= 2 * HOP;
  }

  private add(to: number, frame: Float64Array): void {
    const sum = this.sums[to];
    const { powers } = sum;
    for (let k = 1; k < powers.length; k++) powers[k] += frame[k];
    sum.frames++;
  }
}

/**
 * Spectrum of samples in memory, as {@link ToneSpectrumMeter} takes it.
 *
 * @param samples - one channel, at least 65,536 samples
 * @param sampleRate - in hertz
 * @throws RangeError for fewer samples
 */
export function toneSpectrum(samples: Float64Array, sampleRate: number): ToneSpectrum {
  const meter = new ToneSpectrumMeter(sampleRate, samples.length);
  meter.push(samples, samples.length);
  return meter.spectra().whole;
}

/** Mean square of a sine at a frequency: what the window spreads it over. */
export function linePower({ powers, binHz }: ToneSpectrum, hz: number): number {
  const bin = Math.round(hz / binHz);
  let sum = 0;
  for (let k = Math.max(1, bin - REACH); k <= Math.min(powers.length - 1, bin + REACH); k++) sum += powers[k];
  return sum;
}

/** What noise alone would put where a line is looked for: the mean of both sides of it. */
export function noiseBeside(spectrum: ToneSpectrum, hz: number): number {
  const apart = (2 * REACH + 2) * spectrum.binHz;
  return (linePower(spectrum, hz - apart) + linePower(spectrum, hz + apart)) / 2;
}

/**
 * Frequency of the strongest line of a band, by the centre of gravity of its lobe.
 *
 * @returns null where the band holds nothing
 */
export function strongestLine(spectrum: ToneSpectrum, lowHz: number, highHz: number): number | null {
  const { powers, binHz } = spectrum;
  const [low, high] = [Math.max(REACH + 1, Math.ceil(lowHz / binHz)), Math.min(powers.length - REACH - 1, Math.floor(highHz / binHz))]; // prettier-ignore
  let top = low;
  for (let k = low; k <= high; k++) if (powers[k] > powers[top]) top = k;
  let [weight, sum] = [0, 0];
  for (let k = top - REACH; k <= top + REACH; k++) {
    weight += k * powers[k];
    sum += powers[k];
  }
  return sum === 0 ? null : (weight / sum) * binHz;
}

/**
 * Mean square at 20 Hz–20 kHz but for what lies around some lines: the notch takes no more than the tone.
 *
 * @param spectrum - of the take
 * @param without - hertz of the lines that are left out
 * @param weighting - of each frequency
 */
export function restPower(spectrum: ToneSpectrum, without: readonly number[], weighting: 'z' | 'a' = 'z'): number {
  const { powers, binHz, highHz } = spectrum;
  const notches = without.map((hz) => Math.round(hz / binHz)).sort((a, b) => a - b);
  const end = Math.floor(highHz / binHz) + 1;
  let sum = 0;
  let k = Math.ceil(20 / binHz);
  for (const to of [...notches.map((bin) => bin - REACH), end]) {
    for (; k < Math.min(to, end); k++) sum += weighting === 'a' ? powers[k] * aWeightingPower(k * binHz) : powers[k];
    // Behind the notch, unless another one reaches further.
    k = Math.max(k, to + 2 * REACH + 1);
  }
  return sum;
}
