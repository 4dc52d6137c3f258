/** Parameters of an exponential sine sweep. */
export interface SweepShape {
  readonly lowHz: number;
  readonly highHz: number;
  readonly seconds: number;
}

/** Fades keep the ends from clicking and the spectrum from rippling. */
const FADE_IN_S = 0.05;
const FADE_OUT_S = 0.01;

/**
 * Whether a recording of this rate can hold the sweep: it ends at or below half the rate.
 *
 * @param shape - of the sweep
 * @param sampleRate - of the recording, in hertz
 */
export const holdsSweep = (shape: Pick<SweepShape, 'highHz'>, sampleRate: number): boolean =>
  shape.highHz <= sampleRate / 2;

/**
 * Exponential sine sweep (Farina, "Simultaneous measurement of impulse response and distortion with a swept-sine
 * technique", AES 108th Convention, 2000, eq. 5), raised-cosine fades at both ends.
 *
 * @param shape - from `lowHz` to `highHz` in `seconds`
 * @param sampleRate - in hertz
 * @param levelDbfs - peak level
 * @throws RangeError where the frequencies do not rise or exceed half the sample rate
 */
export function exponentialSweep(shape: SweepShape, sampleRate: number, levelDbfs = -6): Float64Array {
  const { lowHz, highHz, seconds } = shape;
  if (!(lowHz > 0 && highHz > lowHz && holdsSweep(shape, sampleRate) && seconds >= 0.1)) {
    throw new RangeError(`a sweep must rise, and end at or below ${sampleRate / 2} Hz`);
  }
  const rate = sweepRate(shape);
  const length = Math.round(seconds * sampleRate);
  const amplitude = 10 ** (levelDbfs / 20);
  const fadeIn = Math.min(FADE_IN_S, seconds / 20) * sampleRate;
  const fadeOut = Math.min(FADE_OUT_S, seconds / 100) * sampleRate;
  const ramp = (x: number): number => (x >= 1 ? 1 : 0.5 - 0.5 * Math.cos(Math.PI * x));
  const sweep = new Float64Array(length);
  for (let i = 0; i < length; i++) {
    const phase = 2 * Math.PI * lowHz * rate * (Math.exp(i / (sampleRate * rate)) - 1);
    sweep[i] = amplitude * Math.sin(phase) * ramp(i / fadeIn) * ramp((length - 1 - i) / fadeOut);
  }
  return sweep;
}

/** L of the sweep: seconds in which the frequency grows by a factor of e. Harmonic n arrives L·ln n early. */
export const sweepRate = ({ lowHz, highHz, seconds }: SweepShape): number => seconds / Math.log(highHz / lowHz);

/** Seconds into the sweep at which it passes a frequency; its end for any above it. */
export const sweepTime = (shape: SweepShape, hz: number): number =>
  sweepRate(shape) * Math.log(Math.max(1, Math.min(hz, shape.highHz) / shape.lowHz));

/**
 * Finds the shape of an exponential sweep in a clean file, whoever made it, from its upward zero crossings: the log of
 * the frequency between two of them is a straight line over time.
 *
 * @param samples - the sweep as it is played, one channel
 * @param sampleRate - in hertz
 * @returns null where the file is no exponential sweep
 */
export function findSweepShape(samples: Float64Array, sampleRate: number): SweepShape | null {
  const crossings: number[] = [];
  for (let i = 1; i < samples.length; i++) {
    if (samples[i - 1] < 0 && samples[i] >= 0) {
      crossings.push(i - 1 + samples[i - 1] / (samples[i - 1] - samples[i]));
    }
  }
  // The ends are faded; near half the sample rate linear interpolation of a crossing becomes rough.
  const points: [number, number][] = [];
  for (let c = 2; c < crossings.length; c++) {
    const period = (crossings[c] - crossings[c - 2]) / 2;
    if (period > 8) points.push([crossings[c - 1] / sampleRate, Math.log(sampleRate / period)]);
  }
  if (points.length < 20) return null;
  const n = points.length;
  const [mt, mf] = [0, 1].map((j) => points.reduce((s, p) => s + p[j], 0) / n);
  const slope =
    points.reduce((s, [t, f]) => s + (t - mt) * (f - mf), 0) / points.reduce((s, [t]) => s + (t - mt) ** 2, 0);
  const off = Math.sqrt(points.reduce((s, [t, f]) => s + (f - mf - slope * (t - mt)) ** 2, 0) / n);
  if (!(slope > 0) || off > 0.02) return null;
  const at = (t: number): number => Math.exp(mf + slope * (t - mt));
  // Silence around the sweep does not belong to it.
  const first = samples.findIndex((x) => x !== 0);
  const end = samples.findLastIndex((x) => x !== 0) + 2;
  const found = {
    lowHz: at((first - 1) / sampleRate),
    highHz: Math.min(at((end - 1) / sampleRate), sampleRate / 2),
    seconds: (end - first) / sampleRate,
  };
  // A steady tone is a straight line, too.
  return found.highHz > 2 * found.lowHz ? found : null;
}
