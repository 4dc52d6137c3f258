import { gearKind } from '#core/gear/kinds';
import { CATEGORIES, type Category } from '#contracts/common';

export { figureText, formatNumber } from '#core/measure/figure-text';

/** Seconds as people say them: 0:08, 1:02:03. */
export function formatTime(seconds: number): string {
  const whole = Math.floor(seconds);
  const h = Math.floor(whole / 3600);
  const m = Math.floor((whole % 3600) / 60);
  const s = String(whole % 60).padStart(2, '0');
  return h > 0 ? `${h}:${String(m).padStart(2, '0')}:${s}` : `${m}:${s}`;
}

/** A price with its currency, without decimals where there are none. */
export function formatPrice(amount: number, currency: string): string {
  return `${Number.isInteger(amount) ? String(amount) : amount.toFixed(2)} ${currency}`;
}

/** Days between two ISO days. */
export function daysBetween(from: string, to: string): number {
  return Math.round((Date.parse(to) - Date.parse(from)) / 86_400_000);
}

/** Today, as the person's calendar has it. */
export function today(): string {
  const now = new Date();
  return [now.getFullYear(), now.getMonth() + 1, now.getDate()].map((n) => String(n).padStart(2, '0')).join('-');
}

/** Names of kinds of gear. */
export const CATEGORY_NAMES = Object.fromEntries(CATEGORIES.map((id) => [id, gearKind(id).name])) as Record<
  Category,
  string
>;

export const STAGE_NAMES = {
  received: 'Received',
  takes: 'Takes',
  measured: 'Measured',
  scored: 'Scored',
} as const;
