import { codecWords, isLossy, type SoundCodec } from '#core/audio/codec';
import { conditionOf, conditionWords, processingOf, type TakeSettingsNoted } from '#core/rules/take-conditions';

/**
 * What sets a take apart from others of its unit and step: voice, place and mount, what was done to it, and the codec
 * that it came through. Empty where it is as it came and nothing was noted.
 *
 * @param settings - as noted with the take
 * @param sound - how its file was packed; null for plain samples
 */
export function takeWords(settings: TakeSettingsNoted, sound: SoundCodec | null): string {
  const processing = processingOf(settings);
  return [
    conditionWords(conditionOf(settings)),
    processing === null ? '' : `processed: ${processing}`,
    sound && isLossy(sound.codec) ? codecWords(sound) : '',
  ]
    .filter((part) => part !== '')
    .join(', ');
}
