/**
 * Branded numbers: the compiler objects when a level in dBFS is handed over as a loudness in LUFS. Levels have brands
 * where what they refer to could be mixed up; frequencies and times are plain numbers whose names end in their unit
 * (`lowHz`, `durationS`; `sampleRate` is in hertz). A brand costs nothing at run time.
 */
declare const unit: unique symbol;
type Branded<Name extends string> = number & { readonly [unit]: Name };

/** A level difference or gain, in decibels. */
export type Db = Branded<'dB'>;
/** A level re full scale, in decibels. RMS levels follow AES17: a full-scale sine reads 0. */
export type Dbfs = Branded<'dBFS'>;
/** Loudness re full scale, ITU-R BS.1770-5. */
export type Lufs = Branded<'LUFS'>;
/** True-peak level re full scale, ITU-R BS.1770-5 Annex 2. */
export type Dbtp = Branded<'dBTP'>;

/** A number of decibels as a level difference or gain. */
export const db = (value: number): Db => value as Db;
/** A number of decibels re full scale (AES17: a full-scale sine reads 0). */
export const dbfs = (value: number): Dbfs => value as Dbfs;
/** A number of loudness units re full scale. */
export const lufs = (value: number): Lufs => value as Lufs;
/** A number of decibels re full scale as a true peak. */
export const dbtp = (value: number): Dbtp => value as Dbtp;

/** Ratio of powers (linear) to decibels. Zero gives −∞; a negative ratio gives NaN. */
export const powerToDb = (ratio: number): number => 10 * Math.log10(ratio);
/** Ratio of amplitudes (linear) to decibels. Zero gives −∞; a negative ratio gives NaN. */
export const amplitudeToDb = (ratio: number): number => 20 * Math.log10(ratio);
/** Decibels to a ratio of powers. */
export const dbToPower = (value: number): number => 10 ** (value / 10);

/**
 * Mean square (full scale = ±1) to a level in dBFS by the AES17 convention, in which a full-scale sine,
 * whose mean square is 1/2, reads 0 dBFS. Zero gives −∞.
 */
export const meanSquareToDbfs = (meanSquare: number): Dbfs => dbfs(powerToDb(2 * meanSquare));
