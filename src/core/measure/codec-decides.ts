import { codecWords, isLossy, type SoundCodec } from '../audio/codec';
import { notMeasured, type Measurement } from './measurement';
import type { QuantityGroup } from './quantities/quantity-definition';
import { quantity, type QuantityId } from './registry';

/**
 * What a lossy codec decides, and not the gear: the noise in pauses, which it thins out or leaves away below its
 * masking threshold, and lines in it (common practice, no source; every perceptual codec is built for it).
 */
const DECIDED: readonly QuantityId[] = ['silenceRmsZ', 'silenceRmsA', 'silenceItu468', 'hum', 'interference'];

/** Why a figure of compressed sound is missing; null where the sound is as it was recorded. */
export const codecReason = (sound: SoundCodec | null): string | null =>
  sound && isLossy(sound.codec)
    ? `The sound came through ${codecWords(sound)}: the codec decides what is left of quiet noise and of the top octave.`
    : null;

/**
 * Figures of a clip without those that its codec decides.
 *
 * @param measurements - of the decoded samples
 * @param sound - how the original was packed; null for a recording that was never compressed
 * @returns the same figures; those the codec decides are not measured, with the reason
 */
export function withoutCodecFigures(measurements: readonly Measurement[], sound: SoundCodec | null): Measurement[] {
  const reason = codecReason(sound);
  return measurements.map((m) =>
    reason !== null && DECIDED.includes(m.quantity) ? notMeasured(m.quantity, m.condition, reason) : m,
  );
}

/** What a recorded sweep or a steady tone says of a chain, and a codec says otherwise. */
const OF_THE_CHAIN: readonly QuantityGroup[] = ['sound', 'drive', 'noise'];

/**
 * Figures of a run, each that was not read because its take is compressed with that reason.
 *
 * @param measurements - of the run
 * @param reason - as {@link codecReason} says of the sweep or the tone that was left out; null where none was
 */
export const withCodecReason = (measurements: readonly Measurement[], reason: string | null): Measurement[] =>
  measurements.map((m) =>
    reason !== null && m.value === null && OF_THE_CHAIN.includes(quantity(m.quantity).group)
      ? { ...m, notMeasured: m.notMeasured === reason ? reason : `${m.notMeasured ?? ''} ${reason}`.trim() }
      : m,
  );
