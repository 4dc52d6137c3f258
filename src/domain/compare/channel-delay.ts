import type { TimeMap } from '#core/audio/phrase-alignment';

/**
 * By how much one channel of a recording comes later than another one: what their converters, links and ways of the
 * sound make (1 cm of air is 0.03 ms). Of recordings that were started one by one it would tell of the hand at the
 * button, so there is none.
 *
 * @param map - which moment of the first belongs to which of the second
 * @param first - the recording that the first is a channel of; null where it is none
 * @param second - the same of the second
 * @returns milliseconds, positive where the second comes later; null where they are not of one recording, or no lag is constant
 */
export function channelDelayMs(
  { kind, anchors: [[at, then]] }: TimeMap,
  first: string | null,
  second: string | null,
): number | null {
  return kind === 'performance' && first !== null && first === second ? 1000 * (then - at) : null;
}
