import { dbToPower, powerToDb } from '../units';
import { measured, notMeasured, type Bound, type Measurement } from './measurement';
import type { BandLevel } from './third-octave-spectrum';

/** Wind rumble lies below this frequency (common practice, no source). */
export const RUMBLE_BELOW_HZ = 200;

/** The take in the wind. */
export interface WindTake {
  /** Long-term spectrum. */
  readonly thirdOctave: readonly BandLevel[];
  /** A-weighted level, AES17 dBFS. */
  readonly aDbfs: number;
  readonly gainDb: number;
  /** As noted at the take; null where nobody measured it. */
  readonly windSpeedMs: number | null;
  /** Which part of the take its levels are of; the whole take where nothing is said. */
  readonly from?: string;
  /** Whether these levels are the wind's, or a limit to it. */
  readonly bound?: Bound;
}

/** Level of all third octaves up to a frequency, in dBFS; −∞ where they hold nothing. */
export function levelBelow(bands: readonly BandLevel[], highestHz: number): number {
  return powerToDb(
    bands.reduce((s, b) => (b.centreHz <= highestHz && b.levelDbfs !== null ? s + dbToPower(b.levelDbfs) : s), 0),
  );
}

/**
 * Wind noise re speech: level below 200 Hz, and A-weighted level, against the loudness of the passage at one gain.
 *
 * @param wind - the take in the wind
 * @param speechLufs - loudness of the passage
 * @param speechGainDb - its gain
 */
export function windNoise(wind: WindTake, speechLufs: number, speechGainDb: number): [Measurement, Measurement] {
  const speed = wind.windSpeedMs === null ? 'wind speed not noted' : `wind of ${wind.windSpeedMs} m/s`;
  const read = (id: 'windLow' | 'windA', level: number, band: string): Measurement => {
    const condition = `${band}, ${wind.from ?? 'whole take'}, re gated speech loudness, equal gain, ${speed}`;
    if (!Number.isFinite(speechLufs)) return notMeasured(id, condition, 'The speech take is silent.');
    if (!Number.isFinite(level)) return notMeasured(id, condition, 'The wind take is digital silence.');
    return measured(id, level - wind.gainDb - (speechLufs - speechGainDb), condition, {
      bound: wind.bound ?? 'exact',
      settings: wind.windSpeedMs === null ? {} : { windSpeedMs: wind.windSpeedMs },
    });
  };
  return [
    read('windLow', levelBelow(wind.thirdOctave, RUMBLE_BELOW_HZ), 'third octaves of 20–200 Hz'),
    read('windA', wind.aDbfs, 'A-weighted'),
  ];
}
