import { DBU_VOLTS, ONE_PASCAL_DB_SPL } from '../measure/self-noise';
import { amplitudeToDb, powerToDb } from '../units';

/**
 * What an input takes away from a source by loading it: 20·lg(Zin / (Zin + Zs)).
 *
 * @example
 *   loadingLossDb(150, 3000); // ≈ -0.42
 */
export const loadingLossDb = (sourceOhms: number, inputOhms: number): number =>
  amplitudeToDb(inputOhms / (inputOhms + sourceOhms));

/**
 * Sound pressure at the capsule at which an input reads full scale: peaks of a sine.
 *
 * @param sensitivityMvPa - of the microphone, mV/Pa
 * @param mostInputDbu - level at the input that reads 0 dBFS at the gain in question
 * @returns dB SPL of a sine
 * @example
 *   clippingDbSpl(20, 10); // ≈ 135.7
 */
export const clippingDbSpl = (sensitivityMvPa: number, mostInputDbu: number): number =>
  mostInputDbu - amplitudeToDb(sensitivityMvPa / 1000 / DBU_VOLTS) + ONE_PASCAL_DB_SPL;

/**
 * Voltage that phantom power leaves at a microphone: two resistors feed it side by side (IEC 61938: 6.8 kΩ each for 48 V).
 *
 * @param milliamperes - that it draws
 * @param volts - of the supply
 * @param ohms - of each resistor
 * @example
 *   phantomVolts(5); // ≈ 31.0
 */
export const phantomVolts = (milliamperes: number, volts = 48, ohms = 6800): number =>
  volts - (milliamperes / 1000) * (ohms / 2);

/** Speed of sound at 20 °C, m/s. */
const SPEED_OF_SOUND = 343;

/**
 * How long sound is on its way.
 *
 * @returns milliseconds
 * @example
 *   soundDelayMs(3.43); // ≈ 10.0
 */
export const soundDelayMs = (metres: number): number => (1000 * metres) / SPEED_OF_SOUND;

/** Delay that brings two ways to one moment: samples at a rate. */
export const delaySamples = (ms: number, sampleRateHz: number): number => (ms * sampleRateHz) / 1000;

/**
 * Level at a distance re the level at another one, outdoors or close to the mouth: −20·lg of their ratio.
 *
 * @example
 *   distanceDb(0.15, 0.3); // ≈ -6.02
 */
export const distanceDb = (from: number, to: number): number => -amplitudeToDb(to / from);

/**
 * Direct sound re reverberant sound at a distance: 20·lg(critical distance / distance).
 *
 * @param critical - distance at which both are equally strong
 * @param metres - distance
 * @example
 *   directToReverberantDb(1, 0.5); // ≈ 6.02
 */
export const directToReverberantDb = (critical: number, metres: number): number => amplitudeToDb(critical / metres);

/** What headphones do at an output. */
export interface HeadphoneLevel {
  /** Volts at the headphones, at the most. */
  readonly volts: number;
  readonly milliwatts: number;
  /** Sound pressure at the most, of a steady sine of 1 kHz, dB SPL. */
  readonly dbSpl: number;
  /** What the output's impedance takes away, dB. */
  readonly lossDb: number;
  /** Impedance of the headphones re that of the output. */
  readonly damping: number;
}

/**
 * How loud headphones get from an output, by Ohm's law.
 *
 * @param openVolts - highest voltage of the output without a load
 * @param outputOhms - its impedance
 * @param loadOhms - of the headphones
 * @param sensitivity - dB SPL at 1 mW, or at 1 V
 */
export function headphoneLevel(
  openVolts: number,
  outputOhms: number,
  loadOhms: number,
  sensitivity: { readonly dbPerMw: number } | { readonly dbPerVolt: number },
): HeadphoneLevel {
  const volts = (openVolts * loadOhms) / (loadOhms + outputOhms);
  const milliwatts = (1000 * volts ** 2) / loadOhms;
  return {
    volts,
    milliwatts,
    dbSpl: 'dbPerMw' in sensitivity ? sensitivity.dbPerMw + powerToDb(milliwatts) : sensitivity.dbPerVolt + amplitudeToDb(volts), // prettier-ignore
    lossDb: loadingLossDb(outputOhms, loadOhms),
    damping: loadOhms / outputOhms,
  };
}

/**
 * How long a recording can last.
 *
 * @param gigabytes - free on the card, 10⁹ bytes each
 * @param sampleRateHz - rate
 * @param bits - per sample; 32 for floating point
 * @param channels - recorded at once
 * @returns hours
 * @example
 *   recordingHours(32, 48000, 24, 2); // ≈ 30.86
 */
export const recordingHours = (gigabytes: number, sampleRateHz: number, bits: number, channels: number): number =>
  (gigabytes * 1e9) / ((sampleRateHz * bits * channels) / 8) / 3600;

/** Daily time at a level after which occupational practice calls it a day: 85 dBA over 8 hours, half for every 3 dB more. */
export const listeningHours = (dbA: number): number => 8 / 2 ** ((dbA - 85) / 3);
