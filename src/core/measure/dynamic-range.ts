import { powerToDb } from '../units';
import { linePower, restPower, strongestLine, type ToneSpectrum } from './tone-spectrum';

/** What is left of a faint tone once it is taken out. */
export interface DynamicRange {
  readonly hz: number;
  /** Of the tone, AES17 dBFS. */
  readonly levelDbfs: number;
  /** Full scale re what is left, dB. */
  readonly aDb: number;
  readonly zDb: number;
}

/**
 * Dynamic range by a tone of 997 Hz at −60 dBFS: a full-scale sine re what is left at 20 Hz–20 kHz once the tone is taken
 * out (AES17, 6.4.1 in the edition of 1998, from memory; there by the weighting of ITU-R BS.468 with its unity at 2 kHz,
 * here A-weighted as data sheets give it, and unweighted).
 *
 * @param spectrum - of the take of the tone
 */
export function dynamicRangeIn(spectrum: ToneSpectrum): DynamicRange {
  const hz = strongestLine(spectrum, 20, spectrum.highHz) ?? NaN;
  return {
    hz,
    levelDbfs: powerToDb(2 * linePower(spectrum, hz)),
    aDb: -powerToDb(2 * restPower(spectrum, [hz], 'a')),
    zDb: -powerToDb(2 * restPower(spectrum, [hz])),
  };
}
