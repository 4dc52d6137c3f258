import { fractionalOctaveBands } from '../dsp/fractional-octave';
import { fftSize } from '../dsp/real-transform';
import { sharedFftPlan } from '../dsp/shared-plan';
import { powerToDb } from '../units';
import { gated, harmonicSpacing, type ImpulseResponse } from './impulse-response';
import { quietPlaces } from './sweep-noise';

/** One point of a response. */
export interface ResponsePoint {
  readonly hz: number;
  readonly db: number;
  /** Standard uncertainty by the noise of the recording, in dB. */
  readonly u: number;
}

/** Response with the limit below which its gate tells nothing. */
export interface FrequencyResponse {
  /** Rising frequency, 1/24 octave apart, only what the sweep covers. Levels re the played sweep. */
  readonly points: readonly ResponsePoint[];
  /** 1/gate, or where the sweep begins. */
  readonly lowestValidHz: number;
}

/** Gate where none is asked for. */
export const DEFAULT_GATE_MS = 500;
/** Part of the response before its peak that belongs to it (linear-phase filters of converters). */
const BEFORE_S = 0.005;
/** At most this share of the way to the second harmonic. */
const HARMONIC_SHARE = 0.4;
/** Of a gate that is faded over its last quarter, so much counts as length: (∫w²)²/∫w⁴. */
const FADED_LENGTH = 0.8;
const SMALLEST_FFT = 65_536;
const FRACTION = 24;

/**
 * Frequency response from an impulse response: gated behind the direct sound, half-cosine fade over the last quarter,
 * power averaged over 1/24 octave. What comes later than the gate (reflections) is not in it, and below 1/gate it
 * tells nothing.
 *
 * @param response - from {@link impulseResponse}
 * @param gateMs - length of the gate behind the peak
 */
export function frequencyResponse(response: ImpulseResponse, gateMs = DEFAULT_GATE_MS): FrequencyResponse {
  const { sampleRate, sweep } = response;
  const before = Math.min(Math.round(BEFORE_S * sampleRate), Math.round(HARMONIC_SHARE * harmonicSpacing(response, 2)));
  const behind = Math.min(Math.round((gateMs / 1000) * sampleRate), response.samples.length - before);
  const powers = powersOf(gated(response.samples, response.peak, before, behind));
  const gateS = (before + behind) / sampleRate;
  const quiet = quietPlaces(response, gateS);
  const noiseAt = (place: number): Float64Array => powersOf(gated(response.samples, place, before, behind));
  const [lowNoise, highNoise] = [noiseAt(quiet.low), noiseAt(quiet.high)];
  const binHz = sampleRate / (2 * (powers.length - 1));
  const highest = Math.min(20_000, 0.98 * sweep.highHz, 0.49 * sampleRate);
  const lowest = Math.max(20, sweep.lowHz);
  const points = fractionalOctaveBands(FRACTION, lowest, highest).map((band) => {
    const power = meanPower(powers, binHz, band.lowHz, band.highHz);
    // The noise is read over an octave around the point: over a narrow band it would scatter too much itself.
    const noise = band.lowHz < quiet.splitHz ? lowNoise : highNoise;
    const beside = meanPower(
      noise,
      binHz,
      band.lowHz / Math.SQRT2,
      Math.min(band.highHz * Math.SQRT2, sampleRate / 2.1),
    );
    const readings = Math.max(1, FADED_LENGTH * (band.highHz - band.lowHz) * gateS);
    return {
      hz: Math.sqrt(band.lowHz * band.highHz),
      db: powerToDb(power),
      // An amplitude is moved by the part of the noise that is in phase with it: half of its power.
      u: (20 / Math.LN10) * Math.sqrt(beside / power / 2 / readings),
    };
  });
  return { points, lowestValidHz: Math.max(1000 / gateMs, sweep.lowHz) };
}

/** Squared magnitude of the transform of a short response, bins 0 … N/2. */
export function powersOf(samples: Float64Array): Float64Array {
  const size = Math.max(SMALLEST_FFT, fftSize(samples.length));
  const fft = sharedFftPlan(size);
  fft.input.re.fill(0);
  fft.input.re.set(samples);
  fft.input.im.fill(0);
  fft.forward();
  const { re, im } = fft.output;
  const powers = new Float64Array(size / 2 + 1);
  for (let k = 0; k < powers.length; k++) powers[k] = re[k] * re[k] + im[k] * im[k];
  return powers;
}

/** Mean power of the bins in a band; between two bins where the band holds none. */
export function meanPower(powers: Float64Array, binHz: number, lowHz: number, highHz: number): number {
  const first = Math.ceil(lowHz / binHz);
  const last = Math.floor(highHz / binHz);
  if (last - first < 2) {
    const position = Math.sqrt(lowHz * highHz) / binHz;
    const below = Math.floor(position);
    return powers[below] + (position - below) * (powers[below + 1] - powers[below]);
  }
  let sum = 0;
  for (let k = first; k <= last; k++) sum += powers[k];
  return sum / (last - first + 1);
}

/** A response by substitution: the unit's minus the reference's, point by point (both from one sweep and gate). */
export function substituted(unit: FrequencyResponse, reference: FrequencyResponse): FrequencyResponse {
  const byHz = new Map(reference.points.map((p) => [p.hz, p]));
  return {
    points: unit.points.flatMap((p) => {
      const other = byHz.get(p.hz);
      return other === undefined ? [] : [{ hz: p.hz, db: p.db - other.db, u: Math.hypot(p.u, other.u) }];
    }),
    lowestValidHz: Math.max(unit.lowestValidHz, reference.lowestValidHz),
  };
}
