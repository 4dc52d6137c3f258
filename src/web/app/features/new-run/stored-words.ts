import { codecWords } from '#core/audio/codec';
import type { Clip } from '#contracts/clip';
import { formatNumber } from '../../ui/format';

/** What a stored file is, in a line: length, rate, channels, and where its sound comes from. */
export function storedWords({ format, salvaged, origin, channelOf }: Clip): string {
  return [
    `stored, ${formatNumber(format.durationS, 1)} s`,
    `${format.sampleRateHz / 1000} kHz`,
    format.channels === 1 ? 'mono' : `${format.channels} channels`,
    salvaged ? 'a part of it' : '',
    origin ? `from ${codecWords(origin)}` : '',
    channelOf ? `channel ${channelOf.channel} of ${channelOf.name}` : '',
  ]
    .filter((part) => part !== '')
    .join(', ');
}
