import { gearKind } from '#core/gear/kinds';
import type { Category } from '#contracts/common';

export { figureText, formatNumber, plusMinus } from '#core/measure/figure-text';

/** Seconds as people say them: 0:08, 1:02:03. */
export function formatTime(seconds: number): string {
  const whole = Math.floor(seconds);
  const h = Math.floor(whole / 3600);
  const m = Math.floor((whole % 3600) / 60);
  const s = String(whole % 60).padStart(2, '0');
  return h > 0 ? `${h}:${String(m).padStart(2, '0')}:${s}` : `${m}:${s}`;
}

/** A probability from draws in whole per cent; what no number of draws can show is not said. */
export function chanceText(probability: number): string {
  if (probability >= 0.995) return 'over 99 %';
  if (probability < 0.005) return 'under 1 %';
  return `${Math.round(100 * probability)} %`;
}

/** A price with its currency, without decimals where there are none. */
export function formatPrice(amount: number, currency: string): string {
  return `${Number.isInteger(amount) ? String(amount) : amount.toFixed(2)} ${currency}`;
}

/** Days between two ISO days. */
export function daysBetween(from: string, to: string): number {
  return Math.round((Date.parse(to) - Date.parse(from)) / 86_400_000);
}

const two = (n: number): string => String(n).padStart(2, '0');
const dayOf = (at: Date): string => [at.getFullYear(), at.getMonth() + 1, at.getDate()].map(two).join('-');

/** Today, as the person's calendar has it. */
export const today = (): string => dayOf(new Date());

/** The day of a moment (ISO 8601, as the server has it), as the person's calendar has it. */
export const momentDay = (moment: string): string => dayOf(new Date(moment));

/** Day and time of a moment, by the person's clock. */
export function momentText(moment: string): string {
  const at = new Date(moment);
  return `${dayOf(at)} ${two(at.getHours())}:${two(at.getMinutes())}`;
}

/** Name of a kind of gear. */
export const kindName = (kind: Category): string => gearKind(kind).name;

/** The hatch of a kind of gear, as a fill. */
export const hatchUrl = (kind: Category): string => `url(#hatch-${gearKind(kind).hatch ?? kind})`;

export const STAGE_NAMES = {
  received: 'Received',
  takes: 'Takes',
  measured: 'Measured',
  scored: 'Scored',
  published: 'Published',
} as const;

/** A number of bytes as people say it. */
export function bytesWords(bytes: number): string {
  if (bytes < 1e6) return `${Math.round(bytes / 1e3)} kB`;
  return bytes < 1e9 ? `${(bytes / 1e6).toFixed(1)} MB` : `${(bytes / 1e9).toFixed(1)} GB`;
}
