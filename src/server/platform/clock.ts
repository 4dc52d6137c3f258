import { addDays, localDay } from '#core/text/local-day';
import { StartRefused } from './start-refused';

/** One clock for all: moments, and the days of the desk. */
export interface Clock {
  /** Time zone of the desk. */
  readonly zone: string;
  readonly now: () => Date;
  /** The day at the desk. */
  readonly today: () => string;
  /** The day at the desk in so many days. */
  readonly inDays: (days: number) => string;
}

/** @param zone - IANA name; it is known to be one */
export function clockIn(zone: string, now: () => Date = () => new Date()): Clock {
  const today = (): string => localDay(now(), zone);
  return { zone, now, today, inDays: (days) => addDays(today(), days) };
}

/**
 * The time zone of the desk: as set, else that of this machine, which stands on it.
 *
 * @param set - SEDIMENT_ZONE
 * @throws {@link StartRefused} in words, where it is set to none
 */
export function deskZone(set: string | undefined): string {
  const zone = set ?? Intl.DateTimeFormat().resolvedOptions().timeZone;
  try {
    localDay(new Date(0), zone);
    return zone;
  } catch {
    throw new StartRefused(`SEDIMENT_ZONE is "${zone}"; it must be the name of a time zone, as Europe/Lisbon.`);
  }
}
