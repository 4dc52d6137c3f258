import { aWeightingPower } from '../../dsp/weighting-curves';
import { DBU_VOLTS } from '../../measure/self-noise';
import { powerToDb } from '../../units';

/** Boltzmann constant in J/K, exact since the SI of 2019 (CODATA 2018). */
const BOLTZMANN = 1.380649e-23;
/** Temperature that a figure is told for: 20 °C. */
const ROOM_KELVIN = 293.15;
const INTEGRATION_STEP_HZ = 1;

/** Band of a noise figure, in hertz. */
export interface NoiseBand {
  readonly lowHz: number;
  readonly highHz: number;
}

/**
 * Thermal noise of a resistor at 20 °C as it stands open, unweighted: 4·k·T·R·B (Johnson 1928, Nyquist 1928).
 *
 * @param ohms - resistance
 * @param band - from, to
 * @returns dBu; 150 Ω over 20 Hz to 20 kHz: −130.9
 */
export function thermalNoiseDbu(ohms: number, band: NoiseBand): number {
  return powerToDb((4 * BOLTZMANN * ROOM_KELVIN * ohms * (band.highHz - band.lowHz)) / DBU_VOLTS ** 2);
}

/**
 * The same, A-weighted: the bandwidth is that of white noise through the squared A curve (trapezia of 1 Hz).
 *
 * @param ohms - resistance
 * @param band - from, to
 * @returns dBu(A)
 */
export function thermalNoiseDbuA(ohms: number, band: NoiseBand): number {
  let bandwidth = 0;
  for (let f = band.lowHz; f < band.highHz; f += INTEGRATION_STEP_HZ) {
    const width = Math.min(INTEGRATION_STEP_HZ, band.highHz - f);
    bandwidth += (width * (aWeightingPower(f) + aWeightingPower(f + width))) / 2;
  }
  return thermalNoiseDbu(ohms, { lowHz: 0, highHz: bandwidth });
}
