/** A bell in a microphone's response. */
export interface Bell {
  readonly hz: number;
  readonly db: number;
  readonly q: number;
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
  /** Limits of the response, −3 dB, in hertz. */
  readonly lowHz: number;
  readonly highHz: number;
  readonly bells: readonly Bell[];
}

/**
 * Gain of a first-order pattern.
 *
 * @param alpha - share of the omnidirectional part, 0…1
 * @param angleDeg - incidence, 0 = in front
 * @returns amplitude ratio re 0°, negative behind a figure-of-eight
 */
export function patternGain(alpha: number, angleDeg: number): number {
  return alpha + (1 - alpha) * Math.cos((angleDeg * Math.PI) / 180);
}

/** Share of power that the pattern takes from a diffuse field (random energy efficiency, standard microphone texts). */
export function randomEnergyEfficiency(alpha: number): number {
  return alpha ** 2 + (1 - alpha) ** 2 / 3;
}
