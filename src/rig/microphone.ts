import type { Biquad } from '#core/dsp/biquad';

/** A bell in a microphone's response. */
export interface Bell {
  readonly hz: number;
  readonly db: number;
  readonly q: number;
}

/** Lines that an electronic microphone adds, as sound pressure levels that would read the same. */
export interface Lines {
  readonly hz: readonly number[];
  /** Of each line, dB SPL. */
  readonly dbSpl: number;
}

/** What the simulated bench knows of a microphone; the measurements have to find it again. */
export interface MicrophoneModel {
  /** Millivolts per pascal at 1 kHz. */
  readonly sensitivityMvPa: number;
  /** Equivalent noise level, dB SPL, A-weighted. */
  readonly selfNoiseDbA: number;
  /** First-order pattern α + (1 − α)·cos θ below and above 2 kHz. */
  readonly alphaLow: number;
  readonly alphaHigh: number;
  /** Limits of the response on axis at 15 cm, −3 dB, in hertz. */
  readonly lowHz: number;
  readonly highHz: number;
  readonly bells: readonly Bell[];
  /** A high-pass that nobody is told of (Butterworth). */
  readonly lowCut?: { readonly hz: number; readonly order: number };
  /** Peak pressure of a plosive's puff at 15 cm without a filter, dB re the RMS of the speech. */
  readonly puffDb?: number;
  /** Level of wind of 7 m/s below 200 Hz, dB re speech at 15 cm. */
  readonly windDb?: number;
  readonly hum?: Lines;
  readonly whine?: Lines;
}

/** Wave number times distance is one at this frequency: below, the gradient part of a near source rises. */
export const proximityHz = (distanceM: number): number => SPEED_OF_SOUND / (2 * Math.PI * distanceM);
export const SPEED_OF_SOUND = 343;
/** The rise ends here, as it does in every real microphone. */
const PROXIMITY_ENDS_HZ = 8;
/** Where the response of a model is stated. */
export const REFERENCE_DISTANCE_M = 0.15;

/**
 * First-order section for a point source at a distance and an angle, relative to the same microphone's response on
 * axis at 15 cm: (α + (1 − α)·cos θ·(1 + ω_r/s)) over (α + (1 − α)·(1 + ω₀/s)), the integrators leaking at 8 Hz. A
 * pressure part is not changed by the distance, a gradient part is (standard microphone texts).
 *
 * @param alpha - share of the pressure part
 * @param angleDeg - incidence
 * @param distanceM - of the source; Infinity for plane waves
 * @param sampleRate - in hertz
 */
export function nearFieldSection(alpha: number, angleDeg: number, distanceM: number, sampleRate: number): Biquad {
  const gradient = (1 - alpha) * Math.cos((angleDeg * Math.PI) / 180);
  const leak = 2 * Math.PI * PROXIMITY_ENDS_HZ;
  const turn = (r: number): number => (r === Infinity ? leak : leak + 2 * Math.PI * proximityHz(r));
  // (n1·s + n0)/(s + d0), by the bilinear transform.
  const n1 = alpha + gradient;
  const n0 = alpha * leak + gradient * turn(distanceM);
  const d0 = alpha * leak + (1 - alpha) * turn(REFERENCE_DISTANCE_M);
  const k = 2 * sampleRate;
  const a0 = k + d0;
  return { b0: (n1 * k + n0) / a0, b1: (n0 - n1 * k) / a0, b2: 0, a1: (d0 - k) / a0, a2: 0 };
}
