import { dbToPower, powerToDb } from '../units';
import { measured, notMeasured, type Measurement } from './measurement';
import type { BandLevel } from './third-octave-spectrum';

/** Third octaves around 100 Hz and around 1 kHz: three of each, so that one voice's overtones do not decide. */
const LOW_HZ = [80, 100, 125];
const MIDDLE_HZ = [800, 1000, 1250];

/** A spoken take with what its distance is. */
export interface ProximityTake {
  readonly distanceM: number;
  /** Long-term spectrum of the take. */
  readonly thirdOctave: readonly BandLevel[];
  /** Seconds of speech in it. */
  readonly speechS: number;
  /** Spectrum of its noise, brought to the same gain; empty where unknown. */
  readonly noise: readonly BandLevel[];
}

/**
 * Proximity effect: rise at 100 Hz re 1 kHz, very close against normal distance. Level and voice effort cancel, since
 * each take is compared with itself at 1 kHz; noise power is taken off first.
 *
 * @param close - the take at 25–60 mm
 * @param normal - the take at the normal distance
 */
export function proximityEffect(close: ProximityTake, normal: ProximityTake): Measurement {
  const cm = (m: number): string => (100 * m).toFixed(1).replace(/\.0$/, '');
  const condition = `speech, third octaves 80–125 Hz re 800–1250 Hz, ${cm(close.distanceM)} cm re ${cm(normal.distanceM)} cm`;
  const [c, n] = [balance(close), balance(normal)];
  return c === null || n === null
    ? notMeasured('proximity', condition, 'The speech does not stand out of the noise at 100 Hz or at 1 kHz.')
    : measured('proximity', c - n, condition, {
        uncertainty: Math.hypot(balanceScatterDb(close.speechS), balanceScatterDb(normal.speechS)),
        settings: { closeM: close.distanceM, normalM: normal.distanceM },
      });
}

/** Independent readings a second in third octaves of 80–125 Hz: their width (IEC 61260-1). */
const LOW_WIDTH_HZ = 69;
/** Speech comes and goes: its spectrum scatters by about so much more than steady noise (common practice, no source). */
const SPEECH_FACTOR = 2;

/** Scatter of a low band of speech over a limited time, dB; the wider band at 1 kHz adds little. */
const balanceScatterDb = (speechS: number): number =>
  ((10 / Math.LN10) * SPEECH_FACTOR) / Math.sqrt(Math.max(1, LOW_WIDTH_HZ * speechS));

function balance(take: ProximityTake): number | null {
  const [low, middle] = [LOW_HZ, MIDDLE_HZ].map((bands) => cleanPower(take, bands));
  return low === null || middle === null ? null : powerToDb(low / middle);
}

function cleanPower({ thirdOctave, noise }: ProximityTake, bands: readonly number[]): number | null {
  const total = (levels: readonly BandLevel[]): number =>
    levels.reduce((s, b) => (bands.includes(b.centreHz) && b.levelDbfs !== null ? s + dbToPower(b.levelDbfs) : s), 0);
  const [signal, floor] = [total(thirdOctave), total(noise)];
  // Under 3 dB above the noise the correction is larger than what it leaves.
  return signal > 2 * floor ? signal - floor : null;
}

/**
 * On-axis gain of a first-order gradient microphone in the spherical wave of a point source, re a plane wave:
 * |α + (1 − α)(1 + 1/(jkr))|, standard microphone texts.
 *
 * @param alpha - share of the pressure part
 * @param distanceM - from the source
 * @param frequency - in hertz
 * @param speedOfSound - in metres per second
 */
export function sphericalWaveGainDb(alpha: number, distanceM: number, frequency: number, speedOfSound = 343): number {
  const kr = (2 * Math.PI * frequency * distanceM) / speedOfSound;
  return powerToDb(1 + ((1 - alpha) / kr) ** 2);
}
