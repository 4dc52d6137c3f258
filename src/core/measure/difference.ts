import { AudioFileError } from '../audio/audio-file-error';
import { align, type Alignment } from '../audio/alignment';
import { binRange, sumRange } from '../dsp/bin-range';
import { FftPlan } from '../dsp/fft';
import { fractionalOctaveBands, type OctaveFraction } from '../dsp/fractional-octave';
import { hann } from '../dsp/hann';
import { transformPair } from '../dsp/real-transform';
import type { Band } from '../dsp/third-octave-bands';
import { quantile } from '../stats/quantile';
import { powerToDb } from '../units';
import { lowCutVerdict, type LowCutVerdict } from './low-cut';

/** One band of a difference. */
export interface DifferencePoint {
  readonly hz: number;
  /** Second clip re first, levels matched; null where nothing can be said. */
  readonly db: number | null;
  /** False where coherence or distance from the noise is too low for the figure to mean anything. */
  readonly trusted: boolean;
}

/** How the second clip of a step differs from the first. */
export interface Difference {
  readonly points: readonly DifferencePoint[];
  /** Level of the second clip re the first: the median of the trusted bands at 200 Hz–8 kHz. */
  readonly levelDb: number;
  /** Seconds by which the second clip comes later. */
  readonly lagS: number;
  /** By transfer function (one performance through two devices), or by long-term spectra (one text, spoken anew). */
  readonly method: 'transfer' | 'spectra';
  readonly lowCut: LowCutVerdict;
}

/** Settings of a difference. */
export interface DifferenceOptions {
  readonly fraction?: OctaveFraction;
}

/** Coherence below which a band of a transfer function is not trusted (common practice, no source). */
export const LEAST_COHERENCE = 0.8;
/** Distance from the noise below which a band of a spectrum is not trusted: the noise then adds 0.5 dB or more. */
export const LEAST_SIGNAL_TO_NOISE_DB = 9;
/** Share of frames that count as pauses when the noise under a spectrum is estimated. */
const PAUSE_SHARE = 0.05;
/** Bands that fix the level. */
const LEVEL_BAND_HZ = [200, 8000] as const;
const LONGEST_FRAME = 32_768;
const LEAST_FRAMES = 6;

/**
 * Difference of two clips of one step by band: aligned, levels matched, bands hidden where the figure would mean
 * nothing. Levels are matched at the median of the trusted bands, so that one raised region does not shift the whole
 * curve as matching by loudness would.
 *
 * @param a - first clip (the zero line), one channel
 * @param b - second clip, one channel, same sample rate
 * @param sampleRate - in hertz
 * @param options - settings; bands of 1/12 octave by default
 * @param alignment - how they lie to each other, where that is known already
 * @throws AudioFileError `unmeasurable` where the clips share less than a third of a second, or one is digital silence
 */
export function difference(
  a: Float64Array,
  b: Float64Array,
  sampleRate: number,
  options: DifferenceOptions = {},
  alignment: Alignment | null = null,
): Difference {
  if (![a, b].every((clip) => clip.some((x) => x !== 0)))
    throw new AudioFileError('unmeasurable', 'One of the clips is digital silence.');
  const { lagS, isSamePerformance } = alignment ?? align(a, b, sampleRate);
  const lag = Math.round(lagS * sampleRate);
  const start = Math.max(0, -lag);
  const length = Math.min(a.length - start, b.length - start - lag);
  if (length < sampleRate / 3)
    throw new AudioFileError('unmeasurable', 'The clips share less than a third of a second.');
  const first = a.subarray(start, start + length);
  const second = b.subarray(start + lag, start + lag + length);
  const bands = fractionalOctaveBands(options.fraction ?? 12, 20, Math.min(20_000, 0.45 * sampleRate));
  const method = isSamePerformance ? 'transfer' : 'spectra';
  const { parts, binHz } = partsOf(first, second, sampleRate, bands);
  const read = (kept: readonly CrossFrames[]): Leveled =>
    levelled(rawDifference(together(kept), binHz, sampleRate, bands, method));
  const whole = read(parts);
  const half = parts.length >> 1;
  return {
    points: whole.points,
    levelDb: whole.levelDb,
    lagS,
    method,
    lowCut: lowCutVerdict(
      trustedOf(whole),
      [parts.slice(0, half), parts.slice(half)].map((kept) => trustedOf(read(kept))),
      parts.map((_, out) => trustedOf(read(parts.filter((__, p) => p !== out)))),
    ),
  };
}

/** Into so many parts the material is divided, to see what hangs on one of them. */
const MOST_PARTS = 6;

interface Leveled {
  readonly points: readonly DifferencePoint[];
  readonly levelDb: number;
}

/** Brings the trusted bands to a level of zero. */
function levelled(raw: readonly DifferencePoint[]): Leveled {
  const inLevelBand = raw.filter((p) => p.trusted && p.hz >= LEVEL_BAND_HZ[0] && p.hz <= LEVEL_BAND_HZ[1]);
  const forLevel = inLevelBand.length > 0 ? inLevelBand : raw.filter((p) => p.trusted);
  const levelDb =
    forLevel.length === 0
      ? 0
      : quantile(
          forLevel.map((p) => p.db ?? 0),
          0.5,
        );
  return { points: raw.map((p) => ({ ...p, db: p.db === null ? null : p.db - levelDb })), levelDb };
}

const trustedOf = ({ points }: Leveled): { hz: number; db: number }[] =>
  points.flatMap((p) => (p.trusted && p.db !== null ? [{ hz: p.hz, db: p.db }] : []));

function rawDifference(
  frames: CrossFrames,
  binHz: number,
  sampleRate: number,
  bands: readonly Band[],
  method: Difference['method'],
): DifferencePoint[] {
  return bands.map((band, i) => {
    const point = { hz: band.nominalHz, db: null, trusted: false };
    if (band.highHz - band.lowHz < binHz || band.highHz >= sampleRate / 2) return point;
    return { ...point, ...(method === 'transfer' ? transferIn(frames, band, binHz) : spectraIn(frames, i)) };
  });
}

interface CrossFrames {
  readonly aa: Float64Array;
  readonly bb: Float64Array;
  readonly abRe: Float64Array;
  readonly abIm: Float64Array;
  /** Power of each frame by band, for what the pauses hold. */
  readonly framesA: Float64Array[];
  readonly framesB: Float64Array[];
}

/** Auto and cross spectra by Welch's method, Hann, 50 % overlap, summed over each part of the material. */
function partsOf(
  a: Float64Array,
  b: Float64Array,
  sampleRate: number,
  bands: readonly Band[],
): { readonly parts: readonly CrossFrames[]; readonly binHz: number } {
  const size = Math.min(LONGEST_FRAME, 2 ** Math.floor(Math.log2((2 * a.length) / (LEAST_FRAMES + 1))));
  const binHz = sampleRate / size;
  const ranges = bands.map((band) => binRange(band, binHz));
  const fft = new FftPlan(size);
  const window = hann(size);
  const bins = size / 2 + 1;
  const power = [new Float64Array(bins), new Float64Array(bins)];
  const windowed = [new Float64Array(size), new Float64Array(size)] as const;
  const byBand = (p: Float64Array): Float64Array =>
    Float64Array.from(ranges, (range) => (range.last < bins ? sumRange(p, range) : NaN));
  const count = Math.floor((a.length - size) / (size / 2)) + 1;
  const most = Math.min(MOST_PARTS, count);
  const parts: CrossFrames[] = Array.from({ length: most }, () => emptyFrames(bins));
  for (let f = 0; f < count; f++) {
    const from = (f * size) / 2;
    for (let i = 0; i < size; i++) {
      windowed[0][i] = window[i] * a[from + i];
      windowed[1][i] = window[i] * b[from + i];
    }
    const [x, y] = transformPair(fft, windowed[0], windowed[1]);
    const { aa, bb, abRe, abIm, framesA, framesB } = parts[Math.floor((f * most) / count)];
    for (let k = 0; k < bins; k++) {
      const pa = x.re[k] ** 2 + x.im[k] ** 2;
      const pb = y.re[k] ** 2 + y.im[k] ** 2;
      aa[k] += pa;
      bb[k] += pb;
      abRe[k] += x.re[k] * y.re[k] + x.im[k] * y.im[k];
      abIm[k] += x.re[k] * y.im[k] - x.im[k] * y.re[k];
      power[0][k] = pa;
      power[1][k] = pb;
    }
    framesA.push(byBand(power[0]));
    framesB.push(byBand(power[1]));
  }
  return { parts, binHz };
}

const emptyFrames = (bins: number): CrossFrames => ({
  aa: new Float64Array(bins),
  bb: new Float64Array(bins),
  abRe: new Float64Array(bins),
  abIm: new Float64Array(bins),
  framesA: [],
  framesB: [],
});

function addTo(sum: Float64Array, part: Float64Array): void {
  for (let k = 0; k < sum.length; k++) sum[k] += part[k];
}

/** Several parts as one. */
function together(parts: readonly CrossFrames[]): CrossFrames {
  const all = emptyFrames(parts[0]?.aa.length ?? 0);
  for (const part of parts) {
    addTo(all.aa, part.aa);
    addTo(all.bb, part.bb);
    addTo(all.abRe, part.abRe);
    addTo(all.abIm, part.abIm);
    all.framesA.push(...part.framesA);
    all.framesB.push(...part.framesB);
  }
  return all;
}

/**
 * Squared magnitude of the transfer function (H1, noise in the second clip cancels out) weighted by the power of the
 * first clip, and the coherence, both over the bins of a band.
 */
function transferIn({ aa, bb, abRe, abIm }: CrossFrames, band: Band, binHz: number): Omit<DifferencePoint, 'hz'> {
  const { first, last, firstShare, lastShare } = binRange(band, binHz);
  let [top, bottom, coherent, weight] = [0, 0, 0, 0];
  for (let k = first; k <= last; k++) {
    const share = k === first ? firstShare : k === last ? lastShare : 1;
    if (share === 0 || aa[k] === 0 || bb[k] === 0) continue;
    const cross = abRe[k] ** 2 + abIm[k] ** 2;
    top += (share * cross) / aa[k];
    bottom += share * aa[k];
    coherent += (share * cross) / (aa[k] * bb[k]);
    weight += share;
  }
  if (top === 0 || weight === 0) return { db: null, trusted: false };
  return { db: powerToDb(top / bottom), trusted: coherent / weight >= LEAST_COHERENCE };
}

/** Ratio of the long-term powers in a band, each with the power of its own pauses taken off. */
function spectraIn({ framesA, framesB }: CrossFrames, band: number): Omit<DifferencePoint, 'hz'> {
  const clean = (frames: readonly Float64Array[]): { power: number; isClear: boolean } => {
    const powers = frames.map((frame) => frame[band]);
    const mean = powers.reduce((s, p) => s + p, 0) / powers.length;
    const noise = quantile(powers, PAUSE_SHARE);
    return { power: mean - noise, isClear: mean > 0 && powerToDb(mean / noise) >= LEAST_SIGNAL_TO_NOISE_DB };
  };
  const [x, y] = [clean(framesA), clean(framesB)];
  if (x.power <= 0 || y.power <= 0) return { db: null, trusted: false };
  return { db: powerToDb(y.power / x.power), trusted: x.isClear && y.isClear };
}
