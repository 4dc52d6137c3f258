import { formatNumber, formatTime } from '../../ui/format';

/**
 * How long a take runs, and whether that is enough for its step.
 *
 * @param seconds - so far
 * @param length - what the step asks for; null where it asks for nothing
 */
export function takeClock(
  seconds: number,
  length: { readonly least: number | null; readonly most: number | null } | null,
): string {
  const { least = null, most = null } = length ?? {};
  if (least !== null && seconds < least)
    return `${formatTime(seconds)} · ${formatNumber(Math.ceil(least - seconds), 0)} s to go`;
  return `${formatTime(seconds)}${most !== null && seconds > most ? ' · long enough' : ''}`;
}
